#include "truing/three_jaw.h"

#include <algorithm>
#include <cmath>

namespace datrin::truing {

ThreeJaw three_jaw_packing(const ThreeJawInput& in) {
  ThreeJaw out;
  out.status = ThreeJawStatus::refused;
  if (!(in.bar > 0) || !std::isfinite(in.bar)) {
    out.message = "the bar must be above 0";
    return out;
  }
  if (!(in.throw_ >= 0) || !(in.jaw >= 0)) {
    out.message = "throw and width of the jaws must not be below 0";
    return out;
  }
  const double r = in.bar / 2, e = in.throw_;
  const double beside = std::max(0.0, e * std::sqrt(3.0) / 2 - in.jaw / 2);
  if (beside >= r) {
    out.message = "so far over the other two jaws do not touch the bar: use the four-jaw or a fixture";
    return out;
  }
  out.status = ThreeJawStatus::found;
  out.packing = 1.5 * e - r + std::sqrt(r * r - beside * beside);
  out.rule_error = 1.5 * e - out.packing;
  return out;
}

} // namespace datrin::truing
