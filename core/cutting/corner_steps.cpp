#include "cutting/corner_steps.h"

#include "quantity/refused.h"

#include "quantity/unit.h"

#include <cmath>

namespace datrin::cutting {

namespace {

/// What stays between two places of a cutter of half-width `r`, its middle on a circle of `round`, `apart`
/// apart.
double proud_between(double radius, double round, double r, double apart, bool inside) {
  const double half = apart / 2, across = round * std::sin(half);
  if (across >= r) return radius; // they do not even meet
  const double along = std::sqrt(r * r - across * across);
  return inside ? radius - (round * std::cos(half) + along) : round * std::cos(half) - along - radius;
}

} // namespace

CornerSteps corner_steps(const CornerInput& in) {
  CornerSteps out;
  constexpr int most = 200;
  if (!(in.radius > 0) || !(in.cutter > 0) || !std::isfinite(in.radius) || !std::isfinite(in.cutter) ||
      in.steps < 0 || in.steps > most || !(in.proud > 0 || in.steps > 0)) {
    return refused_as<CornerSteps>("radius and cutter must be above 0, steps from 1 to 200");
  }
  const double r = in.cutter / 2;
  if (in.inside && r >= in.radius) {
    return refused_as<CornerSteps>(
        "the cutter is as round as the corner, or rounder: it leaves its own corner");
  }
  const double round = in.inside ? in.radius - r : in.radius + r;
  int steps = in.steps > 0 ? in.steps : 1;
  const auto proud = [&](int n) { return proud_between(in.radius, round, r, pi / 2 / n, in.inside); };
  while (in.steps == 0 && steps < most && proud(steps) > in.proud) ++steps;
  out.proud = proud(steps);
  for (int k = 0; k <= steps; ++k) {
    const double at = pi / 2 * k / steps;
    out.middles.emplace_back(round * std::cos(at) - in.radius, round * std::sin(at) - in.radius);
  }
  out.status = CornerStatus::found;
  return out;
}

std::vector<Stair> rounded_edge_stairs(double radius, double step, std::size_t most) {
  std::vector<Stair> stairs;
  if (!(radius > 0) || !(step > 0) || radius / step > static_cast<double>(most)) return stairs;
  for (double deep = 0; deep < radius - step * 1e-6; deep += step) {
    const double up = radius - deep;
    stairs.push_back({deep, radius - std::sqrt(radius * radius - up * up)});
  }
  stairs.push_back({radius, 0});
  return stairs;
}

} // namespace datrin::cutting
