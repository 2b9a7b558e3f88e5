#include "dividing/clock_teeth.h"

#include "quantity/refused.h"

#include "quantity/unit.h"

#include <cmath>

namespace datrin::dividing {

namespace {

/// Modules: how far outside the pitch circle the epicycloids of both flanks of a tooth meet. All in radii of
/// the rolling circle, a quarter of the leaves in modules.
double point_of(int wheel, int pinion) {
  const double pitch = 2.0 * wheel / pinion, centre = 1 + pitch;
  double roll = pi / pinion;
  constexpr int rounds = 200;
  for (int k = 0; k < rounds; ++k) {
    const double back = std::atan2(std::sin(roll), centre - std::cos(roll));
    const double next = pi / pinion + pitch * back;
    if (std::abs(next - roll) < 1e-14) break;
    roll = next;
  }
  const double out = std::sqrt(1 + centre * centre - 2 * centre * std::cos(roll));
  return pinion / 4.0 * (out - pitch);
}

} // namespace

ClockTeeth clock_teeth(const ClockTeethInput& in) {
  ClockTeeth out;
  if (in.wheel < in.pinion || in.wheel > 400 || in.pinion < 6 || in.pinion > 40 || !(in.module > 0) ||
      !std::isfinite(in.module)) {
    return refused_as<ClockTeeth>(
        "a wheel has up to 400 teeth and no fewer than its pinion, a pinion 6 to 40 leaves; the "
        "module is above 0");
  }
  constexpr double cut = 0.95, tip_round = 1.40; // of the point; of the addendum
  out.point = point_of(in.wheel, in.pinion);
  out.addendum = cut * out.point;
  const double m = in.module, wheel_dedendum = pi / 2;
  out.wheel_outside = m * (in.wheel + 2 * out.addendum);
  out.wheel_root = m * (in.wheel - 2 * wheel_dedendum);
  out.wheel_depth = m * (out.addendum + wheel_dedendum);
  out.wheel_round = m * tip_round * out.addendum;
  // Leaves: the fewer, the higher their tips, so that they are led from before the line of centres as little
  // as can be.
  const double leaf = in.pinion <= 7 ? 0.855 : in.pinion <= 9 ? 0.67 : in.pinion <= 10 ? 0.525 : 0.625;
  out.leaf_thick =
      m * (in.pinion <= 10 ? 1.05 : 1.25); // so much less than the tooth's half pitch: that is its play
  constexpr double room = 0.4;
  out.pinion_outside = m * (in.pinion + 2 * leaf);
  out.pinion_root = m * (in.pinion - 2 * (out.addendum + room));
  out.centres = m * (in.wheel + in.pinion) / 2;
  out.status = ClockTeethStatus::found;
  return out;
}

} // namespace datrin::dividing
