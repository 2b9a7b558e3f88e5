#include "app/casting/rescue_panel.h"

#include "app/marks/column.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/edits.h"
#include "build/now.h"
#include "casting/explain.h"
#include "quantity/text.h"
#include "sheets/figures.h"

#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

RescuePanel::RescuePanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), words_(words_label()), elsewhere_(muted_label()),
      castings_(words_label()), decisions_(muted_label()), list_(new QListWidget),
      look_(new QPushButton("Find what saves it")), take_(new QPushButton("Take this change")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(6);
  column->addWidget(heading_label("When it does not clean up"));
  column->addWidget(words_);
  column->addWidget(look_);
  list_->setWordWrap(true);
  list_->setTextElideMode(Qt::ElideNone);
  list_->setResizeMode(QListView::Adjust);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setAccessibleName("Changes that save it, least first");
  column->addWidget(list_, 1);
  column->addWidget(elsewhere_);
  column->addWidget(take_);
  column->addWidget(hairline());
  column->addWidget(heading_label("Other castings"));
  column->addWidget(castings_);
  column->addWidget(hairline());
  column->addWidget(heading_label("Decided"));
  column->addWidget(decisions_);
  connect(look_, &QPushButton::clicked, this, [this] {
    if (looking_.busy())
      looking_.stop();
    else
      look();
  });
  connect(take_, &QPushButton::clicked, this, &RescuePanel::take);
  list_->setToolTip("F1 shows the room the chosen change leaves, and where it comes from");
  auto* why = new QShortcut(QKeySequence("F1"), list_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(why, &QShortcut::activated, this, &RescuePanel::ask_why);
  connect(list_, &QListWidget::itemActivated, this, &RescuePanel::take);
  connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
    const bool any = row >= 0 && row < static_cast<int>(found_.rescue.rescues.size());
    take_->setEnabled(any);
    elsewhere_->setText(any ? qt(found_.rescue.rescues[static_cast<std::size_t>(row)].elsewhere) : QString());
  });
}

void RescuePanel::show_state(const PieceState& state) {
  looking_.forget();
  state_ = state;
  found_ = {};
  list_->clear();
  elsewhere_->clear();
  castings_->setText("Looked at together with the changes.");
  colour_label(castings_, theme().muted);
  take_->setEnabled(false);
  look_->setText("Find what saves it");
  look_->setEnabled(state.can_judge());
  if (!state.can_judge())
    words_->setText("Touch the casting first.");
  else if (state.margins.least >= 0)
    words_->setText("It cleans up as it is seated.");
  else
    words_->setText(QString("As it is seated it is short by %1.")
                        .arg(sheets::figure_with_unit(-state.margins.least, document_.unit())));
  QStringList decided;
  for (const auto& [id, decision] : document_.build().decisions_of(state.part))
    decided << QString("%1: %2").arg(qt(decision.what), qt(decision.reason));
  decisions_->setText(decided.isEmpty() ? QString("Nothing was changed in the drawing for a casting yet.")
                                        : decided.join("\n"));
  if (state.can_judge() && state.margins.least < 0 && isVisible()) look(); // that is what one came for
}

void RescuePanel::ask_why() {
  const int row = list_->currentRow();
  if (row < 0 || row >= static_cast<int>(found_.rescue.rescues.size())) return;
  const auto& rescue = found_.rescue.rescues[static_cast<std::size_t>(row)];
  const auto& groups = rescue.margins.groups;
  const auto least = std::min_element(groups.begin(), groups.end(),
                                      [](const auto& a, const auto& b) { return a.margin < b.margin; });
  if (least != groups.end() && least->touches > 0)
    show_why(list_, casting::explain_margin(casting::with_changes(state_.input.seat, rescue.changes), *least),
             document_.unit());
}

void RescuePanel::look() {
  if (!state_.can_judge()) return;
  struct Other {
    QString name;
    casting::SeatInput input;
    Pose start;
  };
  std::vector<Other> others;
  const auto& b = document_.build();
  for (const auto& [piece, record] : b.pieces_of(state_.part)) {
    if (piece == state_.piece || b.touches_of(piece).empty()) continue;
    const auto other = piece_state(b, piece);
    others.push_back({QString("casting no. %1").arg(record.number), other.input.seat, other.pose});
  }
  // The other of a pair: a part with surfaces of the same names; this casting under its drawing.
  std::set<std::string> names;
  for (const auto& s : state_.input.seat.surfaces) names.insert(slug(s.id));
  for (const auto& [part, record] : b.parts()) {
    if (part == state_.part) continue;
    std::vector<casting::SeatSurface> drawn;
    for (const auto& s : state_.input.seat.surfaces)
      for (const auto& [id, other] : b.surfaces_of(part))
        if (slug(other.name) == slug(s.id) && other.kind == s.shape.kind)
          drawn.push_back({s.id, other.shape(), other.machined, other.required});
    if (drawn.size() != state_.input.seat.surfaces.size()) continue;
    auto input = state_.input.seat;
    input.surfaces = drawn;
    others.push_back(
        {QString("this casting, made into %1,").arg(name_words(record.name)), input, state_.pose});
  }
  look_->setText("Stop looking");
  words_->setText("Looking for the least changes\u2026");
  const auto unit = document_.unit();
  looking_.start([input = state_.input.seat, pose = state_.pose, others, unit](const auto& should_stop) {
    Found found;
    casting::RescueOptions options;
    options.start = pose;
    options.unit = unit;
    options.should_stop = should_stop;
    found.rescue = casting::find_rescues(input, options);
    for (const auto& other : others) {
      casting::SeatOptions start;
      start.start = other.start;
      start.should_stop = options.should_stop;
      const auto best = casting::seat(other.input, start);
      if (best.usable())
        found.castings.push_back(QString("%1 %2: least room %3")
                                     .arg(other.name, best.cleans_up() ? "cleans up" : "does not clean up",
                                          sheets::figure_with_unit(best.margins.least, unit, true)));
    }
    return found;
  });
}

void RescuePanel::show_found() {
  look_->setText("Find what saves it");
  using casting::RescueStatus;
  const auto& rescue = found_.rescue;
  list_->clear();
  for (const auto& one : rescue.rescues) list_->addItem(qt(one.what));
  switch (rescue.status) {
  case RescueStatus::found:
    words_->setText(QString("The best seat is short by %1. Each of these saves it; the least first.")
                        .arg(sheets::figure_with_unit(rescue.short_by, document_.unit())));
    list_->setCurrentRow(0);
    break;
  case RescueStatus::not_needed:
    words_->setText("It cleans up as drawn: seat it best, and nothing need change.");
    break;
  default:
    words_->setText(qt(rescue.message.empty() ? std::string("stopped") : rescue.message));
  }
  QStringList castings;
  for (const auto& line : found_.castings) castings << line;
  castings_->setText(castings.isEmpty() ? QString("There is no other casting of this part with touches.")
                                        : castings.join("\n"));
  colour_label(castings_, castings.isEmpty() ? theme().muted : theme().ink);
}

void RescuePanel::take() {
  const int row = list_->currentRow();
  if (row < 0 || row >= static_cast<int>(found_.rescue.rescues.size())) return;
  const auto rescue = found_.rescue.rescues[static_cast<std::size_t>(row)];
  document_.apply(casting::take_rescue(document_.build(), state_.piece, state_.input, rescue,
                                       found_.rescue.short_by, build::utc_now()));
}

} // namespace datrin::app
