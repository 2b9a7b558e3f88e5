#pragma once
// In which order to go to places with little travel between them. mm.

#include "geometry/surface.h"

#include <cstddef>
#include <vector>

namespace datrin::cutting {

struct TravelOrder {
  std::vector<std::size_t> order; ///< places, by their number from 0
  double travel = 0;              ///< from the first to the last
  bool shortest = false; ///< no order is shorter; else none found by turning a stretch round or taking up to
                         ///< three places elsewhere is
};

/// Up to a dozen places the shortest order there is; of more, from the one nearest to 0 always to the nearest
/// left, then improved until nothing helps. It begins at the end nearer to 0.
TravelOrder travel_order(const std::vector<Vec2>& places);

} // namespace datrin::cutting
