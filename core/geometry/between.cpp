#include "geometry/between.h"

#include <Eigen/Geometry>

#include <cmath>

namespace datrin {

namespace {

Vec3 one_sign(Vec3 n) {
  Eigen::Index axis = 0;
  n.cwiseAbs().maxCoeff(&axis);
  return n[axis] < 0 ? Vec3(-n) : n;
}

} // namespace

std::optional<Between> between(const Surface& from, const Surface& to, double parallel_within) {
  const Vec3 apart = to.point - from.point;
  if (from.round() && to.round()) {
    if (from.direction.cross(to.direction).norm() > parallel_within) return std::nullopt;
    const Vec3 off = apart - apart.dot(from.direction) * from.direction;
    if (off.norm() < 1e-9) return std::nullopt;
    const Vec3 n = one_sign(off.normalized());
    return Between{n, apart.dot(n)};
  }
  const auto& plane = from.round() ? to : from;
  const auto& other = from.round() ? from : to;
  const double off_parallel = other.round() ? std::abs(other.direction.dot(plane.direction))
                                            : other.direction.cross(plane.direction).norm();
  if (off_parallel > parallel_within) return std::nullopt;
  const Vec3 n = one_sign(plane.direction);
  return Between{n, apart.dot(n)};
}

double along_per_distance(const Surface& from, const Surface& to, const Vec3& way) {
  constexpr double least_cosine = 0.05; // a plane nearly along the way does not measure it
  if (!from.round() || !to.round()) {
    const double cosine = std::abs((from.round() ? to : from).direction.dot(way));
    return cosine < least_cosine ? 0 : 1 / cosine;
  }
  // Between two axes: the shortest way between them.
  Vec3 apart = to.point - from.point;
  apart -= apart.dot(from.direction) * from.direction;
  const double length = apart.norm();
  return length < 1e-9 ? 0 : std::abs(apart.dot(way)) / length;
}

bool faces(const Surface& surface, const Vec3& way, double cosine) {
  return !surface.round() && surface.direction.dot(way) > cosine;
}

bool places_along(const Surface& surface, const Vec3& way) {
  const double along = surface.direction.dot(way);
  return surface.round() ? std::abs(along) < 0.5 : along > 0.7;
}

bool lies_level(const Surface& surface, const Vec3& up, double within) {
  return surface.round() ? std::abs(surface.direction.dot(up)) < within
                         : surface.direction.cross(up).norm() < within;
}

bool has_centre_line(SurfaceKind kind) {
  return is_round(kind);
}

double seen_area(const Patch& patch) {
  return (patch.shape.round() ? patch.shape.diameter : patch.width) * patch.height;
}

} // namespace datrin
