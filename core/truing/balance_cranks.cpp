#include "truing/balance_cranks.h"

#include "quantity/refused.h"

#include "quantity/unit.h"

#include <algorithm>
#include <cmath>

namespace datrin::truing {

BalanceCranks balance_cranks(const BalanceCranksInput& in) {
  BalanceCranks out;
  const double apart = in.far_plane - in.near_plane;
  if (in.cranks.empty() || !(in.crank_radius > 0) || !(in.radius > 0) || !(in.rotating >= 0) ||
      !(in.reciprocating >= 0) || !(in.factor >= 0 && in.factor <= 1) || std::abs(apart) < 1e-9) {
    return refused_as<BalanceCranks>(
        "radii must be above 0, masses not below, the factor from 0 to 1, the two planes apart");
  }
  const double mass = in.rotating + in.factor * in.reciprocating;
  Vec2 near = Vec2::Zero(), far = Vec2::Zero();
  for (const auto& crank : in.cranks) {
    const Vec2 throws = mass * in.crank_radius * Vec2(std::cos(crank.angle), std::sin(crank.angle));
    const double share = (crank.at - in.near_plane) / apart; // of the far plane
    near -= (1 - share) * throws;
    far -= share * throws;
  }
  const auto turned = [](const Vec2& v) {
    const double a = std::atan2(v.y(), v.x());
    return v.norm() < 1e-9 ? 0 : a < 0 ? a + 2 * pi : a;
  };
  out.near_mass = near.norm() / in.radius;
  out.far_mass = far.norm() / in.radius;
  out.near_angle = turned(near);
  out.far_angle = turned(far);
  // Along the bore: the part of the reciprocating that is not balanced, of all cranks together, as they turn.
  const double left = (1 - in.factor) * in.reciprocating * in.crank_radius;
  const double middle = (in.near_plane + in.far_plane) / 2;
  Vec2 force = Vec2::Zero(), couple = Vec2::Zero();
  for (const auto& crank : in.cranks) {
    const Vec2 way(std::cos(crank.angle), std::sin(crank.angle));
    force += left * way;
    couple += left * (crank.at - middle) * way;
  }
  out.force_left = force.norm();
  out.couple_left = couple.norm();
  out.status = BalanceCranksStatus::found;
  return out;
}

} // namespace datrin::truing
