#include "app/joints/joints_page.h"

#include "app/joints/joint_dialog.h"
#include "app/marks/column.h"
#include "app/theme.h"
#include "build/edits.h"
#include "build/words.h"
#include "fits/heat.h"
#include "fits/purpose.h"
#include "quantity/text.h"
#include "sheets/figures.h"

#include <algorithm>

#include <utility>

namespace datrin::app {

using sheets::qt;

JointsPage::JointsPage(Document& document, TargetsState& targets)
    : Page(document, Step::joints), targets_(targets), left_(new QWidget), heading_(heading_label("Joints")),
      list_(new RoomList("Joints, tightest first")), add_(new QPushButton("State a joint\u2026")),
      zones_(new ZoneView), clearance_(new ClearanceView), make_(new MakePanel(document, targets)),
      fit_(new FitPanel(document)), work_(new WorkPanel(document, targets)),
      pairs_(new PairsPanel(document, targets)), try_(new TryPanel(document, targets)), trial_(new TrialView),
      below_(new QStackedWidget) {
  auto* rows = new QVBoxLayout(left_);
  rows->setContentsMargins(8, 8, 8, 12);
  rows->setSpacing(6);
  heading_->setContentsMargins(12, 0, 0, 0);
  rows->addWidget(heading_);
  rows->addWidget(list_, 1);
  add_->setToolTip("Ctrl+Shift+J");
  rows->addWidget(add_);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(8);
  zones_->set_empty_text("What must fit what",
                         "State a joint: point at a bore and the pin that goes in it, and say what it is "
                         "for. Its limits are proposed, its room is marked, and what is still to be "
                         "made gets the number that suits what was made.");
  column->addWidget(zones_, 66);
  below_->addWidget(clearance_);
  below_->addWidget(trial_);
  column->addWidget(below_, 34);
  put_faces({make_, fit_, work_, pairs_, try_});
  connect(tabs_, &Tabs::changed, this, [this] { show_panel(); });
  connect(list_, &RoomList::chosen_by_hand, this, [this](qlonglong id) { choose(id); });
  connect(add_, &QPushButton::clicked, this, &JointsPage::state_joint);
  connect(zones_, &ZoneView::temperature_dragged, this, [this](double celsius) {
    temperature_ = celsius;
    show_pictures();
  });
  connect(zones_, &ZoneView::temperature_let_go, this, &JointsPage::keep_temperature);
  connect(work_, &WorkPanel::temperature_wanted, this, &JointsPage::keep_temperature);
  connect(pairs_, &PairsPanel::pair_chosen, this, &JointsPage::choose_pair);
  connect(try_, &TryPanel::changed, this, [this] { trial_->show_picture(try_->picture()); });
  connect(make_, &MakePanel::pair_chosen, this, &JointsPage::choose_pair);
  connect(make_, &MakePanel::card_wanted, this, &JointsPage::card_wanted);
}

void JointsPage::choose(build::Id joint) {
  if (joint == chosen_) return;
  chosen_ = joint;
  refresh();
}

void JointsPage::choose_pair(int condition) {
  const auto& sources = targets_.now().sources;
  if (condition < 0 || condition >= static_cast<int>(sources.size())) return;
  const auto& source = sources[static_cast<std::size_t>(condition)];
  pairs_of_[source.joint] = {source.hole_piece, source.shaft_piece};
  refresh();
}

/// The condition of the pair the chosen joint is looked at for, which stays until another is chosen; the
/// tightest at first, and when the pair is no more.
int JointsPage::condition_of_pair() {
  const auto& targets = targets_.now();
  const auto pair_of = [&](int c) {
    const auto& source = targets.sources[static_cast<std::size_t>(c)];
    return build::PiecePair(source.hole_piece, source.shaft_piece);
  };
  const auto kept = pairs_of_.find(chosen_);
  if (kept != pairs_of_.end())
    for (const int c : targets.conditions_of(chosen_))
      if (pair_of(c) == kept->second) return c;
  const int tightest = targets.tightest_of_joint(chosen_);
  if (tightest >= 0) pairs_of_[chosen_] = pair_of(tightest);
  return tightest;
}

void JointsPage::refresh() {
  if (std::exchange(path_, document_.path()) != document_.path()) pairs_of_.clear(); // of another build
  const auto& b = document_.build();
  const auto& targets = targets_.now();
  std::vector<RoomEntry> entries;
  const auto part_of = [&](build::Id dimension) {
    const auto* d = b.find<build::Dimension>(dimension);
    const auto* part = d ? b.find<build::Part>(d->part) : nullptr;
    return part ? name_words(part->name) : QString("\u2013");
  };
  for (const auto& [id, joint] : b.joints()) {
    RoomEntry e;
    e.id = id;
    e.name = name_words(joint.name);
    e.what = qt(build::shown_word(joint.purpose));
    e.below = QString("%1 \u00B7 %2")
                  .arg(part_of(joint.hole), joint.shaft ? part_of(joint.shaft) : qt(joint.thread));
    const int c = targets.tightest_of_joint(id);
    if (c >= 0 && targets.result.usable()) {
      e.known = true;
      e.room = targets.result.conditions[static_cast<std::size_t>(c)].room;
      e.limiting = targets.result.conditions[static_cast<std::size_t>(c)].limiting;
    }
    e.made = targets.made_so_far(id);
    entries.push_back(std::move(e));
  }
  heading_->setText(entries.empty() ? QString("JOINTS")
                                    : qt(counted(entries.size(), "JOINT", "JOINTS")) +
                                          (theme().large() ? "" : ", TIGHTEST FIRST"));
  chosen_ = list_->show_entries(std::move(entries), chosen_);
  state_ = joint_state(b, targets, chosen_, condition_of_pair());
  temperature_ = state_.id != 0 ? state_.joint.temperature : 20;
  add_->setEnabled(document_.is_open());
  show_panel();
  show_pictures();
}

/// The face of the room column that is seen; the others are shown when they are chosen.
void JointsPage::show_panel() {
  below_->setCurrentIndex(tabs_->chosen() == try_face ? 1 : 0);
  switch (tabs_->chosen()) {
  case make_face:
    return make_->show_state(state_);
  case fit_face:
    return fit_->show_state(state_);
  case work_face:
    return work_->show_state(state_, temperature_);
  case try_face:
    try_->show_state(state_);
    return trial_->show_picture(try_->picture());
  default:
    return pairs_->show_state(state_);
  }
}

void JointsPage::show_pictures() {
  const auto& b = document_.build();
  zones_->show_picture(zone_picture(b, targets_.now(), state_, temperature_), document_.unit());
  clearance_->show_picture(clearance_picture(b, targets_.now(), state_, temperature_), document_.unit());
  if (tabs_->chosen() == work_face) work_->show_state(state_, temperature_);
}

void JointsPage::keep_temperature(double celsius) {
  if (state_.id == 0) return;
  for (const auto dimension : {state_.joint.hole, state_.joint.shaft})
    if (const auto* metal = metal_of(document_.build(), dimension))
      if (const auto wrong = fits::temperature_wrong(*metal, celsius); !wrong.empty()) {
        temperature_ = state_.joint.temperature;
        show_pictures();
        emit say(qt(wrong));
        return;
      }
  auto changed = state_.joint;
  changed.temperature = celsius;
  document_.apply(build::change(document_.build(), state_.id, changed, "Working heat"));
}

void JointsPage::state_joint() {
  if (!document_.is_open()) return;
  auto* dialog = new JointDialog(document_, this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  connect(dialog, &QDialog::accepted, this, [this, dialog] { choose(dialog->joint()); });
  dialog->open();
}

} // namespace datrin::app
