#pragma once
// How a piece of bar, plate, block or tube stands on the surface plate as it is now: where its underside and
// its top lie, by its stock, what was read across it and the cuts it has had.

#include "build/build.h"
#include "quantity/reckoning.h"

#include <string>
#include <vector>

namespace datrin::allowance {

struct Standing {
  std::string wrong;        ///< why it is not known; empty: it is
  double low = 0, high = 0; ///< mm along `up`, drawing frame
  Reckoning low_sum, high_sum;
  std::vector<Vec3> outline; ///< of the stock, drawing frame: places it is the hull of
};

/// `up`: unit, drawing frame. A face that looks down (up) and is no shoulder says where it stands by the
/// metal over it as it is now; where none does, the stock's own outside.
Standing standing(const build::Build& build, build::Id piece, const Vec3& up);

} // namespace datrin::allowance
