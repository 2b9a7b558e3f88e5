#include "app/joints/make_panel.h"

#include "allowance/to_come.h"
#include "app/marks/fields.h"
#include "app/marks/length_field.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/now.h"
#include "drawing/dimension_limits.h"
#include "fits/reading.h"
#include "fits/reading_text.h"
#include "readings/measure.h"
#include "sheets/figures.h"

#include <QKeyEvent>

#include <cmath>

namespace datrin::app {

using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

void fill_instruments(QComboBox* box, const build::Build& build) {
  const QSignalBlocker quiet(box);
  const auto old = box->currentText();
  box->clear();
  box->addItem("\u2013 (\u00B1 as typed)", 0);
  for (const auto& [id, i] : build.instruments())
    box->addItem(name_words(i.name), static_cast<qlonglong>(id));
  const int at = box->findText(old);
  box->setCurrentIndex(old.isEmpty() ? std::min(1, box->count() - 1) : std::max(0, at));
}

QString sum_lines(const Reckoning& sum, Unit unit) {
  QString html = "<table width='100%' cellspacing='0' cellpadding='1'>";
  for (const auto& line : sum.lines)
    html += QString("<tr><td>%1</td><td align='right'>%2</td></tr>")
                .arg(qt(line.label).toHtmlEscaped(), fit_figure(line.mm, unit));
  html += QString("<tr><td><b>%1</b></td><td align='right'><b>%2</b></td></tr></table>")
              .arg(qt(sum.title).toHtmlEscaped(), fit_figure(sum.total(), unit));
  return html;
}

void show_sum_lines(QLabel* label, const Reckoning& sum, Unit unit) {
  label->setTextFormat(Qt::RichText);
  label->setText(sum_lines(sum, unit));
  label->setVisible(!sum.lines.empty());
}

MakePanel::MakePanel(Document& document, TargetsState& targets, QWidget* parent)
    : QWidget(parent), document_(document), targets_(targets), name_(words_label()), figure_(new QLabel),
      other_(muted_label()), to_come_(words_label()), was_(words_label()), why_text_(words_label()),
      verdict_(muted_label()), moves_(words_label()), next_(words_label()), why_box_(new QWidget),
      moves_box_(new QWidget), hole_(text_field("Hole, read", "not made")),
      shaft_(text_field("Shaft, read", "not made")), instrument_(choice_box("Instrument")),
      pair_(choice_box("Which pieces")), widen_(new QPushButton("Widen the drawing")),
      follow_(new QPushButton("Follow the mate")), card_(new QPushButton("Print the card\u2026")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  column->addWidget(heading_label("Make next"));
  column->addWidget(name_);
  figure_->setFont(sheets::font(theme().px(theme().large() ? 26 : 40), true));
  figure_->setAccessibleName("Number to make");
  column->addWidget(figure_);
  column->addWidget(other_);
  column->addWidget(to_come_);
  column->addWidget(was_);
  colour_label(was_, theme().brass);
  auto* departures = new QHBoxLayout;
  departures->addWidget(widen_);
  departures->addWidget(follow_);
  departures->addStretch(1);
  column->addLayout(departures);
  widen_->setToolTip("The limit gives way so far that the mates have what they want");
  follow_->setToolTip("The nominal moves to where the mates want it; the tolerance stays");
  auto* why = new QVBoxLayout(why_box_);
  why->setContentsMargins(0, 4, 0, 0);
  why->setSpacing(4);
  why->addWidget(hairline());
  why->addWidget(heading_label("Why"));
  why_text_->setTextFormat(Qt::RichText);
  why->addWidget(why_text_);
  column->addWidget(why_box_);
  column->addWidget(hairline());
  column->addWidget(heading_label("Read"));
  column->addWidget(pair_row_ = labelled("Pieces", pair_, 72));
  column->addWidget(hole_row_ = labelled("Hole", hole_, 72));
  column->addWidget(shaft_row_ = labelled("Shaft", shaft_, 72));
  column->addWidget(labelled("With", instrument_, 72));
  column->addWidget(verdict_);
  for (auto* edit : {hole_, shaft_}) edit->setToolTip(fits::reading_examples);
  auto* moves = new QVBoxLayout(moves_box_);
  moves->setContentsMargins(0, 4, 0, 0);
  moves->setSpacing(4);
  moves->addWidget(hairline());
  moves->addWidget(heading_label("The last reading moved"));
  moves_->setTextFormat(Qt::RichText);
  moves->addWidget(moves_);
  column->addWidget(moves_box_);
  column->addWidget(hairline());
  column->addWidget(heading_label("Next four"));
  next_->setTextFormat(Qt::RichText);
  column->addWidget(next_);
  column->addWidget(card_);
  column->addStretch(1);
  connect(hole_, &QLineEdit::editingFinished, this,
          [this] { keep_reading(hole_, state_.hole, state_.shaft); });
  connect(shaft_, &QLineEdit::editingFinished, this,
          [this] { keep_reading(shaft_, state_.shaft, state_.hole); });
  connect(widen_, &QPushButton::clicked, this, [this] { depart(false); });
  connect(follow_, &QPushButton::clicked, this, [this] { depart(true); });
  connect(card_, &QPushButton::clicked, this, &MakePanel::card_wanted);
  connect(pair_, &QComboBox::activated, this, [this] { emit pair_chosen(pair_->currentData().toInt()); });
}

chains::Made MakePanel::next() const {
  if (!state_.usable()) return {};
  const auto& targets = targets_.now();
  const bool hole = !targets.size(state_.hole);
  const bool shaft = state_.joint.shaft != 0 && !targets.size(state_.shaft);
  return hole ? state_.hole : shaft ? state_.shaft : chains::Made{};
}

void MakePanel::show_state(const JointState& state) {
  state_ = state;
  fill_instruments(instrument_, document_.build());
  shaft_row_->setVisible(state_.joint.shaft != 0);
  show_pairs();
  show_figure();
  show_readings();
}

void MakePanel::show_figure() {
  const auto unit = document_.unit();
  const auto& targets = targets_.now();
  const auto made = next();
  const auto* target = made.dimension != 0 ? targets.target(made) : nullptr;
  const auto* fights = conflict_of(made);
  why_ = {};
  widen_->hide();
  follow_->hide();
  to_come_->clear();
  if (target == nullptr) {
    const bool closed = state_.usable();
    name_->setText(!closed ? "State what the joint is for and what mates." : "Both are made.");
    QString room;
    if (closed && targets.result.usable()) {
      const auto& c = targets.result.conditions[static_cast<std::size_t>(state_.condition)];
      room = fine_figure(c.expected - state_.major, unit, c.expected < state_.major);
      why_ = clearance_sum(document_.build(), targets, state_, 20);
      auto words = c.room >= 0 ? QString("The joint closes as it was meant.")
                               : QString("It does not close as it was meant.");
      if (fights != nullptr) words += "\n" + conflict_text(*fights);
      was_->setText(words);
      colour_label(was_, c.room >= 0 ? theme().good : theme().gone);
    }
    figure_->setText(room);
    other_->setText(closed ? QString("%1 of clearance, wanted %2 to %3")
                                 .arg(sheets::fine_unit(unit), fine_figure(state_.joint.least, unit),
                                      fine_figure(state_.joint.most, unit))
                           : QString());
    was_->setVisible(closed);
  } else {
    const auto& id = targets.input.dimensions[static_cast<std::size_t>(target->dimension)].id;
    name_->setText(qt(id));
    figure_->setText(fit_figure(target->make, unit));
    const bool held = target->hold > 0;
    other_->setText(QString("%1 \u00B7 %2")
                        .arg(qt(unit_name(unit)) + " \u00B7 " +
                                 fit_figure(target->make, sheets::other(unit)) + "\u202F" +
                                 qt(unit_name(sheets::other(unit))),
                             held ? QString("hold \u00B1%1").arg(sheets::fit_with_unit(target->hold, unit))
                                  : QString("cannot be held")));
    const auto& now = targets.sizes[static_cast<std::size_t>(target->dimension)];
    const auto to_come = allowance::to_come(document_.build(), made, now, target->make, true);
    if (to_come.any)
      to_come_->setText((now.bound == build::Bound::exact
                             ? QString("Read %1. ").arg(sheets::fit_with_unit(now.value, unit))
                             : QString()) +
                        qt(to_come.words));
    QStringList words;
    if (const auto* moved = targets_.last().of(made))
      words << QString("was %1 before %2 was read")
                   .arg(sheets::fit_with_unit(moved->was, unit),
                        qt(chains::made_name(document_.build(), targets_.last().made)));
    if (target->departs != 0) {
      words << QString("%1 %2 %3 its drawing limit: the joint stands above it")
                   .arg(fine_figure(std::abs(target->departs), unit), sheets::fine_unit(unit),
                        target->departs > 0 ? "over" : "under");
      widen_->show();
      follow_->show();
    }
    if (fights != nullptr) words << conflict_text(*fights);
    was_->setText(words.join("\n"));
    was_->setVisible(!words.isEmpty());
    colour_label(was_, held ? theme().brass : theme().gone);
    why_ = chains::target_sum(targets.input, targets.result, target->dimension);
    why_.title = "make";
  }
  to_come_->setVisible(!to_come_->text().isEmpty());
  figure_->setVisible(!figure_->text().isEmpty());
  figure_->setAccessibleName("Number to make: " + figure_->text() + " " + qt(unit_name(unit)));
  why_box_->setVisible(!why_.lines.empty());
  auto why = sum_lines(why_, unit);
  if (fights != nullptr) why += "<br>" + sum_lines(chains::conflict_sum(targets.input, *fights), unit);
  why_text_->setText(why);
  QString moved = "<table width='100%' cellspacing='0' cellpadding='1'>";
  int rows = 0;
  for (const auto& m : targets_.last().moved) {
    if (rows++ == 4) break;
    moved +=
        QString("<tr><td>%1</td><td align='right'%4>%2 \u2192 %3</td></tr>")
            .arg(qt(chains::made_name(document_.build(), m.made)).toHtmlEscaped(), fit_figure(m.was, unit),
                 fit_figure(m.now, unit), theme().large() ? "" : " style='white-space:nowrap'");
  }
  moves_->setText(moved + "</table>");
  moves_box_->setVisible(rows > 0);
  QString four = "<table width='100%' cellspacing='0' cellpadding='1'>";
  int shown = 0;
  for (const auto& n : targets_.order()) {
    if (!n.mate_made || n.made == made) continue; // numbers that follow something real
    if (shown++ == 4) break;
    four +=
        QString("<tr><td>%1</td><td align='right'><b>%2</b></td></tr>")
            .arg(qt(chains::made_name(document_.build(), n.made)).toHtmlEscaped(), fit_figure(n.make, unit));
  }
  next_->setText(four + "</table>");
  card_->setEnabled(shown > 0 || target != nullptr);
}

/// Which pieces the readings are of; only where there is a choice.
void MakePanel::show_pairs() {
  const auto& b = document_.build();
  const QSignalBlocker quiet(pair_);
  pair_->clear();
  const auto& targets = targets_.now();
  // "hole no. 1", where there are several to choose from.
  const auto numbered = [&b](const QString& side, build::Id id) {
    const auto* piece = b.find<build::Piece>(id);
    return piece && b.pieces_of(piece->part).size() > 1 ? filled("%1 no. %2", side, piece->number) : side;
  };
  for (const int c : targets.conditions_of(state_.id)) {
    const auto& source = targets.sources[static_cast<std::size_t>(c)];
    QStringList pieces{numbered("hole", source.hole_piece)};
    if (source.shaft_piece != 0) pieces << numbered("shaft", source.shaft_piece);
    pair_->addItem(pieces.join(", "), c);
    if (c == state_.condition) pair_->setCurrentIndex(pair_->count() - 1);
  }
  pair_row_->setVisible(pair_->count() > 1);
  hole_row_->findChild<QLabel*>()->setText(numbered("Hole", state_.hole.piece));
  shaft_row_->findChild<QLabel*>()->setText(numbered("Shaft", state_.shaft.piece));
  for (const auto& [edit, made] : {std::pair{hole_, state_.hole}, {shaft_, state_.shaft}})
    edit->setAccessibleDescription("Of " + name_words(build::made_name(b, made)));
}

void MakePanel::show_readings() {
  const auto& b = document_.build();
  const auto unit = document_.unit();
  QStringList verdicts;
  for (const auto& [edit, made] : {std::pair{hole_, state_.hole}, {shaft_, state_.shaft}}) {
    const auto now = readings::size_now(b, made);
    edit->setEnabled(made.piece != 0 && b.find<build::Dimension>(made.dimension) != nullptr);
    edit->setText(!now.read()                                         ? QString()
                  : now.measurement && !now.measurement->read.empty() ? qt(now.measurement->read)
                                                                      : fit_figure(now.value, unit));
    edit->setModified(false);
    edit->setProperty("wrong", false);
    edit->style()->polish(edit);
    const auto* d = b.find<build::Dimension>(made.dimension);
    if (!now.read() || d == nullptr) continue;
    auto words = filled("%1 %2%3 %4", edit == hole_ ? "Hole" : "Shaft",
                        now.bound == build::Bound::below   ? "below "
                        : now.bound == build::Bound::above ? "above "
                                                           : "",
                        fit_figure(now.value, unit), qt(unit_name(unit)));
    if (now.uncertainty > 0) words += filled(" \u00B1%1", qt(fine_text(now.uncertainty, unit)));
    if (now.off_centre > 0) words += filled(", off centre by %1", fit_figure(now.off_centre, unit));
    if (now.standing == readings::Standing::metal_on)
      words += ": metal still on";
    else if (d->has_limits() && now.bound == build::Bound::exact)
      words += filled("; by the drawing %1",
                      qt(fits::accept(now.value, now.uncertainty, d->least(), d->most(), unit).words));
    if (now.by_cut)
      words += " (the cut logged last)";
    else if (!now.measurement->instrument.empty())
      words += " (" + name_words(now.measurement->instrument) + ")";
    verdicts << words;
  }
  verdict_->setText(verdicts.join(".\n"));
  colour_label(verdict_, theme().muted);
}

void MakePanel::keep_reading(QLineEdit* edit, const chains::Made& made, const chains::Made& mate) {
  if (!edit->isModified() || made.piece == 0) return;
  const auto& b = document_.build();
  const auto text = edit->text().trimmed();
  edit->setModified(false);
  if (text.isEmpty()) {
    document_.apply(readings::take_back_reading(b, made));
    return;
  }
  readings::MeasureInput in;
  in.made = made;
  in.mate = mate;
  const auto typed = text.toStdString();
  in.text = typed;
  in.instrument = instrument_->currentData().toLongLong();
  in.at = build::utc_now();
  const auto read = readings::measure(b, in, entry_options(document_.unit()));
  if (!read.ok) {
    edit->setProperty("wrong", true);
    edit->style()->polish(edit);
    edit->setModified(true);
    verdict_->setText(sheets::sentence(read.message));
    colour_label(verdict_, theme().gone);
    return;
  }
  document_.apply(readings::keep_measurement(b, read.measurement));
}

/// Of those that the joint, or else the dimension that is next, stands in.
const chains::Conflict* MakePanel::conflict_of(const chains::Made& made) {
  const auto& all = targets_.conflicts();
  const int dimension = targets_.now().index_of(made);
  for (const auto& conflict : all)
    if (conflict.concerns_condition(state_.condition)) return &conflict;
  for (const auto& conflict : all)
    if (conflict.concerns_dimension(dimension)) return &conflict;
  return nullptr;
}

QString MakePanel::conflict_text(const chains::Conflict& conflict) {
  return "To end it, at the least: " +
         qt(chains::conflict_words(targets_.now().input, conflict, document_.unit())) + ".";
}

/// The drawing gives way for the joint: its limit, or with `follow` its nominal; and says so.
void MakePanel::depart(bool follow) {
  const auto made = next();
  const auto& targets = targets_.now();
  const auto* target = made.dimension != 0 ? targets.target(made) : nullptr;
  if (target == nullptr) return;
  const auto& b = document_.build();
  const auto at = build::utc_now();
  if (!follow) {
    document_.apply(
        drawing::widen(b, made.dimension, chains::widening(targets, *target), state_.joint.name, at));
    return;
  }
  const auto wanted = chains::wanted_by_mates(targets, target->dimension);
  document_.apply(
      drawing::follow_mate(b, made.dimension, wanted ? wanted->make : target->make, state_.joint.name, at));
}

void MakePanel::keyPressEvent(QKeyEvent* event) {
  const auto* field = event->key() != Qt::Key_F1 ? nullptr
                      : hole_->hasFocus()        ? hole_
                      : shaft_->hasFocus()       ? shaft_
                                                 : nullptr;
  const auto read = field == nullptr ? Reckoning{}
                                     : readings::reading_sum(document_.build(),
                                                             field == hole_ ? state_.hole : state_.shaft);
  if (!read.lines.empty()) // a reading's own sum, where one stands on it
    show_why(field == hole_ ? hole_ : shaft_, read, document_.unit());
  else if (event->key() == Qt::Key_F1 && !why_.lines.empty())
    show_why(figure_, why_, document_.unit());
  else
    QWidget::keyPressEvent(event);
}

} // namespace datrin::app
