#pragma once
// Figures that stand one under the other and are added up by whoever reads them.

#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin {

struct ColumnText {
  std::vector<std::string> figures; ///< in the order of the lengths
  std::string total;
};

/// Lengths (mm) and their sum in `unit`, such that what is printed adds up as printed: with so many decimals
/// where they do, else with one more; should they not even then, the last figure of those it changes least is
/// a step off.
ColumnText column_text(const std::vector<double>& lengths, Unit unit, int decimals, bool show_plus = false);

} // namespace datrin
