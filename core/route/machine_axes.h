#pragma once
// How a part lies in a machine: the tool from above, or in a lathe from the right.

#include "geometry/pose.h"

namespace datrin::route {

/// `way`: where the tool comes from, out of the part, drawing frame; zero: as it is drawn. `lathe`: gripped
/// at the left, the tool comes from the right.
struct AsHeld {
  Vec3 way = Vec3::Zero();
  bool lathe = false;
};

/// Rows: what is right, away and up at the machine, in the drawing frame. `right` stays as near to the
/// drawing's as it can.
Mat3 machine_axes(const AsHeld& held);

} // namespace datrin::route
