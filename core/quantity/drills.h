#pragma once
// Number and letter drills, from data/drills.csv.

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

} // namespace datrin
