#pragma once
// Where a number came from: a short column added up as one would on paper.

#include "quantity/column_text.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin {

struct ReckoningLine {
  std::string label;    ///< "stock at touch 12"
  double mm = 0;        ///< signed: added to the lines above
  std::string source;   ///< where this line comes from: "survey", "drawing", "chosen"
  std::string figure{}; ///< shown in place of `mm` where it is no length: "7.20 g/cm³"
};

struct Reckoning {
  std::string title; ///< what the total is
  std::vector<ReckoningLine> lines;
  std::string answer{}; ///< in place of the total, where the lines do not add up to a length: "483 g"

  double total() const {
    double sum = 0;
    for (const auto& line : lines) sum += line.mm;
    return sum;
  }
};

/// Its figures as they are shown, which add up as shown.
ColumnText column_of(const Reckoning& reckoning, Unit unit);

/// The column as text, one line each, both units, a rule, the total: for copying and for screen readers.
std::string reckoning_text(const Reckoning& reckoning, Unit first);

} // namespace datrin
