#include "geometry/touched_edges.h"

#include "quantity/refused.h"

#include "quantity/unit.h"

#include <algorithm>
#include <cmath>

namespace datrin {

namespace {

struct Edge {
  Vec2 at, along;
};

Edge edge_of(const std::array<Vec2, 2>& touches, const std::array<Vec2, 2>& metal, double finder) {
  const Vec2 along = (touches[1] - touches[0]).normalized();
  Vec2 in(-along.y(), along.x());
  if (in.dot((metal[0] + metal[1]) / 2 - touches[0]) < 0) in = -in;
  return {touches[0] + finder / 2 * in, along};
}

double lies_at(const Vec2& along) {
  double turn = std::atan2(along.y(), along.x());
  if (turn > pi / 2) turn -= pi;
  if (turn <= -pi / 2) turn += pi;
  return turn;
}

} // namespace

TouchedEdges touched_edges(const TouchedEdgesInput& in) {
  const auto real = [](const std::array<Vec2, 2>& two) { return two[0].allFinite() && two[1].allFinite(); };
  if (!(in.finder >= 0) || !std::isfinite(in.finder) || !real(in.one) || !real(in.other))
    return refused_as<TouchedEdges>("touches and finder must be numbers, the finder not below 0");
  constexpr double one_place = 1e-9;
  if ((in.one[1] - in.one[0]).norm() < one_place || (in.other[1] - in.other[0]).norm() < one_place)
    return refused_as<TouchedEdges>("the two touches of an edge are one place");
  const auto a = edge_of(in.one, in.other, in.finder), b = edge_of(in.other, in.one, in.finder);
  const double cross = a.along.x() * b.along.y() - a.along.y() * b.along.x();
  constexpr double parallel = 0.02; // about a degree
  if (std::abs(cross) < parallel)
    return refused_as<TouchedEdges>("the two edges are parallel: they make no corner");
  const Vec2 gap = b.at - a.at;
  TouchedEdges out;
  out.status = TouchedEdgesStatus::found;
  out.corner = a.at + (gap.x() * b.along.y() - gap.y() * b.along.x()) / cross * a.along;
  out.one_at = lies_at(a.along);
  out.other_at = lies_at(b.along);
  // The metal's own corner: from where they meet towards the touches.
  const auto towards = [&](const Edge& edge, const std::array<Vec2, 2>& touches) {
    return (touches[0] + touches[1] - 2 * out.corner).dot(edge.along) < 0 ? Vec2(-edge.along) : edge.along;
  };
  out.between = std::acos(std::clamp(towards(a, in.one).dot(towards(b, in.other)), -1.0, 1.0));
  return out;
}

} // namespace datrin
