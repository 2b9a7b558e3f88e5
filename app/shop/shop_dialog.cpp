#include "app/shop/shop_dialog.h"

#include "app/marks/form.h"
#include "app/marks/length_field.h"
#include "app/shell/column.h"
#include "app/theme.h"
#include "build/edits.h"
#include "sheets/figures.h"

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
      tools_(plain_table("Tools", {"Tool", "Corner", "Thinnest cut"}, 1)),
      machine_name_(text_field("Name of the machine", "mill, lathe\u2026")),
      resolution_(text_field("Graduation of its dial", "graduation: 0.02 mm, 1 thou")),
      quirk_(text_field("Quirks", "quirks")),
      tool_name_(text_field("Name of the tool", "cutter, boring bar\u2026")),
      corner_(text_field("Corner radius", "corner")),
      least_(text_field("Thinnest cut it takes", "thinnest cut")),
      diameter_(new QCheckBox("reads the diameter")), unit_(choice_box("Unit of its dial", {"mm", "in"})),
      add_machine_(new QPushButton("Add machine")), add_tool_(new QPushButton("Add tool")),
      message_(muted_label()) {
  setWindowTitle("Shop");
  resize(theme().ipx(720), theme().ipx(520));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(8);
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
  tools_->setColumnWidth(0, theme().ipx(300));
  tools_->setColumnWidth(1, theme().ipx(120));
  tools_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(tools_, 1);
  auto* two = new QHBoxLayout;
  for (QWidget* w : std::initializer_list<QWidget*>{tool_name_, corner_, least_, add_tool_})
    two->addWidget(w, w == tool_name_ ? 2 : 1);
  column->addLayout(two);
  column->addWidget(message_);
  message_->setText("A lathe's cross slide often reads the diameter, a mill's table a side: the pass list "
                    "follows. Delete removes the chosen row.");
  connect(add_machine_, &QPushButton::clicked, this, &ShopDialog::add_machine);
  connect(add_tool_, &QPushButton::clicked, this, &ShopDialog::add_tool);
  connect(least_, &QLineEdit::returnPressed, this, &ShopDialog::add_tool);
  for (auto* b : {add_machine_, add_tool_}) b->setAutoDefault(false);
  for (auto* table : {machines_, tools_}) {
    auto* drop = new QShortcut(QKeySequence::Delete, table, nullptr, nullptr, Qt::WidgetShortcut);
    connect(drop, &QShortcut::activated, this, [this, table] {
      remove_chosen(table, table == machines_ ? machine_ids_ : tool_ids_,
                    table == machines_ ? "Remove a machine" : "Remove a tool");
    });
  }
  unit_->setCurrentIndex(document_.unit() == Unit::mm ? 0 : 1);
  connect(&document_, &Document::changed, this, [this] { refresh(); });
  refresh();
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
             {qt(m.name), m.reads_diameter ? "the diameter" : "a side", qt(unit_name(m.unit)),
              qt(length_text(m.resolution, m.unit, {.decimals_mm = 3, .decimals_inch = 4})), qt(m.note)});
    machine_ids_.push_back(id);
  }
  for (const auto& [id, t] : b.tools()) {
    const int row = tools_->rowCount();
    tools_->insertRow(row);
    fill_row(tools_, row,
             {qt(t.name), t.corner > 0 ? figure(t.corner, document_.unit()) : QString("\u2013"),
              figure(t.least_cut, document_.unit())});
    tool_ids_.push_back(id);
  }
}

std::optional<double> ShopDialog::length(QLineEdit* edit, double when_empty, bool above_zero) {
  const auto text = edit->text().trimmed();
  if (text.isEmpty()) return when_empty;
  const auto read = parse_length(text.toStdString(), entry_options(document_.unit()));
  const bool ok = read.ok() && read.mm >= 0 && (!above_zero || read.mm > 0);
  if (ok) return read.mm;
  message_->setText(edit->accessibleName() + ": " +
                    (!read.ok()   ? qt(read.message)
                     : above_zero ? QString("must be above 0")
                                  : QString("must not be negative")));
  colour_label(message_, theme().gone);
  edit->setFocus();
  return std::nullopt;
}

void ShopDialog::add_machine() {
  build::Machine m;
  m.name = machine_name_->text().trimmed().toStdString();
  if (m.name.empty()) {
    message_->setText("Name the machine.");
    colour_label(message_, theme().gone);
    machine_name_->setFocus();
    return;
  }
  m.unit = unit_->currentIndex() == 0 ? Unit::mm : Unit::inch;
  const auto resolution = length(resolution_, m.unit == Unit::mm ? 0.01 : mm_per_thou, true);
  if (!resolution) return;
  m.resolution = *resolution;
  m.reads_diameter = diameter_->isChecked();
  m.note = quirk_->text().trimmed().toStdString();
  m.order = build::next_order(document_.build().machines());
  if (!document_.apply(build::add(document_.build(), m, "Add machine " + m.name))) return;
  for (auto* edit : {machine_name_, resolution_, quirk_}) edit->clear();
  diameter_->setChecked(false);
  machine_name_->setFocus();
}

void ShopDialog::add_tool() {
  build::Tool t;
  t.name = tool_name_->text().trimmed().toStdString();
  if (t.name.empty()) {
    message_->setText("Name the tool.");
    colour_label(message_, theme().gone);
    tool_name_->setFocus();
    return;
  }
  const auto corner = length(corner_, 0, false);
  const auto least = corner ? length(least_, 0.05, false) : std::nullopt;
  if (!least) return;
  t.corner = *corner;
  t.least_cut = *least;
  t.order = build::next_order(document_.build().tools());
  if (!document_.apply(build::add(document_.build(), t, "Add tool " + t.name))) return;
  for (auto* edit : {tool_name_, corner_, least_}) edit->clear();
  tool_name_->setFocus();
}

void ShopDialog::remove_chosen(QTableWidget* table, const std::vector<build::Id>& ids, const QString& what) {
  const int row = table->currentRow();
  if (row >= 0 && row < static_cast<int>(ids.size()))
    document_.apply(build::remove(document_.build(), ids[static_cast<std::size_t>(row)], what.toStdString()));
}

} // namespace datrin::app
