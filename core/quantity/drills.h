#pragma once
// Number and letter drills, from data/drills.csv.

#include <optional>
#include <string_view>

namespace datrin {

/// Diameter in mm of a drill named "1" to "80" or "A" to "Z" (either case); nothing for any other name.
std::optional<double> drill_diameter(std::string_view name);

} // namespace datrin
