#include "app/marks/fields.h"

#include "app/marks/copy_table.h"
#include "app/theme.h"

#include <QHeaderView>
#include <QLabel>
#include <QSignalBlocker>

namespace datrin::app {

QComboBox* choice_box(const QString& name, const QStringList& items) {
  auto* box = new QComboBox;
  box->setAccessibleName(name);
  box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  box->setMinimumContentsLength(3);
  box->addItems(items);
  return box;
}

void type_into(QLineEdit& field, const QString& text) {
  field.setFocus();
  field.selectAll();
  field.insert(text);
  field.setModified(true);
}

QLineEdit* text_field(const QString& name, const QString& hint) {
  auto* edit = new QLineEdit;
  edit->setAccessibleName(name);
  edit->setPlaceholderText(hint);
  edit->setMinimumWidth(theme().ipx(40));
  return edit;
}

QWidget* labelled(const QString& words, QWidget* field, int label_width) {
  auto* row = new QWidget;
  QBoxLayout* box = theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout(row)) : new QHBoxLayout(row);
  box->setContentsMargins(0, 0, 0, 0);
  box->setSpacing(theme().large() ? 1 : 6);
  auto* label = new QLabel(words);
  label->setBuddy(field);
  if (!theme().large()) label->setFixedWidth(theme().ipx(label_width));
  box->addWidget(label);
  box->addWidget(field, 1);
  return row;
}

QTableWidget* plain_table(const QString& name, const QStringList& headings, int right_from) {
  auto* table = new QTableWidget;
  make_plain(table, name, headings, right_from);
  return table;
}

void make_plain(QTableWidget* table, const QString& name, const QStringList& headings, int right_from) {
  table->setColumnCount(static_cast<int>(headings.size()));
  table->setHorizontalHeaderLabels(headings);
  for (int c = 0; c < table->columnCount(); ++c)
    table->horizontalHeaderItem(c)->setTextAlignment((c < right_from ? Qt::AlignLeft : Qt::AlignRight) |
                                                     Qt::AlignVCenter);
  table->verticalHeader()->hide();
  table->verticalHeader()->setDefaultSectionSize(theme().ipx(24));
  table->setShowGrid(false);
  table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table->setSelectionBehavior(QAbstractItemView::SelectRows);
  table->setSelectionMode(QAbstractItemView::SingleSelection);
  table->setTabKeyNavigation(false);
  table->horizontalHeader()->setHighlightSections(false);
  table->horizontalHeader()->setMinimumSectionSize(theme().ipx(30));
  table->setAccessibleName(name);
  make_copyable(table);
}

void fill_row(QTableWidget* table, int row, const QStringList& cells) {
  for (int c = 0; c < table->columnCount() && c < cells.size(); ++c) {
    auto* item = new QTableWidgetItem(cells[c]);
    item->setTextAlignment(Qt::Alignment(table->horizontalHeaderItem(c)->textAlignment()));
    item->setToolTip(cells[c]);
    table->setItem(row, c, item);
  }
}

void show_from_start(QLineEdit* edit, const QString& text) {
  edit->setText(text);
  edit->setCursorPosition(0);
}

void choose_data(QComboBox* box, qlonglong data) {
  const QSignalBlocker quiet(box);
  box->setCurrentIndex(std::max(0, box->findData(data)));
}

void show_tick(QCheckBox* box, bool on) {
  const QSignalBlocker quiet(box);
  box->setChecked(on);
}

} // namespace datrin::app
