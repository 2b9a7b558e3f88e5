#pragma once
// Number and letter drills (data/drills.csv), wire gauges (data/wire_gauges.csv), and what a drawer holds.

#include "quantity/unit.h"

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace datrin {

/// Diameter in mm of a drill named "1" to "97" or "A" to "Z" (either case); nothing for any other name.
std::optional<double> drill_diameter(std::string_view name);

/// All number and letter drills, as name and diameter in mm.
const std::vector<std::pair<std::string, double>>& named_drills();

/// Diameter in mm of wire (thickness of sheet) by its gauge: "swg" 0 to 50 (BS 3737), "awg" 0 to 40 (ASTM
/// B258); nothing for any other name or number.
std::optional<double> wire_gauge(std::string_view gauge, std::string_view number);

struct Drill {
  std::string name;
  double size = 0; ///< mm
};

/// What a full drawer of drills holds, smallest first: by 0.05 mm to 3 mm, then by tenths, quarters and
/// halves to 50 mm; or sixty-fourths to 2 in with the number and letter drills.
const std::vector<Drill>& drill_drawer(Unit unit);

} // namespace datrin
