#include "app/shop/shop_dialog.h"

#include "allowance/passes.h"
#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/length_field.h"
#include "app/theme.h"
#include "build/edit_making.h"
#include "sheets/figures.h"
#include "stock/offcuts.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QShortcut>
#include <QVBoxLayout>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

ShopDialog::ShopDialog(Document& document, QWidget* parent)
    : QDialog(parent), document_(document),
      machines_(plain_table("Machines", {"Machine", "Dial reads", "in", "Graduation", "Quirks"}, 5)),
      tools_(plain_table("Tools", {"Tool", "Kind", "Size", "Corner", "Thinnest cut"}, 2)),
      instruments_(plain_table("Instruments", {"Instrument", "\u00B1", "Shows at zero"}, 1)),
      offcuts_(plain_table("Offcuts", {"Offcut", "Material", "Across", "Thick", "Length"}, 2)),
      machine_name_(text_field("Name of the machine", "mill, lathe\u2026")),
      resolution_(new LengthEdit("Graduation of its dial", "graduation: 0.02 mm, 1 thou")),
      quirk_(text_field("Quirks", "quirks")),
      tool_name_(text_field("Name of the tool", "cutter, boring bar\u2026")),
      corner_(new LengthEdit("Corner radius", "corner")),
      least_(new LengthEdit("Thinnest cut it takes", "thinnest cut")),
      size_(new LengthEdit("Size of the tool", "size")),
      instrument_name_(text_field("Name of the instrument", "micrometer 0\u201325")),
      uncertainty_(new LengthEdit("Uncertainty of one reading", "\u00B1, 95 %")),
      zero_(new LengthEdit("What it shows at zero", "shows at zero")),
      diameter_(new QCheckBox("reads the diameter")), unit_(choice_box("Unit of its dial", {"mm", "in"})),
      kind_(choice_box("Kind of tool", shown_words<build::ToolKind>())),
      offcut_form_(choice_box("Form of the offcut")),
      offcut_material_(text_field("Material of the offcut", "material")),
      offcut_width_(new LengthEdit("Across", "across")), offcut_thick_(new LengthEdit("Thick", "thick")),
      offcut_bore_(new LengthEdit("Bore of the offcut", "bore")),
      offcut_length_(new LengthEdit("Length of the offcut", "length")),
      add_machine_(new QPushButton("Add machine")), add_tool_(new QPushButton("Add tool")),
      add_instrument_(new QPushButton("Add instrument")), add_offcut_(new QPushButton("Put by")),
      message_(new MessageLine) {
  setWindowTitle("Shop");
  resize(theme().ipx(760), theme().ipx(720));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(8);
  make_lists();
  connect_buttons();
  set_rules();
  unit_->setCurrentIndex(document_.unit() == Unit::mm ? 0 : 1);
  connect(&document_, &Document::changed, this, [this] { refresh(); });
  refresh();
}

void ShopDialog::make_lists() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  column->addWidget(heading_label("Machines"));
  const int widths[] = {160, 130, 50, 110};
  for (int c = 0; c < 4; ++c) machines_->setColumnWidth(c, theme().ipx(widths[c]));
  machines_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(machines_, 1);
  auto* one = new QHBoxLayout;
  for (QWidget* w :
       std::initializer_list<QWidget*>{machine_name_, unit_, resolution_, diameter_, quirk_, add_machine_})
    one->addWidget(w, w == machine_name_ || w == resolution_ ? 2 : 1);
  column->addLayout(one);
  column->addSpacing(8);
  column->addWidget(heading_label("Tools"));
  const int tool_widths[] = {250, 110, 90, 90};
  for (int c = 0; c < 4; ++c) tools_->setColumnWidth(c, theme().ipx(tool_widths[c]));
  tools_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(tools_, 1);
  auto* two = new QHBoxLayout;
  for (QWidget* w : std::initializer_list<QWidget*>{tool_name_, kind_, size_, corner_, least_, add_tool_})
    two->addWidget(w, w == tool_name_ ? 2 : 1);
  column->addLayout(two);
  column->addSpacing(8);
  column->addWidget(heading_label("Instruments"));
  instruments_->setColumnWidth(0, theme().ipx(360));
  instruments_->setColumnWidth(1, theme().ipx(120));
  instruments_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(instruments_, 1);
  auto* three = new QHBoxLayout;
  for (QWidget* w : std::initializer_list<QWidget*>{instrument_name_, uncertainty_, zero_, add_instrument_})
    three->addWidget(w, w == instrument_name_ ? 2 : 1);
  column->addLayout(three);
  column->addSpacing(8);
  column->addWidget(heading_label("Offcuts"));
  const int offcut_widths[] = {180, 180, 90, 90};
  for (int c = 0; c < 4; ++c) offcuts_->setColumnWidth(c, theme().ipx(offcut_widths[c]));
  offcuts_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(offcuts_, 1);
  for (const auto form :
       {build::StockForm::round, build::StockForm::square, build::StockForm::hexagon, build::StockForm::flat,
        build::StockForm::plate, build::StockForm::sheet, build::StockForm::block, build::StockForm::tube})
    offcut_form_->addItem(qt(build::shown_word(form)), static_cast<int>(form));
  auto* four = new QHBoxLayout;
  for (QWidget* w : std::initializer_list<QWidget*>{offcut_form_, offcut_material_, offcut_width_,
                                                    offcut_thick_, offcut_bore_, offcut_length_, add_offcut_})
    four->addWidget(w, 1);
  column->addLayout(four);
  column->addWidget(message_);
  message_->tell("A lathe's cross slide often reads the diameter, a mill's table a side: the pass list "
                 "follows. Delete removes the chosen row.");
}

void ShopDialog::connect_buttons() {
  connect(add_machine_, &QPushButton::clicked, this, &ShopDialog::add_machine);
  connect(add_tool_, &QPushButton::clicked, this, &ShopDialog::add_tool);
  connect(least_, &QLineEdit::returnPressed, this, &ShopDialog::add_tool);
  connect(add_instrument_, &QPushButton::clicked, this, &ShopDialog::add_instrument);
  connect(zero_, &QLineEdit::returnPressed, this, &ShopDialog::add_instrument);
  connect(add_offcut_, &QPushButton::clicked, this, &ShopDialog::add_offcut);
  connect(offcut_length_, &QLineEdit::returnPressed, this, &ShopDialog::add_offcut);
  for (auto* b : {add_machine_, add_tool_, add_instrument_, add_offcut_}) b->setAutoDefault(false);
  for (auto* table : {machines_, tools_, instruments_, offcuts_}) {
    auto* drop = new QShortcut(QKeySequence::Delete, table, nullptr, nullptr, Qt::WidgetShortcut);
    connect(drop, &QShortcut::activated, this, [this, table] {
      remove_chosen(table, table == machines_  ? machine_ids_
                           : table == tools_   ? tool_ids_
                           : table == offcuts_ ? offcut_ids_
                                               : instrument_ids_);
    });
  }
}

void ShopDialog::set_rules() {
  resolution_->set_rule(must_be_positive);
  corner_->set_rule(must_not_be_negative);
  corner_->set_when_empty(0);
  least_->set_rule(must_not_be_negative);
  uncertainty_->set_rule(must_be_positive);
  uncertainty_->set_when_empty(0.01);
  zero_->set_when_empty(0);
  offcut_width_->set_rule(must_be_positive);
  offcut_length_->set_rule(must_be_positive);
  offcut_thick_->set_rule(must_not_be_negative);
  offcut_thick_->set_when_empty(0);
  offcut_bore_->set_rule(must_not_be_negative);
  offcut_bore_->set_when_empty(0);
  const auto which = [this] { // what its form has no use for is not asked
    const auto form = static_cast<build::StockForm>(offcut_form_->currentData().toInt());
    offcut_bore_->setVisible(form == build::StockForm::tube);
    offcut_thick_->setVisible(form == build::StockForm::flat || form == build::StockForm::plate ||
                              form == build::StockForm::sheet || form == build::StockForm::block);
  };
  connect(offcut_form_, &QComboBox::currentIndexChanged, this, which);
  which();
}

void ShopDialog::refresh() {
  const auto& b = document_.build();
  machine_ids_.clear();
  tool_ids_.clear();
  machines_->setRowCount(0);
  tools_->setRowCount(0);
  for (const auto& [id, m] : b.machines()) {
    const int row = machines_->rowCount();
    machines_->insertRow(row);
    fill_row(machines_, row,
             {name_words(m.name), m.reads_diameter ? "the diameter" : "a side", qt(unit_name(m.unit)),
              qt(length_text(m.resolution, m.unit, {.decimals_mm = 3, .decimals_inch = 4})), qt(m.note)});
    machine_ids_.push_back(id);
  }
  for (const auto& [id, t] : b.tools()) {
    const int row = tools_->rowCount();
    tools_->insertRow(row);
    fill_row(tools_, row,
             {name_words(t.name), qt(build::shown_word(t.kind)),
              t.size > 0 ? sheets::fit_figure(t.size, document_.unit()) : QString("\u2013"),
              t.corner > 0 ? figure(t.corner, document_.unit()) : QString("\u2013"),
              t.least_cut > 0 ? figure(t.least_cut, document_.unit()) : QString("\u2013")});
    tool_ids_.push_back(id);
  }
  instrument_ids_.clear();
  instruments_->setRowCount(0);
  for (const auto& [id, i] : b.instruments()) {
    const int row = instruments_->rowCount();
    instruments_->insertRow(row);
    fill_row(instruments_, row,
             {name_words(i.name), sheets::fit_figure(i.uncertainty, document_.unit()),
              sheets::fit_figure(i.zero, document_.unit(), true)});
    instrument_ids_.push_back(id);
  }
  offcut_ids_.clear();
  offcuts_->setRowCount(0);
  for (const auto& [id, o] : b.offcuts()) {
    const int row = offcuts_->rowCount();
    offcuts_->insertRow(row);
    fill_row(offcuts_, row,
             {qt(build::shown_word(o.form)), name_words(o.material), figure(o.width, document_.unit()),
              o.thick > 0 ? figure(o.thick, document_.unit()) : QString("\u2013"),
              figure(o.length, document_.unit())});
    offcut_ids_.push_back(id);
  }
}

void ShopDialog::add_machine() {
  build::Machine m;
  m.name = machine_name_->text().trimmed().toStdString();
  if (m.name.empty()) {
    message_->refuse("Name the machine.");
    machine_name_->setFocus();
    return;
  }
  m.unit = unit_->currentIndex() == 0 ? Unit::mm : Unit::inch;
  resolution_->set_when_empty(allowance::usual_graduation(m.unit));
  const auto resolution = resolution_->take(document_.unit(), *message_);
  if (!resolution) return;
  m.resolution = *resolution;
  m.reads_diameter = diameter_->isChecked();
  m.note = quirk_->text().trimmed().toStdString();
  if (!document_.apply(build::add_machine(document_.build(), m).edit)) return;
  for (QLineEdit* edit : std::initializer_list<QLineEdit*>{machine_name_, resolution_, quirk_}) edit->clear();
  diameter_->setChecked(false);
  machine_name_->setFocus();
}

void ShopDialog::add_tool() {
  build::Tool t;
  t.name = tool_name_->text().trimmed().toStdString();
  if (t.name.empty()) {
    message_->refuse("Name the tool.");
    tool_name_->setFocus();
    return;
  }
  const bool cuts_sides = kind_->currentIndex() == 0; // a reamer without a size reaches nothing
  least_->set_when_empty(cuts_sides ? 0.05 : 0);
  size_->set_when_empty(cuts_sides ? std::optional(0.0) : std::nullopt);
  size_->set_rule(cuts_sides ? must_not_be_negative : must_be_positive);
  const auto corner = corner_->take(document_.unit(), *message_);
  const auto least = corner ? least_->take(document_.unit(), *message_) : std::nullopt;
  const auto size = least ? size_->take(document_.unit(), *message_) : std::nullopt;
  if (!size) return;
  t.kind = static_cast<build::ToolKind>(kind_->currentIndex());
  t.size = *size;
  t.corner = *corner;
  t.least_cut = *least;
  if (!document_.apply(build::add_tool(document_.build(), t).edit)) return;
  for (QLineEdit* edit : std::initializer_list<QLineEdit*>{tool_name_, corner_, least_, size_}) edit->clear();
  tool_name_->setFocus();
}

void ShopDialog::add_instrument() {
  build::Instrument i;
  i.name = instrument_name_->text().trimmed().toStdString();
  if (i.name.empty()) {
    message_->refuse("Name the instrument.");
    instrument_name_->setFocus();
    return;
  }
  const auto uncertainty = uncertainty_->take(document_.unit(), *message_);
  const auto zero = uncertainty ? zero_->take(document_.unit(), *message_) : std::nullopt;
  if (!zero) return;
  i.uncertainty = *uncertainty;
  i.zero = *zero;
  if (!document_.apply(build::add_instrument(document_.build(), i).edit)) return;
  for (QLineEdit* edit : std::initializer_list<QLineEdit*>{instrument_name_, uncertainty_, zero_})
    edit->clear();
  instrument_name_->setFocus();
}

void ShopDialog::add_offcut() {
  build::Offcut o;
  o.form = static_cast<build::StockForm>(offcut_form_->currentData().toInt());
  o.material = offcut_material_->text().trimmed().toStdString();
  const auto width = offcut_width_->take(document_.unit(), *message_);
  const auto thick = width ? offcut_thick_->take(document_.unit(), *message_) : std::nullopt;
  const auto bore = thick ? offcut_bore_->take(document_.unit(), *message_) : std::nullopt;
  const auto length = bore ? offcut_length_->take(document_.unit(), *message_) : std::nullopt;
  if (!length) return;
  o.width = *width;
  o.thick = offcut_thick_->isHidden() ? 0 : *thick;
  o.bore = offcut_bore_->isHidden() ? 0 : *bore;
  o.length = *length;
  const auto kept = stock::put_by(document_.build(), o);
  if (!kept.ok()) return message_->refuse(sheets::sentence(kept.wrong));
  if (!document_.apply(kept.edit)) return;
  for (QLineEdit* edit :
       std::initializer_list<QLineEdit*>{offcut_width_, offcut_thick_, offcut_bore_, offcut_length_})
    edit->clear();
  offcut_width_->setFocus();
}

void ShopDialog::remove_chosen(QTableWidget* table, const std::vector<build::Id>& ids) {
  const int row = table->currentRow();
  if (row >= 0 && row < static_cast<int>(ids.size()))
    document_.apply(build::take_away(document_.build(), ids[static_cast<std::size_t>(row)]));
}

} // namespace datrin::app
