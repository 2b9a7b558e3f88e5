#pragma once
// Which touches hold a seat where it is, and with what shares: the prices of the search's first level,
// balanced anew where the part has come to rest.

#include "casting/seat.h"
#include "casting/seat_groups.h"
#include "casting/seat_polish.h"

#include <array>
#include <vector>

namespace datrin::casting {

/// `pressed` are the touches that pressed at the first level with their prices; turns are counted about
/// `centre` by `size`. Shares sum to 1, largest first.
std::vector<HeldBy> balanced_holds(const SeatInput& input, const std::vector<Group>& groups,
                                   const std::vector<PressingRow>& pressed, const Pose& pose,
                                   const Vec3& centre, double size, const std::array<bool, 6>& locked);

} // namespace datrin::casting
