#pragma once
// The parts forms and plain tables are made of.

#include "build/words.h"
#include "quantity/angle.h"
#include "quantity/length.h"
#include "sheets/shown.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QTableWidget>
#include <QVBoxLayout>

#include <utility>

namespace datrin::app {

/// A choice that does not widen its column.
QComboBox* choice_box(const QString& accessible_name, const QStringList& items = {});

/// A text field.
QLineEdit* text_field(const QString& accessible_name, const QString& hint = {});

/// Puts `text` into a field as if it were typed there: it has the keyboard, and keeps it when left.
void type_into(QLineEdit& field, const QString& text);

/// Label left, field right; below each other where the text is large.
QWidget* labelled(const QString& label, QWidget* field, int label_width = 84);

/// A table to read from: rows chosen whole, Ctrl+C copies; columns from `right_from` on are aligned right.
QTableWidget* plain_table(const QString& accessible_name, const QStringList& headings, int right_from);
void make_plain(QTableWidget* table, const QString& accessible_name, const QStringList& headings,
                int right_from); ///< the same of a table of another kind

/// Fills row `row`, aligned as the headings are.
void fill_row(QTableWidget* table, int row, const QStringList& cells);

/// The words of an enumeration of the records, in its order: the entries of a choice.
template <class E>
QStringList shown_words() {
  QStringList words;
  const auto [list, count] = build::shown_words_of<E>();
  for (std::size_t k = 0; k < count; ++k) words << whole(list[k]);
  return words;
}

/// The same by the words of the file, where these are the ones shown.
template <class E>
QStringList plain_words() {
  QStringList words;
  const auto [list, count] = build::words_of<E>();
  for (std::size_t k = 0; k < count; ++k) words << whole(list[k]);
  return words;
}

/// Puts `text` into a field so that its beginning is seen.
void show_from_start(QLineEdit* edit, const QString& text);

/// `act(on)` when the person ticks the box or takes the tick away, by key, mouse or screen reader; not when
/// it is shown by `show_tick`.
template <class Act>
void on_tick(QCheckBox* box, QObject* owner, Act&& act) {
  QObject::connect(box, &QCheckBox::toggled, owner, std::forward<Act>(act));
}
/// Shows the box so, without a signal.
void show_tick(QCheckBox* box, bool on);

/// Chooses the entry with that data, without a signal.
void choose_data(QComboBox* box, qlonglong data);

} // namespace datrin::app
