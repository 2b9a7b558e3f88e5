#include "app/drawing/dimension_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "build/now.h"
#include "drawing/dimension_limits.h"
#include "drawing/restate.h"
#include "fits/reading_text.h"
#include "readings/measure.h"
#include "readings/size_now.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QScopedValueRollback>
#include <QShortcut>
#include <QVBoxLayout>

#include <cmath>

namespace datrin::app {

using build::Dimension;
using build::DimensionKind;
using sheets::figure;
using sheets::qt;

namespace {

const QStringList ways{"over a pin", "inside a pin", "hole to edge (web)"};

} // namespace

DimensionPanel::DimensionPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table("Dimensions of the part", {"Name", "What", "Limits", "Class", "Source", "Measured"},
                         6)),
      name_(text_field("Name of the dimension")),
      limits_(text_field("Dimension with limits", "12 H7, 12 \u00B10.05, 12 m")),
      reason_(text_field("Reason", "why it is so")), sum_(text_field("Adds up from", "barrel + 2 x flange")),
      cutter_(new LengthEdit("Corner of the cutter", {}, must_not_be_negative)),
      run_(new LengthEdit("Angle over a length of", {}, must_not_be_negative)),
      rise_(new LengthEdit("Climbs, by the drawing", {}, must_not_be_negative)),
      measured_(text_field("Measured on this piece", "not measured")),
      pin_(new LengthEdit("Pin", "pin", must_be_positive)),
      hole_(new LengthEdit("Hole the pin stands in", "hole", must_be_positive)),
      instrument_(new LengthEdit("Instrument, \u00B1", "\u00B1", must_not_be_negative)),
      kind_(choice_box("What the dimension measures", shown_words<DimensionKind>())),
      from_(choice_box("Surface")), to_(choice_box("Other surface")),
      class_(choice_box("Class", shown_words<build::DimensionClass>())),
      source_(choice_box("Source", shown_words<build::DimensionSource>())),
      how_(choice_box("How it is read", ways)), form_(new QWidget), restate_box_(new QWidget),
      add_(new QPushButton("Add")), remove_(new QPushButton("Remove")), message_(new MessageLine),
      legs_(muted_label()), history_(muted_label()), verdict_(words_label()), wrong_(new QListWidget) {
  const int widths[] = {172, 196, 130, 70, 92, 96};
  for (int c = 0; c < 6; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  make_head();
  make_form();
  make_contradictions();
  make_restated();
  connect_table();
  connect_texts();
  connect_choices();
  connect_restated();
}

void DimensionPanel::make_head() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  auto* head = new QHBoxLayout;
  if (theme().large())
    column->addWidget(heading_label("Dimension"));
  else
    head->addWidget(heading_label("Dimension"));
  head->addStretch(1);
  add_->setToolTip("Ctrl+Shift+A");
  add_->setShortcut(QKeySequence("Ctrl+Shift+A"));
  head->addWidget(add_);
  head->addWidget(remove_);
  column->addLayout(head);
}

void DimensionPanel::make_form() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  auto* rows = new QVBoxLayout(form_);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(4);
  rows->addWidget(labelled("Name", name_));
  rows->addWidget(labelled("What", kind_));
  between_row_ = new QWidget;
  auto* between = new QHBoxLayout(between_row_);
  between->setContentsMargins(0, 0, 0, 0);
  between->setSpacing(4);
  between->addWidget(from_, 1);
  between->addWidget(to_, 1);
  rows->addWidget(between_row_);
  rows->addWidget(labelled("Limits", limits_));
  rows->addWidget(message_);
  rows->addWidget(labelled("Class", class_));
  rows->addWidget(labelled("Source", source_));
  rows->addWidget(labelled("Reason", reason_));
  rows->addWidget(labelled("Adds up", sum_));
  rows->addWidget(cutter_row_ = labelled("Cutter", cutter_));
  rows->addWidget(run_row_ = labelled("Over", run_));
  rows->addWidget(rise_row_ = labelled("Climbs", rise_));
  rows->addWidget(legs_);
  measured_row_ = labelled("Measured", measured_);
  rows->addWidget(measured_row_);
  rows->addWidget(history_);
  column->addWidget(form_);
}

void DimensionPanel::make_contradictions() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  column->addWidget(hairline());
  column->addWidget(heading_label("Contradictions"));
  wrong_->setAccessibleName("Contradictions in the drawing");
  wrong_->setWordWrap(true);
  wrong_->setMinimumHeight(theme().ipx(64));
  column->addWidget(wrong_, 1);
}

void DimensionPanel::make_restated() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  auto* restate = new QVBoxLayout(restate_box_);
  restate->setContentsMargins(0, 0, 0, 0);
  restate->setSpacing(4);
  restate->addWidget(hairline());
  restate->addWidget(heading_label("Read it another way"));
  if (theme().large()) restate->addWidget(how_);
  auto* by = new QHBoxLayout;
  by->setSpacing(4);
  if (!theme().large()) by->addWidget(how_, 3);
  by->addWidget(pin_, 2);
  by->addWidget(hole_, 2);
  by->addWidget(instrument_, 2);
  restate->addLayout(by);
  reading_box_ = new QVBoxLayout;
  restate->addLayout(reading_box_);
  restate->addWidget(verdict_);
  column->addWidget(restate_box_);
}

void DimensionPanel::connect_table() {
  connect(add_, &QPushButton::clicked, this, &DimensionPanel::add_dimension);
  connect(remove_, &QPushButton::clicked, this, &DimensionPanel::remove_dimension);
  auto* drop = new QShortcut(QKeySequence::Delete, table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(drop, &QShortcut::activated, this, &DimensionPanel::remove_dimension);
  for (QWidget* on : std::initializer_list<QWidget*>{table_, measured_}) {
    auto* why = new QShortcut(QKeySequence("F1"), on, nullptr, nullptr, Qt::WidgetShortcut);
    connect(why, &QShortcut::activated, this, [this, on] {
      const auto sum = readings::reading_sum(document_.build(), {chosen_, document_.piece()});
      if (!sum.lines.empty()) show_why(on, sum, document_.unit());
    });
  }
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
    if (filling_) return;
    const auto all = document_.build().dimensions_of(document_.part());
    chosen_ = row >= 0 && row < static_cast<int>(all.size()) ? all[static_cast<std::size_t>(row)].first : 0;
    show_form();
  });
  connect(table_, &QTableWidget::cellActivated, this, [this] { limits_->setFocus(); });
  connect(wrong_, &QListWidget::itemActivated, this, [this] {
    const int row = wrong_->currentRow();
    if (row < 0 || row >= static_cast<int>(shown_.size())) return;
    const auto& c = shown_[static_cast<std::size_t>(row)];
    if (!c.dimensions.empty()) {
      chosen_ = c.dimensions.front();
      refresh();
      limits_->setFocus();
    } else if (!c.surfaces.empty()) {
      emit surface_chosen(c.surfaces.front());
    }
  });
}

void DimensionPanel::connect_texts() {
  const auto text = [this](QLineEdit* edit, std::string Dimension::*field, const char* what) {
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, field, what] {
      const auto* now = current();
      if (now == nullptr || !edit->isModified()) return;
      auto changed = *now;
      changed.*field = edit->text().trimmed().toStdString();
      if (field == &Dimension::name && changed.name.empty()) return show_form();
      keep(changed, what);
    });
  };
  text(name_, &Dimension::name, "Name");
  text(reason_, &Dimension::reason, "Reason");
  text(sum_, &Dimension::sum, "Sum");
  connect(limits_, &QLineEdit::editingFinished, this, &DimensionPanel::keep_limits);
  connect(measured_, &QLineEdit::editingFinished, this, &DimensionPanel::keep_measured);
  connect(cutter_, &QLineEdit::editingFinished, this,
          [this] { keep_length(cutter_, &Dimension::cutter, "Cutter"); });
  connect(run_, &QLineEdit::editingFinished, this,
          [this] { keep_length(run_, &Dimension::run, "Length of the angle"); });
  connect(rise_, &QLineEdit::editingFinished, this,
          [this] { keep_length(rise_, &Dimension::rise, "Climb of the angle"); });
}

void DimensionPanel::connect_choices() {
  const auto choice = [this](QComboBox* box, auto&& set, const char* what) {
    connect(box, &QComboBox::activated, this, [this, box, set, what] {
      if (const auto* now = current()) {
        auto changed = *now;
        set(changed, box);
        keep(changed, what);
      }
    });
  };
  choice(
      kind_, [](Dimension& d, QComboBox* b) { d.kind = static_cast<DimensionKind>(b->currentIndex()); },
      "Kind");
  choice(
      from_, [](Dimension& d, QComboBox* b) { d.surface = b->currentData().toLongLong(); }, "Surface");
  choice(
      to_, [](Dimension& d, QComboBox* b) { d.other = b->currentData().toLongLong(); }, "Other surface");
  choice(
      class_,
      [](Dimension& d, QComboBox* b) {
        d.importance = static_cast<build::DimensionClass>(b->currentIndex());
      },
      "Class");
  choice(
      source_,
      [](Dimension& d, QComboBox* b) { d.source = static_cast<build::DimensionSource>(b->currentIndex()); },
      "Source");
}

void DimensionPanel::connect_restated() {
  connect(how_, &QComboBox::activated, this, [this] { show_restated(); });
  for (auto* edit : {cutter_, run_, rise_, pin_, hole_, instrument_}) edit->set_when_empty(0);
  for (auto* edit : {pin_, hole_, instrument_})
    connect(edit, &QLineEdit::editingFinished, this, [this] { show_restated(); });
}

const Dimension* DimensionPanel::current() const {
  return document_.build().find<Dimension>(chosen_);
}

void DimensionPanel::keep(const Dimension& changed, const QString& what) {
  document_.apply(build::change(document_.build(), chosen_, changed, what.toStdString()));
}

void DimensionPanel::keep_limits() {
  const auto* now = current();
  if (now == nullptr || !limits_->isModified()) return;
  const auto typed = drawing::typed_limits(*now, limits_->text().toStdString(),
                                           entry_options(document_.unit()), angle_options());
  if (!typed.ok()) {
    message_->refuse(qt(typed.wrong) + ". It stays " + qt(drawing::dimension_text(*now, document_.unit())) +
                     ".");
    return;
  }
  limits_->setModified(false);
  document_.apply(drawing::set_limits(document_.build(), chosen_, typed.dimension, build::utc_now()));
  show_form();
}

void DimensionPanel::keep_length(LengthEdit* edit, double Dimension::*field, const char* what) {
  const auto* now = current();
  if (now == nullptr || !edit->isModified()) return;
  auto changed = *now;
  const auto typed = edit->read(document_.unit());
  edit->mark(!typed.ok());
  if (!typed.ok()) return message_->refuse(edit->accessibleName() + ": " + typed.wrong);
  changed.*field = typed.mm;
  edit->setModified(false);
  keep(changed, what);
}

void DimensionPanel::keep_measured() {
  const auto* now = current();
  if (now == nullptr || !measured_->isModified()) return;
  const auto text = measured_->text().trimmed();
  const auto& b = document_.build();
  measured_->setModified(false);
  if (text.isEmpty()) {
    document_.apply(readings::take_back_reading(b, {chosen_, document_.piece()}));
    return;
  }
  const auto typed = text.toStdString();
  readings::MeasureInput in;
  in.made = {chosen_, document_.piece()};
  in.text = typed;
  in.angles = angle_options();
  in.at = build::utc_now();
  const auto read = readings::measure(b, in, entry_options(document_.unit()));
  if (!read.ok) {
    measured_->setModified(true);
    message_->refuse("Measured: " + sheets::sentence(read.message));
    return;
  }
  document_.apply(readings::keep_measurement(b, read.measurement));
}

void DimensionPanel::add_dimension() {
  const auto added = build::add_dimension(document_.build(), document_.part());
  if (!document_.apply(added)) return;
  chosen_ = added.id;
  refresh();
  name_->setFocus();
  name_->selectAll();
}

void DimensionPanel::remove_dimension() {
  document_.apply(build::take_away(document_.build(), chosen_));
}

void DimensionPanel::refresh() {
  const auto& b = document_.build();
  if (shown_part_ != document_.part()) chosen_ = 0;
  shown_part_ = document_.part();
  const auto all = b.dimensions_of(document_.part());
  if (!current() && !all.empty()) chosen_ = all.front().first;
  const auto name = [&](build::Id id) {
    const auto* s = b.find<build::PartSurface>(id);
    return s ? name_words(s->name) : QString("?");
  };
  {
    const QScopedValueRollback<bool> filling(filling_, true);
    table_->setRowCount(static_cast<int>(all.size()));
    for (std::size_t k = 0; k < all.size(); ++k) {
      const auto& [id, d] = all[k];
      auto what = d.kind == DimensionKind::distance ? QString("between") : qt(build::shown_word(d.kind));
      if (d.surface != 0) what += " " + name(d.surface);
      if (d.other != 0) what += " and " + name(d.other);
      const auto now = readings::size_now(b, {id, document_.piece()});
      QString measured = "\u2013";
      if (now.read())
        measured = (now.bound == build::Bound::below   ? "below "
                    : now.bound == build::Bound::above ? "above "
                                                       : "") +
                   (d.kind == DimensionKind::angle ? qt(angle_text(now.value))
                                                   : sheets::fit_figure(now.value, document_.unit()));
      fill_row(table_, static_cast<int>(k),
               {name_words(d.name), what, qt(drawing::dimension_text(d, document_.unit())),
                qt(build::shown_word(d.importance)), qt(build::shown_word(d.source)), measured});
      if (now.standing == readings::Standing::beyond) {
        table_->item(static_cast<int>(k), 5)->setForeground(theme().gone);
        table_->item(static_cast<int>(k), 5)->setText(measured + " out");
      } else if (now.standing == readings::Standing::metal_on) {
        table_->item(static_cast<int>(k), 5)->setText(measured + " metal on");
      }
      if (id == chosen_) table_->setCurrentCell(static_cast<int>(k), 0);
    }
  }
  from_->clear();
  to_->clear();
  for (auto* box : {from_, to_}) box->addItem("\u2013", 0);
  for (const auto& [id, s] : b.surfaces_of(document_.part()))
    for (auto* box : {from_, to_}) box->addItem(name_words(s.name), QVariant::fromValue<qlonglong>(id));
  show_form();
  show_contradictions();
}

void DimensionPanel::show_form() {
  const auto* d = current();
  form_->setEnabled(d != nullptr);
  remove_->setEnabled(d != nullptr);
  restate_box_->setVisible(d != nullptr &&
                           (d->kind == DimensionKind::distance || d->kind == DimensionKind::length));
  if (d == nullptr) {
    for (auto* edit : {name_, limits_, reason_, sum_, measured_}) edit->clear();
    message_->tell("Add a dimension to give the drawing its limits: a diameter, a distance, an angle.");
    for (auto* row : {cutter_row_, run_row_, rise_row_}) row->hide();
    legs_->hide();
    history_->hide();
    return;
  }
  const auto unit = document_.unit();
  const auto fill = [](QLineEdit* edit, const QString& text) {
    if (edit->hasFocus() && edit->isModified()) return;
    show_from_start(edit, text);
  };
  fill(name_, whole(d->name));
  fill(limits_, d->nominal == 0 && d->kind != DimensionKind::angle ? QString()
                                                                   : qt(drawing::dimension_text(*d, unit)));
  fill(reason_, whole(d->reason));
  fill(sum_, whole(d->sum));
  const auto length = [&](double mm) { return mm == 0 ? QString() : qt(length_entry_text(mm, unit)); };
  fill(cutter_, length(d->cutter));
  fill(run_, length(d->run));
  fill(rise_, length(d->rise));
  const auto now = readings::size_now(document_.build(), {chosen_, document_.piece()});
  const auto piece = name_words(build::piece_name(document_.build(), document_.piece()));
  measured_->setToolTip("Of " + piece + ": " + fits::reading_examples + "\nF1 shows how it adds up");
  measured_->setAccessibleDescription("Of " + piece);
  const auto* of_piece = document_.build().find<build::Piece>(document_.piece());
  const bool several = document_.build().pieces_of(d->part).size() > 1;
  measured_row_->findChild<QLabel*>()->setText(
      several && of_piece ? QString("No. %1 is").arg(of_piece->number) : QString("Measured"));
  // A size that a logged cut left is not a reading of the dimension: it stands there until there is one.
  measured_->setPlaceholderText(now.by_cut
                                    ? filled("%1, by the last cut", sheets::fit_figure(now.value, unit))
                                    : QString("not measured"));
  fill(measured_, !now.measurement || now.by_cut    ? QString()
                  : d->kind == DimensionKind::angle ? qt(angle_text(now.value))
                  : !now.measurement->read.empty()  ? qt(now.measurement->read)
                                                    : qt(length_entry_text(now.value, unit)));
  kind_->setCurrentIndex(static_cast<int>(d->kind));
  class_->setCurrentIndex(static_cast<int>(d->importance));
  source_->setCurrentIndex(static_cast<int>(d->source));
  choose_data(from_, d->surface);
  choose_data(to_, d->other);
  const bool two = d->kind == DimensionKind::distance || d->kind == DimensionKind::edge_radius ||
                   d->kind == DimensionKind::angle;
  between_row_->setVisible(two || d->kind == DimensionKind::size);
  to_->setVisible(two);
  cutter_row_->setVisible(d->kind == DimensionKind::corner_radius);
  run_row_->setVisible(d->kind == DimensionKind::angle);
  rise_row_->setVisible(d->kind == DimensionKind::angle);
  const bool legs = d->kind == DimensionKind::angle && d->run > 0 && d->nominal > 0 && d->nominal < pi / 2;
  legs_->setVisible(legs);
  if (legs) {
    const auto both = drawing::angle_legs(d->nominal, d->run);
    legs_->setText(QString("%1 climbs %2; its complement, %3, climbs %4.")
                       .arg(qt(angle_text(both.angle)), figure(both.leg, unit),
                            qt(angle_text(both.complement)), figure(both.other_leg, unit)));
  }
  if (d->kind != DimensionKind::angle) {
    message_->tell(
        !d->has_limits()
            ? QString("No limits yet: 12 H7, 12 \u00B10.05, 12 +0.018/0; m for ISO 2768-m.")
            : QString("%1 to %2")
                  .arg(qt(length_text(d->least(), unit, {.decimals_mm = 3, .decimals_inch = 5})),
                       qt(length_text(d->most(), unit,
                                      {.decimals_mm = 3, .decimals_inch = 5, .show_unit = true}))));
  } else {
    message_->tell(!d->has_limits()
                       ? QString("No limits yet: 45 \u00B10.5")
                       : QString("%1 to %2").arg(qt(angle_text(d->least())), qt(angle_text(d->most()))));
  }
  QStringList was;
  for (auto old = d->history.rbegin(); old != d->history.rend() && was.size() < 3; ++old)
    was << QString("%1 until %2").arg(qt(old->was), qt(old->at).left(10));
  history_->setVisible(!was.isEmpty());
  history_->setText("Was " + was.join(", "));
  show_restated();
}

void DimensionPanel::show_restated() {
  while (auto* item = reading_box_->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  const auto* d = current();
  if (d == nullptr || restate_box_->isHidden()) return;
  drawing::RestateInput in;
  static constexpr drawing::Restated hows[] = {drawing::Restated::over_pin, drawing::Restated::inside_pin,
                                               drawing::Restated::from_edge};
  in.how = hows[std::max(0, how_->currentIndex())];
  hole_->setVisible(in.how != drawing::Restated::from_edge);
  pin_->setPlaceholderText(in.how == drawing::Restated::from_edge ? "hole" : "pin");
  in.unit = document_.unit();
  in.nominal = d->nominal;
  in.lower = d->lower;
  in.upper = d->upper;
  const std::pair<LengthEdit*, double*> fields[] = {
      {pin_, &in.pin}, {hole_, &in.hole}, {instrument_, &in.instrument}};
  for (const auto& [edit, to] : fields) {
    const auto typed = edit->read(document_.unit());
    edit->mark(!typed.ok());
    if (!typed.ok()) return verdict_->setText(edit->accessibleName() + ": " + typed.wrong);
    *to = typed.mm;
  }
  if (in.pin == 0) {
    verdict_->setText(
        "Give the pin, and the hole it stands in: it is said what to read, and whether that can decide.");
    return;
  }
  const auto r = drawing::restate(in);
  if (!r.usable()) {
    verdict_->setText(qt(r.message));
    return;
  }
  reading_box_->addWidget(new FigureRow({}, "Reads", r.reading, document_.unit(), r.sum));
  verdict_->setText(
      in.lower == 0 && in.upper == 0
          ? QString("The pin's clearance leaves \u00B1%1 on it.").arg(figure(r.band, document_.unit()))
          : qt(r.verdict));
}

void DimensionPanel::show_contradictions() {
  shown_ = drawing::contradictions(document_.build(), document_.part(), {0.0005, document_.unit()});
  wrong_->clear();
  for (const auto& c : shown_) {
    auto* item = new QListWidgetItem(qt(c.text) + ".", wrong_);
    if (c.severity == drawing::Severity::wrong) item->setForeground(theme().gone);
    item->setToolTip("Enter goes there");
  }
  if (shown_.empty()) {
    auto* item = new QListWidgetItem("None found.", wrong_);
    item->setForeground(theme().good);
  }
}

} // namespace datrin::app
