#pragma once
// Directions as people write them: "+x", "-z", or three numbers "0.6 0 0.8".

#include "geometry/pose.h"

#include <optional>
#include <string>
#include <string_view>

namespace datrin {

/// Unit vector that `text` states; nothing when it is neither a plain axis nor three numbers that are not all
/// 0. Numbers are separated by blanks, commas or semicolons and have a decimal point.
std::optional<Vec3> parse_direction(std::string_view text);

/// "+x" for a plain axis, else three numbers with four decimals.
std::string direction_text(const Vec3& direction);

} // namespace datrin
