#pragma once
// Where a length is typed as people write it, and how what is typed is read: the one way for every place of
// the window. A vulgar fraction without a unit is inches whatever the dial counts in, and the field says so.

#include "app/marks/message_line.h"
#include "quantity/angle.h"
#include "quantity/length.h"

#include <QLineEdit>

#include <functional>
#include <optional>

namespace datrin::app {

/// Options for reading lengths typed on screen: a bare number is in `unit`; a decimal comma is read where the
/// person's locale writes one; sizes are known by name where somebody knows them.
LengthOptions entry_options(Unit unit);
/// Who knows sizes by name for every field of the window; none: nobody.
void set_named_sizes(std::function<std::optional<NamedSize>(std::string_view)> named);

/// The same for angles; `taper` says what "1 in 12" is of where the words do not.
AngleOptions angle_options(TaperOf taper = TaperOf::slope);

/// A number typed on screen, with a comma where the person's locale writes one; nothing when it is none.
std::optional<double> typed_number(const QString& text);

/// A temperature typed on screen, in degrees Celsius: "90", "250 °C", "480 °F"; nothing when it is none.
std::optional<double> typed_celsius(const QString& text);

/// Says what is wrong with an understood value ("must be above 0"), or nothing.
using LengthRule = std::function<QString(double mm)>;
QString must_be_positive(double mm);
QString must_not_be_negative(double mm);

/// A length as it was typed somewhere else than in a field of its own (a cell of a table).
struct TypedLength {
  double mm = 0;
  QString wrong;  ///< empty: it was understood
  int column = 0; ///< of what was not, from 1; 0: the whole of it
  bool ok() const { return wrong.isEmpty(); }
};
TypedLength typed_length(const QString& text, Unit unit, const LengthRule& rule = {});

class LengthEdit : public QLineEdit {
public:
  explicit LengthEdit(const QString& accessible_name, const QString& hint = {}, LengthRule rule = {});
  void set_rule(LengthRule rule) { rule_ = std::move(rule); }
  /// What it means when nothing is typed; without it something must be.
  void set_when_empty(std::optional<double> mm) { when_empty_ = mm; }

  TypedLength read(Unit unit) const;
  /// Reads it for a form: what is not understood is marked, told on `line` under the field's name, and the
  /// field takes the keyboard.
  std::optional<double> take(Unit unit, MessageLine& line);
  void mark(bool wrong);
  bool reads_inches() const; ///< a fraction without a unit stands in it

protected:
  void paintEvent(QPaintEvent*) override;

private:
  LengthRule rule_;
  std::optional<double> when_empty_;
};

} // namespace datrin::app
