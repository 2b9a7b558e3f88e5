#pragma once
// The parts forms and plain tables are made of.

#include "quantity/angle.h"
#include "quantity/length.h"

#include <QComboBox>
#include <QLineEdit>
#include <QTableWidget>
#include <QVBoxLayout>

namespace datrin::app {

/// A choice that does not widen its column.
QComboBox* choice_box(const QString& accessible_name, const QStringList& items = {});

/// A text field.
QLineEdit* text_field(const QString& accessible_name, const QString& hint = {});

/// Label left, field right; below each other where the text is large.
QWidget* labelled(const QString& label, QWidget* field, int label_width = 84);

/// A table to read from: rows chosen whole, Ctrl+C copies; columns from `right_from` on are aligned right.
QTableWidget* plain_table(const QString& accessible_name, const QStringList& headings, int right_from);

/// Fills row `row`, aligned as the headings are.
void fill_row(QTableWidget* table, int row, const QStringList& cells);

/// Now, as records keep it: UTC, ISO 8601.
std::string now_text();

/// Chooses the entry with that data, without a signal.
void choose_data(QComboBox* box, qlonglong data);

} // namespace datrin::app
