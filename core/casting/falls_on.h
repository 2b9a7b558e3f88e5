#pragma once
// Which surface a touch falls on, when nobody said: the one nearest to it, within its edges, that the tip
// could have met.

#include "casting/survey.h"

#include <string>
#include <vector>

namespace datrin::casting {

struct FallsOn {
  build::Id surface = 0; ///< 0: none is near enough
  double off = 0;        ///< mm of metal there
  build::Id next = 0;    ///< the second nearest, where it is about as near; 0: there is none
  std::string words;     ///< "on foot", or why none
};

struct FallsOnOptions {
  double reach = 6;    ///< mm off a surface that can still be it: the metal on a casting and a rough seat
  double doubtful = 1; ///< mm: another so little further off may be it as well
};

/// `at`: mm, survey frame, the place touched (tip radius taken off); `toward`: the way the tip went, zero:
/// not stated. `pose`: survey → drawing frame.
FallsOn falls_on(const build::Build& build, build::Id part, const Pose& pose, const Vec3& at,
                 const Vec3& toward, const FallsOnOptions& options = {});

} // namespace datrin::casting
