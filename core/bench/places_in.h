#pragma once
// Places as they are typed into a sum: "0,0 10,0 10,10", x and y of each. mm.

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::bench {

/// Bare numbers in `unit`. Empty, and `why` what is wrong, where one is no place.
std::vector<Vec2> places_in(const std::string& text, Unit unit, std::string& why);

} // namespace datrin::bench
