#pragma once
// Ctrl+C in a table: the chosen rows, or all, go to the clipboard with their headings, separated by tabs, as
// spreadsheets take them.

#include <QTableView>

namespace datrin::app {

QString table_text(const QTableView& table);
void make_copyable(QTableView* table);

} // namespace datrin::app
