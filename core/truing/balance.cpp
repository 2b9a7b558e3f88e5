#include "truing/balance.h"

#include <cmath>
#include <numbers>

namespace datrin::truing {

Balance balance(const BalanceInput& in) {
  Balance out;
  out.status = BalanceStatus::refused;
  if (!(in.crank_radius > 0) || !(in.radius > 0)) {
    out.message = "crank radius and radius of the weight must be above 0";
    return out;
  }
  if (in.rotating < 0 || in.reciprocating < 0 || in.factor < 0 || in.factor > 1) {
    out.message = "masses must not be below 0; the factor is from 0 to 1";
    return out;
  }
  if (in.thick < 0 || !(in.density > 0)) {
    out.message = "thickness must not be below 0, the density above 0";
    return out;
  }
  out.status = BalanceStatus::found;
  out.mass = (in.rotating + in.factor * in.reciprocating) * in.crank_radius / in.radius;
  out.left_along = (1 - in.factor) * in.reciprocating * in.crank_radius;
  out.left_across = in.factor * in.reciprocating * in.crank_radius;
  constexpr double mm3_per_cm3 = 1000;
  if (in.thick > 0)
    out.hole = std::sqrt(4 * out.mass * mm3_per_cm3 / (std::numbers::pi * in.density * in.thick));
  return out;
}

} // namespace datrin::truing
