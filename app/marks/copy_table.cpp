#include "app/marks/copy_table.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QShortcut>

namespace datrin::app {

QString table_text(const QTableView& table) {
  const auto* model = table.model();
  QStringList lines, heads;
  for (int c = 0; c < model->columnCount(); ++c) heads << model->headerData(c, Qt::Horizontal).toString();
  lines << heads.join('\t');
  const auto chosen = table.selectionModel()->selectedRows();
  const auto row_text = [&](int row) {
    QStringList cells;
    for (int c = 0; c < model->columnCount(); ++c) {
      // Spreadsheets read a hyphen, not the true minus of the screen.
      cells << model->index(row, c).data().toString().replace(QChar(0x2212), '-').replace('\t', ' ');
    }
    return cells.join('\t');
  };
  if (chosen.size() > 1)
    for (const auto& index : chosen) lines << row_text(index.row());
  else
    for (int row = 0; row < model->rowCount(); ++row) lines << row_text(row);
  return lines.join('\n') + '\n';
}

void make_copyable(QTableView* table) {
  auto* copy = new QShortcut(QKeySequence::Copy, table, nullptr, nullptr, Qt::WidgetShortcut);
  QObject::connect(copy, &QShortcut::activated, table,
                   [table] { QApplication::clipboard()->setText(table_text(*table)); });
}

} // namespace datrin::app
