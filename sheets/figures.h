#pragma once
// Figures as Qt text.

#include "quantity/length_text.h"

#include <QString>

namespace datrin::sheets {

inline QString qt(const std::string& text) {
  return QString::fromStdString(text);
}
inline QString qt(std::string_view text) {
  return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

/// A length in the unit given, two decimals of a millimetre or four of an inch.
QString figure(double mm, Unit unit, bool plus = false);
/// With its unit after a thin space.
QString figure_with_unit(double mm, Unit unit, bool plus = false);

/// A size of a fit: three decimals of a millimetre or four of an inch.
QString fit_figure(double mm, Unit unit, bool plus = false);
/// A small length of a fit, in micrometres or tenths of a thousandth of an inch ("tenths"), without its unit.
QString fine_figure(double mm, Unit unit, bool plus = false);
/// "µm" or "tenths".
QString fine_unit(Unit unit);

/// The other of the two units.
inline Unit other(Unit unit) {
  return unit == Unit::mm ? Unit::inch : Unit::mm;
}

} // namespace datrin::sheets
