#include "geometry/patch.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>

namespace datrin {

namespace {

constexpr double unknown_extent = 40; ///< mm: where nothing at all says how far a surface goes

/// How far the others reach along `way` from `from`, on both sides: the nearest plane facing that way or its
/// back, and round surfaces lying across.
std::pair<double, double> reach(const std::vector<Patch>& patches, std::size_t self, const Vec3& from,
                                const Vec3& way) {
  double up = 0, down = 0;
  for (std::size_t j = 0; j < patches.size(); ++j) {
    if (j == self) continue;
    const auto& o = patches[j].shape;
    const double along = way.dot(o.point - from), facing = o.direction.dot(way);
    if (!o.round() && std::abs(facing) > 0.9) {
      (facing > 0 ? up : down) = std::max(facing > 0 ? up : down, facing > 0 ? along : -along);
    } else if (o.round() && std::abs(facing) < 0.1) {
      up = std::max(up, along + o.diameter / 2);
      down = std::max(down, -along + o.diameter / 2);
    }
  }
  if (up <= 0) up = down > 0 ? down : unknown_extent / 2;
  if (down <= 0) down = up;
  return {up, down};
}

/// Moves the middle to where it reaches as far both ways, and keeps a cone's size where it was.
void move_middle(Surface& shape, const Vec3& way, double by) {
  shape.point += way * by;
  if (shape.round()) shape.diameter = 2 * radius_at(shape, by);
}

} // namespace

std::vector<Patch> with_extents(std::vector<Patch> patches) {
  for (std::size_t i = 0; i < patches.size(); ++i) {
    auto& p = patches[i];
    const Vec3 at = p.shape.point;
    const auto fill = [&](double& extent, const Vec3& way) {
      if (extent > 0) return;
      const auto [up, down] = reach(patches, i, at, way);
      extent = up + down;
      move_middle(p.shape, way, (up - down) / 2);
    };
    if (p.shape.round()) {
      fill(p.height, p.shape.direction);
    } else {
      const auto [u, v] = patch_directions(p.shape.direction);
      fill(p.width, u);
      fill(p.height, v);
    }
  }
  return patches;
}

std::vector<Vec3> corners(const Patch& p) {
  if (p.shape.round()) {
    const Vec3 side = across(p.shape.direction), along = p.shape.direction * p.height / 2;
    const Vec3 low = side * radius_at(p.shape, -p.height / 2), high = side * radius_at(p.shape, p.height / 2);
    const Vec3& at = p.shape.point;
    return {at - along - low, at + along - high, at + along + high, at - along + low};
  }
  const auto [u, v] = patch_directions(p.shape.direction);
  const Vec3 a = u * p.width / 2, b = v * p.height / 2;
  return {p.shape.point - a - b, p.shape.point + a - b, p.shape.point + a + b, p.shape.point - a + b};
}

bool reaches(const Patch& p, const Vec3& at, double margin) {
  const Chart chart(p.shape);
  const Vec2 c = chart.coordinates(at);
  const bool along = std::abs(c.y()) <= p.height / 2 - margin;
  return along && (chart.closes() || std::abs(c.x()) <= p.width / 2 - margin);
}

double beyond_edge(const Patch& p, const Vec3& at) {
  return Edges(p).beyond(at);
}

Edges::Edges(const Patch& p)
    : shape_(p.shape), half_width_(p.width > 0 && !p.shape.round() ? p.width / 2 : 1e300),
      half_height_(p.height > 0 ? p.height / 2 : 1e300) {
  if (p.shape.round()) {
    height_ = p.shape.direction;
    lean_ =
        p.shape.half_angle == 0 ? 0 : stock_direction(p.shape, p.shape.point + across(height_)).dot(height_);
  } else {
    const auto directions = patch_directions(p.shape.direction);
    width_ = directions.width;
    height_ = directions.height;
  }
}

double largest_radius(const Patch& p) {
  return std::max(radius_at(p.shape, -p.height / 2), radius_at(p.shape, p.height / 2));
}

void Box::take(const Vec3& at) {
  low = low.cwiseMin(at);
  high = high.cwiseMax(at);
}

Box box_of(const std::vector<Patch>& patches) {
  Box box;
  for (const auto& p : patches) {
    if (!p.shape.round()) {
      for (const auto& corner : corners(p)) box.take(corner);
      continue;
    }
    // A circle about a direction a reaches √(1 − a²) of its radius along each axis.
    const Vec3 across_axis = (Vec3::Ones() - p.shape.direction.cwiseAbs2()).cwiseMax(0).cwiseSqrt();
    for (const double end : {-p.height / 2, p.height / 2}) {
      const Vec3 middle = p.shape.point + p.shape.direction * end;
      box.take(middle - across_axis * radius_at(p.shape, end));
      box.take(middle + across_axis * radius_at(p.shape, end));
    }
  }
  return box;
}

} // namespace datrin
