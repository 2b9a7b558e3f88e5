#pragma once
// Lengths as they are shown: tabular decimals, true minus, a narrow space that no line breaks at (U+202F)
// before the unit.

#include "quantity/unit.h"

#include <string>

namespace datrin {

struct LengthTextOptions {
  int decimals_mm = 2;    ///< figures after the point in millimetres
  int decimals_inch = 4;  ///< and in inches
  bool show_unit = false; ///< with that space and the unit
  bool show_plus = false; ///< a plus before positive values, for margins and deviations
};

/// `mm` millimetres in `unit`, rounded half away from zero; never "-0.00"; a value that is not finite is an
/// en dash.
std::string length_text(double mm, Unit unit, const LengthTextOptions& options = {});

/// The same in both units, the person's own first: "12.70 mm · 0.5000 in".
std::string length_text_both(double mm, Unit first, const LengthTextOptions& options = {});

/// A small length of a fit: whole micrometres, or thou and tenths of them: "25\u202Fµm", "1.0\u202Fthou".
std::string fine_text(double mm, Unit unit, bool show_plus = false);

/// `value` with a fixed number of decimals, a true minus and no unit.
std::string number_text(double value, int decimals, bool show_plus = false);

/// `mm` as it is put into an entry field: as few figures as say it exactly to 0.00001 mm, with its unit.
std::string length_entry_text(double mm, Unit unit);

} // namespace datrin
