#pragma once
// How far a mill's table and head must go for what is cut in a setup. mm.

#include "build/build.h"

namespace datrin::route {

struct WantedTravel {
  double along = 0, across = 0; ///< the longer and the shorter way of the table: the part may lie either way
  double up = 0;                ///< along the tool
};

/// Over every face that is faced or milled, the cutter's radius past its edges; over every hole from its
/// mouth to its bottom. `way`: where the tool comes from, out of the part. All 0: nothing is cut on a table
/// there.
WantedTravel wanted_travel(const build::Build& build, build::Id part, build::Id setup, const Vec3& way);

} // namespace datrin::route
