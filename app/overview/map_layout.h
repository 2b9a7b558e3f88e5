#pragma once
// Where the parts of a build stand on its map: parts that mate near each other, none over another. No
// widgets.

#include "build/build.h"

#include <vector>

namespace datrin::app {

inline constexpr double plate_wide = 138, plate_high = 46; ///< of a part on the map

struct MapLink {
  int a = 0, b = 0; ///< parts, by their place in the list
};

struct MapPlace {
  double x = 0, y = 0; ///< middle of the plate
};

/// The same parts and links always give the same map: plates on a grid, exchanged until what mates stands
/// close and no line runs under a plate (simulated annealing from a fixed seed).
std::vector<MapPlace> lay_out_map(int parts, const std::vector<MapLink>& links);

} // namespace datrin::app
