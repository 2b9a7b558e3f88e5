#pragma once
// Where the figures of a seat came from, as sums.

#include "casting/seat_input.h"
#include "quantity/reckoning.h"

#include <string>

namespace datrin::casting {

/// "bore"; of a wall "wall at boss", or "wall boss to bore" where several begin at that boss.
std::string group_name(const SeatInput& input, const GroupMargin& group);

/// Stock at the worst touch, less what is needed, less the touch's uncertainty. No lines when nothing was
/// touched.
Reckoning explain_margin(const SeatInput& input, const GroupMargin& group);

} // namespace datrin::casting
