#include "route/machine_axes.h"

#include <cmath>

namespace datrin::route {

Mat3 machine_axes(const AsHeld& held) {
  Mat3 axes = Mat3::Identity();
  if (held.way.norm() < 1e-9) return axes;
  const Vec3 way = held.way.normalized();
  // What is seen beside it: the drawing's own right (of a lathe its up), made square to the way.
  Vec3 beside = held.lathe ? Vec3::UnitZ() : Vec3::UnitX();
  if (std::abs(beside.dot(way)) > 0.9) beside = Vec3::UnitY();
  beside = (beside - beside.dot(way) * way).normalized();
  if (held.lathe) {
    axes.row(0) = way;
    axes.row(2) = beside;
    axes.row(1) = beside.cross(way);
  } else {
    axes.row(0) = beside;
    axes.row(2) = way;
    axes.row(1) = way.cross(beside);
  }
  return axes;
}

} // namespace datrin::route
