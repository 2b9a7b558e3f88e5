#include "app/bench/crank_dialog.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/made.h"
#include "build/now.h"
#include "quantity/length_text.h"
#include "sheets/figures.h"
#include "sheets/fonts.h"

#include <QHeaderView>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using build::CrankMove;
using sheets::qt;

namespace {

constexpr auto round_hint = "0.05 0 \u22120.05 0, or 0:0.05 90:0 \u2026";

} // namespace

CrankDialog::CrankDialog(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), left_(text_field("Beside the left web", round_hint)),
      right_(text_field("Beside the right web", round_hint)),
      on_(choice_box("Read on", {"the outside", "a bore"})),
      move_(choice_box("What was done", plain_words<CrankMove>())),
      shaft_(new LengthEdit("Shaft, web to end", {}, must_be_positive)),
      rim_(new LengthEdit("From the pin to the wedge", "where the webs are opened", must_not_be_negative)),
      limit_(new LengthEdit("Stop at a runout of", {}, must_be_positive)),
      wanted_(new LengthEdit("It should have moved it by")), figure_(new QLabel), advice_(words_label()),
      message_(new MessageLine), picture_(new CrankPicture),
      history_(plain_table("Readings and blows", {"Left", "Right", "Then", "Should", "Did", "Of it"}, 3)),
      read_(new QPushButton("Keep the readings")), struck_(new QPushButton("It was done")),
      back_(new QPushButton("Take back the last")), why_(new QPushButton("Why, F1")) {
  setWindowTitle("Truing a pressed crank");
  resize(std::min(theme().ipx(960), 1240), std::min(theme().ipx(640), 760)); // never more than a screen
  rim_->set_when_empty(0);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(20, 12, 20, 12);
  all->setSpacing(6);
  all->addWidget(heading_label(
      filled("%1: read, strike, read again", qt(build::piece_name(document.build(), document.piece())))));
  auto* upper = new QHBoxLayout;
  upper->setSpacing(20);
  auto* seen = new QVBoxLayout;
  seen->addWidget(picture_, 1);
  upper->addLayout(seen, 5);
  auto* form = new QVBoxLayout;
  form->setSpacing(4);
  const int wide = 128;
  form->addWidget(labelled("Left, round", left_, wide));
  form->addWidget(labelled("Right, round", right_, wide));
  form->addWidget(labelled("Read on", on_, wide));
  form->addWidget(read_);
  form->addSpacing(6);
  figure_->setFont(sheets::font(std::min(theme().px(26), 36.0), true));
  figure_->setAccessibleName("What to do");
  auto* ask = new QHBoxLayout;
  ask->addWidget(figure_, 1);
  why_->setAutoDefault(false);
  why_->setShortcut(Qt::Key_F1);
  ask->addWidget(why_);
  form->addLayout(ask);
  form->addWidget(advice_);
  form->addStretch(1);
  upper->addLayout(form, 5);
  auto* crank = new QHBoxLayout;
  crank->setSpacing(12);
  crank->addWidget(labelled("Shaft, web to end", shaft_, wide));
  crank->addWidget(labelled("Pin to wedge", rim_, 96));
  crank->addWidget(labelled("Stop at", limit_, 56));
  all->addLayout(crank);
  all->addLayout(upper, 3);
  auto* blow = new QHBoxLayout;
  blow->addWidget(labelled("Done", move_, 56), 3);
  blow->addWidget(labelled("Should move it by", wanted_, wide), 3);
  blow->addWidget(struck_);
  blow->addWidget(back_);
  all->addLayout(blow);
  history_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  history_->setMinimumHeight(theme().ipx(44));
  all->addWidget(history_, 2);
  all->addWidget(message_);
  for (auto* button : {read_, struck_, back_}) button->setAutoDefault(false); // Enter is the field's own
  connect(read_, &QPushButton::clicked, this, [this] { read(); });
  for (QLineEdit* edit : {left_, right_}) connect(edit, &QLineEdit::returnPressed, this, [this] { read(); });
  connect(struck_, &QPushButton::clicked, this, [this] { struck(); });
  connect(why_, &QPushButton::clicked, this,
          [this] { show_why(figure_, truing::advice_sum(log_, document_.unit()), document_.unit()); });
  connect(back_, &QPushButton::clicked, this, [this] { take_back(); });
  log_ = truing::crank_log(document_.build(), document_.piece());
  limit_->setText(text(log_.input.limit));
  if (log_.any()) {
    shaft_->setText(text(log_.input.shaft));
    if (log_.input.rim > 0) rim_->setText(text(log_.input.rim));
  }
  refresh();
  left_->setFocus();
}

QString CrankDialog::text(double mm) const {
  return qt(length_text(mm, document_.unit(), {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true}));
}

void CrankDialog::read() {
  const auto unit = document_.unit();
  truing::CrankTyped typed;
  if (left_->text().trimmed().isEmpty() || right_->text().trimmed().isEmpty())
    return message_->refuse(
        "Type what was read round both shafts, from the crank pin on: four readings will do.");
  typed.left = left_->text().toStdString();
  typed.right = right_->text().toStdString();
  typed.bore = on_->currentIndex() == 1;
  const auto shaft = shaft_->take(unit, *message_);
  const auto rim = shaft ? rim_->take(unit, *message_) : std::nullopt;
  const auto limit = rim ? limit_->take(unit, *message_) : std::nullopt;
  if (!limit) return;
  typed.shaft = *shaft;
  typed.rim = *rim;
  typed.limit = *limit;
  const auto kept = truing::read_crank(document_.build(), document_.piece(), typed, unit, build::utc_now());
  if (!kept.ok()) return message_->refuse(sheets::sentence(kept.wrong));
  if (!document_.apply(kept.edit)) return;
  left_->clear();
  right_->clear();
  message_->tell({});
  refresh();
}

void CrankDialog::struck() {
  const auto move = static_cast<CrankMove>(std::max(0, move_->currentIndex()));
  if (move == CrankMove::none) return message_->refuse("Say what was done; or read it again.");
  double wanted = log_.advice.amount;
  if (!wanted_->text().trimmed().isEmpty()) {
    const auto typed = wanted_->take(document_.unit(), *message_);
    if (!typed) return;
    wanted = *typed;
  }
  const auto kept = truing::strike_crank(document_.build(), document_.piece(), move, wanted, {});
  if (!kept.ok()) return message_->refuse(sheets::sentence(kept.wrong));
  if (document_.apply(kept.edit)) message_->tell("Kept. Read it again: what it did is told by that.");
  refresh();
  left_->setFocus();
}

void CrankDialog::take_back() {
  const auto edit = truing::take_back_reading(document_.build(), document_.piece());
  if (edit.empty()) return message_->refuse("Nothing was read yet.");
  document_.apply(edit);
  message_->tell({});
  refresh();
}

void CrankDialog::refresh() {
  log_ = truing::crank_log(document_.build(), document_.piece());
  picture_->show_log(log_);
  const bool waits = log_.any() && log_.rows.back().move != CrankMove::none; // struck, not read since
  const auto& advice = log_.advice;
  if (!log_.any()) {
    figure_->setText("Read it first");
    advice_->setText(
        "Between centres or on V-blocks, an indicator beside each web; 0\u00B0 where the pin is under it, "
        "plus for the plunger pushed in.");
  } else if (waits) {
    figure_->setText("Read it again");
    advice_->setText(filled("It was %1, to move it by %2.", qt(truing::move_text(log_.rows.back().move)),
                            text(std::abs(log_.rows.back().wanted))));
  } else {
    const bool rim = advice.at_rim > 0;
    const double there = rim ? advice.at_rim : std::abs(advice.amount), ask = log_.asked();
    figure_->setText(advice.move == CrankMove::none         ? QString("\u2713 true enough")
                     : advice.move == CrankMove::press_anew ? QString("press it anew")
                                                            : text(ask) + (rim ? " at the wedge" : ""));
    auto words = qt(advice.text);
    if (advice.move != CrankMove::none && advice.move != CrankMove::press_anew) {
      words += filled(" It should leave a runout of %1.", text(advice.expected.whole()));
      if (std::abs(advice.strength - 1) > 0.02)
        words += filled(" It takes %1; this crank did %2 % of what was asked.", text(there),
                        std::lround(100 / advice.strength));
    }
    if (log_.rows.back().form > log_.input.limit / 2)
      words += filled(" The journals themselves are %1 from round: no blow mends that.",
                      text(log_.rows.back().form));
    advice_->setText(words);
  }
  const bool to_strike = log_.any() && !waits;
  for (QWidget* w : std::initializer_list<QWidget*>{move_, wanted_, struck_}) w->setEnabled(to_strike);
  move_->setCurrentIndex(to_strike ? static_cast<int>(advice.move) : 0);
  wanted_->setText(to_strike && advice.amount != 0 ? text(advice.amount) : QString());
  back_->setEnabled(log_.any());
  why_->setVisible(to_strike && !truing::advice_sum(log_, document_.unit()).lines.empty());
  history_->setRowCount(static_cast<int>(log_.rows.size()));
  for (std::size_t k = 0; k < log_.rows.size(); ++k) {
    const auto& row = log_.rows[k];
    const bool blow = row.move != CrankMove::none;
    fill_row(history_, static_cast<int>(k),
             {text(row.left), text(row.right), qt(truing::move_text(row.move)),
              blow ? text(row.wanted) : QString(), row.answered ? text(row.did) : QString(),
              row.answered && std::abs(row.wanted) > 1e-9
                  ? filled("%1 %", std::lround(100 * row.did / row.wanted))
                  : QString()});
  }
  history_->scrollToBottom();
}

} // namespace datrin::app
