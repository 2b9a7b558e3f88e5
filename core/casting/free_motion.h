#pragma once
// Motions of the part that the touches leave free, named as a person would: "moving along z", "turning about
// y".

#include "geometry/pose.h"

#include <string>
#include <vector>

namespace datrin::casting {

using Vec6 = Eigen::Matrix<double, 6, 1>;
/// Motions or rates, one a column: three components of moving, three of turning.
using Columns6 = Eigen::Matrix<double, 6, Eigen::Dynamic>;
/// At most six of them: a basis of motions. (The bound lets products be worked out without the machinery for
/// large matrices.)
using Motions = Eigen::Matrix<double, 6, Eigen::Dynamic, Eigen::ColMajor, 6, 6>;

struct FreeMotion {
  bool turning = false;           ///< else moving
  Vec3 direction = Vec3::UnitZ(); ///< of travel, or of the axis turned about (drawing frame, unit length)
  bool one_way = false;           ///< limited on one side by a touch, on the other by none

  /// "moving along z", "turning about y", "moving along (0.60, 0.00, 0.80)".
  std::string name() const;
};

/// Names a basis of the free motions. Each column of `free` is a twist (travel of a reference point in mm;
/// turn about it in radians times `size`), the columns independent. Plain motions along and about x, y, z are
/// named first.
std::vector<FreeMotion> name_motions(const Motions& free, double size);

/// The plain motions that no row opposes on one side: for each of x, y, z moving and turning, the motion is
/// named when every column g of `rows` (margin change per unit of twist) has g·e ≥ 0, or every one ≤ 0, and
/// some differ from 0.
std::vector<FreeMotion> one_way_motions(const Columns6& rows);

} // namespace datrin::casting
