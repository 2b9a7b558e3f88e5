#include "app/joints/try_panel.h"

#include "app/joints/make_panel.h"
#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/message_line.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/now.h"
#include "readings/trials.h"
#include "sheets/figures.h"
#include "sheets/local_time.h"

#include <QHeaderView>
#include <QKeyEvent>

namespace datrin::app {

using build::Felt;
using sheets::fit_figure;
using sheets::qt;

TryPanel::TryPanel(Document& document, TargetsState& targets, QWidget* parent)
    : QWidget(parent), document_(document), targets_(targets), name_(words_label()), words_(words_label()),
      why_text_(words_label()), caution_(muted_label()),
      felt_(choice_box("How it went", shown_words<Felt>())),
      off_(choice_box("What metal comes off", {"the hole", "the shaft"})),
      depth_(new LengthEdit("How deep it went in", "deep", must_be_positive)),
      note_(text_field("Note", "what was seen")), keep_(new QPushButton("Keep the trial")),
      take_back_(new QPushButton("Take back")), line_(new MessageLine),
      table_(plain_table("Trials", {"Went", "Hole", "Shaft"}, 1)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  column->addWidget(heading_label("Try them together"));
  column->addWidget(name_);
  column->addWidget(labelled("Went", felt_, 72));
  column->addWidget(depth_row_ = labelled("Deep", depth_, 72));
  column->addWidget(labelled("Note", note_, 72));
  column->addWidget(keep_);
  column->addWidget(line_);
  column->addWidget(hairline());
  column->addWidget(heading_label("What to relieve"));
  column->addWidget(labelled("Off", off_, 72));
  column->addWidget(words_);
  column->addWidget(why_text_);
  caution_->setText(
      "Emery held in the fingers against turning work pulls the hand in: back it with a file or a "
      "stick, sleeves away, slides covered. The machine's manual stands above this.");
  column->addWidget(caution_);
  column->addWidget(hairline());
  column->addWidget(heading_label("Tried so far"));
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  table_->setFixedHeight(theme().ipx(24 * 4 + 10));
  column->addWidget(table_);
  column->addWidget(take_back_);
  column->addStretch(1);
  take_back_->setToolTip("The trial chosen, or the last, is taken out of the log of trials");
  connect(felt_, &QComboBox::activated, this,
          [this] { depth_row_->setVisible(felt_->currentIndex() == static_cast<int>(Felt::jams)); });
  line_->hide();
  felt_->setCurrentIndex(static_cast<int>(Felt::jams));
  connect(off_, &QComboBox::activated, this, [this] {
    show_words();
    emit changed();
  });
  connect(keep_, &QPushButton::clicked, this, &TryPanel::keep);
  connect(depth_, &QLineEdit::returnPressed, this, &TryPanel::keep);
  connect(note_, &QLineEdit::returnPressed, this, &TryPanel::keep);
  connect(take_back_, &QPushButton::clicked, this, &TryPanel::take_back);
}

void TryPanel::show_state(const JointState& state) {
  const bool another =
      state.id != state_.id || !(state.hole == state_.hole) || !(state.shaft == state_.shaft);
  state_ = state;
  const bool two = state.usable() && state.joint.shaft != 0;
  setEnabled(two);
  name_->setText(two ? QString("%1 in %2").arg(state.shaft_name, state.hole_name)
                     : QString("A trial is of two parts that mate."));
  if (another) {
    // What is still to be made gives way; where both are made, what was read last.
    const auto& targets = targets_.now();
    const auto* hole = targets.size(state.hole);
    const auto* shaft = targets.size(state.shaft);
    off_->setCurrentIndex(hole == nullptr || (shaft != nullptr && hole->at >= shaft->at) ? 0 : 1);
    line_->hide();
    depth_->clear();
    note_->clear();
  }
  show_trials();
  show_words();
}

void TryPanel::keep() {
  build::Trial trial;
  trial.joint = state_.id;
  trial.hole_piece = state_.hole.piece;
  trial.shaft_piece = state_.shaft.piece;
  trial.felt = static_cast<Felt>(felt_->currentIndex());
  trial.note = note_->text().trimmed().toStdString();
  if (trial.felt == Felt::jams) {
    line_->show(); // should there be something to say
    const auto depth = depth_->take(document_.unit(), *line_);
    if (!depth) return;
    trial.depth = *depth;
    if (const auto judged = fits::judge_trial(readings::trial_input(document_.build(), trial, {}));
        !judged.usable()) {
      depth_->mark(true);
      return line_->refuse(sheets::sentence(judged.message));
    }
  }
  if (!document_.apply(readings::keep_trial(document_.build(),
                                            readings::try_now(document_.build(), trial, build::utc_now()))))
    return;
  line_->hide();
  note_->clear();
  depth_->clear();
}

void TryPanel::take_back() {
  if (trials_.empty()) return;
  const int row = table_->currentRow();
  const auto k = row >= 0 && row < static_cast<int>(trials_.size()) ? static_cast<std::size_t>(row) : 0;
  document_.apply(readings::take_back_trial(document_.build(), trials_[k]));
}

void TryPanel::show_trials() {
  const auto& b = document_.build();
  const auto unit = document_.unit();
  trials_.clear();
  for (const auto& [id, trial] : b.trials_of(state_.id))
    if (trial.hole_piece == state_.hole.piece && trial.shaft_piece == state_.shaft.piece)
      trials_.insert(trials_.begin(), id); // the newest first
  table_->setRowCount(static_cast<int>(trials_.size()));
  for (std::size_t k = 0; k < trials_.size(); ++k) {
    const auto& trial = *b.find<build::Trial>(trials_[k]);
    const auto size = [unit](double mm) { return mm > 0 ? fit_figure(mm, unit) : QString("\u2013"); };
    fill_row(table_, static_cast<int>(k),
             {qt(readings::trial_text(b, trial)), size(trial.hole), size(trial.shaft)});
    auto tip = sheets::local_time(trial.at);
    if (!trial.note.empty()) tip += "\n" + name_words(trial.note);
    for (int c = 0; c < 3; ++c) table_->item(static_cast<int>(k), c)->setToolTip(tip);
  }
  take_back_->setEnabled(!trials_.empty());
}

TrialPicture TryPanel::picture() const {
  TrialPicture out;
  const auto& b = document_.build();
  const auto* trial = trials_.empty() ? nullptr : b.find<build::Trial>(trials_.front());
  if (trial == nullptr) return out;
  readings::TrialView view;
  view.cut_hole = cuts_hole();
  // What the joint is made to: the number to make next where one side is open, else the middle of its limits.
  view.wanted = (state_.joint.least + state_.joint.most) / 2;
  const auto& targets = targets_.now();
  if (const auto* target = targets.target(view.cut_hole ? state_.hole : state_.shaft))
    if (const auto* mate = targets.size(view.cut_hole ? state_.shaft : state_.hole))
      view.wanted = view.cut_hole ? target->make - mate->value : mate->value - target->make;
  out.known = true;
  out.input = readings::trial_input(b, *trial, view);
  out.result = fits::judge_trial(out.input);
  return out;
}

void TryPanel::show_words() {
  const auto shown = picture();
  why_ = shown.result.sum;
  caution_->setVisible(shown.result.status == fits::TrialStatus::relieve);
  if (!shown.known) {
    words_->setText(
        "Say how far it went in and how it felt: what is too tight, where, and how much comes off is "
        "told from what was read along both.");
    colour_label(words_, theme().muted);
    why_text_->hide();
    return;
  }
  auto words =
      qt(shown.result.usable() ? shown.result.words : sheets::sentence(shown.result.message).toStdString());
  if (const auto since =
          readings::read_since(document_.build(), *document_.build().find<build::Trial>(trials_.front()));
      !since.empty())
    words += "\n" + qt(since) + " Try it again.";
  words_->setText(words);
  colour_label(words_, shown.result.status == fits::TrialStatus::finished    ? theme().good
                       : shown.result.status == fits::TrialStatus::too_loose ? theme().gone
                                                                             : theme().ink);
  show_sum_lines(why_text_, why_, document_.unit());
}

void TryPanel::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_F1 && !why_.lines.empty()) {
    show_why(this, why_, document_.unit());
    return;
  }
  QWidget::keyPressEvent(event);
}

} // namespace datrin::app
