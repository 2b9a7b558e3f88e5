#pragma once
// Number and letter drills, from data/drills.csv.

#include "quantity/unit.h"

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace datrin {

/// Diameter in mm of a drill named "1" to "80" or "A" to "Z" (either case); nothing for any other name.
std::optional<double> drill_diameter(std::string_view name);

/// All number and letter drills, as name and diameter in mm.
const std::vector<std::pair<std::string, double>>& named_drills();

struct Drill {
  std::string name;
  double size = 0; ///< mm
};

/// What a full drawer of drills holds, smallest first: tenths, quarters and halves of a millimetre to 50 mm,
/// or sixty-fourths to 2 in with the number and letter drills.
const std::vector<Drill>& drill_drawer(Unit unit);

} // namespace datrin
