#pragma once
// Figures as Qt text.

#include "quantity/length_text.h"
#include "sheets/shown.h"

#include <QString>

namespace datrin::sheets {

/// To be shown: sheets/shown.h.
inline QString qt(std::string_view text) {
  return shown(text);
}

/// What the core says in the middle of a sentence ("a diameter must be above 0") as one of its own.
inline QString sentence(std::string_view words) {
  auto text = qt(words);
  if (text.isEmpty()) return text;
  text[0] = text[0].toUpper();
  return text.endsWith('.') || text.endsWith('?') || text.endsWith('!') ? text : text + ".";
}

/// A length in the unit given, two decimals of a millimetre or four of an inch.
QString figure(double mm, Unit unit, bool plus = false);
/// With its unit after a thin space.
QString figure_with_unit(double mm, Unit unit, bool plus = false);
QString fit_with_unit(double mm, Unit unit); ///< fit_figure with its unit

/// A size of a fit: three decimals of a millimetre or four of an inch.
QString fit_figure(double mm, Unit unit, bool plus = false);
/// A small length of a fit, in micrometres or thou with tenths of them, without its unit.
QString fine_figure(double mm, Unit unit, bool plus = false);
/// "µm" or "thou".
QString fine_unit(Unit unit);

/// The other of the two units.
inline Unit other(Unit unit) {
  return unit == Unit::mm ? Unit::inch : Unit::mm;
}

} // namespace datrin::sheets
