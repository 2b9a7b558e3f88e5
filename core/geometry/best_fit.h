#pragma once
// Least-squares fits: for drawing a rough surface through its touches (the seat works with the touches
// themselves), for the middle of something round that is touched at places round it.

#include "geometry/surface.h"

#include <optional>
#include <vector>

namespace datrin {

struct Line2 {
  Vec2 point = Vec2::Zero();      ///< the mean of the points
  Vec2 direction = Vec2::UnitX(); ///< unit length
};

struct Circle2 {
  Vec2 centre = Vec2::Zero();
  double radius = 0;
};

/// The line of least squared distances; nothing for fewer than two distinct points.
std::optional<Line2> fit_line(const std::vector<Vec2>& points);

/// The circle of least squared distances (algebraic start after Kåsa, then Gauss–Newton on the distances);
/// nothing for fewer than three points or points on one line.
std::optional<Circle2> fit_circle(const std::vector<Vec2>& points);

} // namespace datrin
