#include "solid/sweep.h"

#include "geometry/surface.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace datrin::solid {

namespace {

struct Corner {
  Vec2 across;
  double up = 0;
};

/// What of a triangle lies at `floor` or above, by Sutherland and Hodgman: at most four corners.
struct Clipped {
  std::array<Corner, 4> at;
  int count = 0;
};

Clipped above(const std::array<Corner, 3>& triangle, double floor) {
  Clipped out;
  for (std::size_t k = 0; k < 3; ++k) {
    const auto &a = triangle[k], &b = triangle[(k + 1) % 3];
    if (a.up >= floor) out.at[static_cast<std::size_t>(out.count++)] = a;
    if ((a.up >= floor) != (b.up >= floor)) {
      const double t = (floor - a.up) / (b.up - a.up);
      out.at[static_cast<std::size_t>(out.count++)] = {a.across + t * (b.across - a.across), floor};
    }
  }
  return out;
}

/// Distance of the origin to a convex polygon in the plane; 0 inside it.
double distance_to(const Clipped& polygon) {
  double least = 1e300;
  bool left = true, right = true;
  for (int k = 0; k < polygon.count; ++k) {
    const Vec2& a = polygon.at[static_cast<std::size_t>(k)].across;
    const Vec2& b = polygon.at[static_cast<std::size_t>((k + 1) % polygon.count)].across;
    const Vec2 edge = b - a;
    const double length = edge.squaredNorm();
    const double t = length > 0 ? std::clamp(-a.dot(edge) / length, 0.0, 1.0) : 0.0;
    least = std::min(least, (a + t * edge).norm());
    const double turn = a.x() * b.y() - a.y() * b.x();
    left = left && turn >= 0;
    right = right && turn <= 0;
  }
  return (left || right) && polygon.count > 2 && least > 0 ? (left && right ? least : 0.0) : least;
}

} // namespace

SweepHit sweep(const Mesh& mesh, const SweptTool& tool, const SweepOptions& options) {
  SweepHit hit;
  const Vec3 way = tool.way.normalized();
  const auto [u, v] = patch_directions(way);
  std::vector<Corner> corners;
  corners.reserve(mesh.at.size());
  for (const auto& at : mesh.at) {
    const Vec3 off = Vec3(at[0], at[1], at[2]) - tool.tip;
    corners.push_back({{off.dot(u), off.dot(v)}, off.dot(way)});
  }
  double widest = 0;
  for (const auto& step : tool.steps) widest = std::max(widest, step.radius);
  for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
    const auto& triangle = mesh.triangles[t];
    const std::array<Corner, 3> own{corners[triangle[0]], corners[triangle[1]], corners[triangle[2]]};
    const double top = std::max({own[0].up, own[1].up, own[2].up});
    const auto beyond = [&](int axis) { // all of it to one side of the widest step
      return (own[0].across[axis] > widest && own[1].across[axis] > widest && own[2].across[axis] > widest) ||
             (own[0].across[axis] < -widest && own[1].across[axis] < -widest &&
              own[2].across[axis] < -widest);
    };
    if (beyond(0) || beyond(1)) continue;
    for (std::size_t k = 0; k < tool.steps.size(); ++k) {
      const auto& step = tool.steps[k];
      const double floor = step.from + options.touching, radius = step.radius - options.touching;
      if (radius <= 0 || top <= floor || top - step.from <= hit.into) continue;
      const auto polygon = above(own, floor);
      if (polygon.count == 0 || distance_to(polygon) >= radius) continue;
      // How high what lies within the radius reaches: the highest corner within it, else at least the floor.
      double reaches = floor;
      for (int c = 0; c < polygon.count; ++c) {
        const auto& corner = polygon.at[static_cast<std::size_t>(c)];
        if (corner.across.norm() < radius) reaches = std::max(reaches, corner.up);
      }
      if (reaches <= floor) reaches = top; // only its middle is: told by its highest corner
      if (reaches - step.from <= hit.into) continue;
      hit.step = static_cast<int>(k);
      hit.into = reaches - step.from;
      hit.face = t < mesh.face.size() ? static_cast<int>(mesh.face[t]) : -1;
      Vec3 middle = Vec3::Zero();
      for (const auto corner : triangle)
        middle += Vec3(mesh.at[corner][0], mesh.at[corner][1], mesh.at[corner][2]) / 3;
      hit.at = middle;
    }
  }
  return hit;
}

} // namespace datrin::solid
