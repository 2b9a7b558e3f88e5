#pragma once
// In which order to go to places with little travel between them. mm.

#include "geometry/surface.h"

#include <cstddef>
#include <vector>

namespace datrin::cutting {

/// The order in which places are gone to with little travel: from the one nearest to 0 always to the nearest
/// left, then turned round wherever that is shorter. `travel`: mm from the first to the last.
std::vector<std::size_t> travel_order(const std::vector<Vec2>& places, double* travel = nullptr);

} // namespace datrin::cutting
