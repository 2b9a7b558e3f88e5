#include "casting/seat_groups.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace datrin::casting {
namespace {

Group empty_group(const SeatInput& input, int surface, int wall) {
  Group group;
  group.surface = surface;
  group.wall = wall;
  const auto target = wall < 0 ? surface : input.walls[static_cast<std::size_t>(wall)].to;
  group.target = input.surfaces[static_cast<std::size_t>(target)].shape;
  group.sign = group.target.kind == SurfaceKind::bore ? -1.0 : 1.0;
  if (wall >= 0) group.sign = -group.sign;
  return group;
}

/// Where `at` lies on the surface: along two directions of a plane, or angle (scaled to length) and depth.
Eigen::Vector2d on_surface(const Surface& surface, const Vec3& u, const Vec3& v, const Vec3& at) {
  const Vec3 e = at - surface.point;
  if (!surface.round()) return {e.dot(u), e.dot(v)};
  return {std::atan2(e.dot(v), e.dot(u)), e.dot(surface.direction)};
}

} // namespace

std::vector<Group> make_groups(const SeatInput& input) {
  std::vector<Group> all;
  std::vector<std::vector<std::size_t>> groups_of(input.surfaces.size());
  for (std::size_t i = 0; i < input.surfaces.size(); ++i)
    if (input.surfaces[i].machined) {
      groups_of[i].push_back(all.size());
      all.push_back(empty_group(input, static_cast<int>(i), -1));
    }
  for (std::size_t w = 0; w < input.walls.size(); ++w) {
    groups_of[static_cast<std::size_t>(input.walls[w].from)].push_back(all.size());
    all.push_back(empty_group(input, input.walls[w].from, static_cast<int>(w)));
  }
  for (std::size_t i = 0; i < input.points.size(); ++i)
    for (const auto g : groups_of[static_cast<std::size_t>(input.points[i].surface)])
      all[g].point.push_back(static_cast<int>(i));

  std::vector<Group> groups;
  for (auto& group : all) {
    const auto n = group.size();
    if (n == 0) continue;
    group.x.resize(n);
    group.y.resize(n);
    group.z.resize(n);
    group.allowance.resize(n);
    const auto& touched = input.surfaces[static_cast<std::size_t>(group.surface)];
    const double required = group.wall < 0 ? touched.required + touched.favour
                                           : input.walls[static_cast<std::size_t>(group.wall)].least;
    for (int k = 0; k < n; ++k) {
      const auto& p = input.points[static_cast<std::size_t>(group.point[static_cast<std::size_t>(k)])];
      group.x[k] = p.xyz.x();
      group.y[k] = p.xyz.y();
      group.z[k] = p.xyz.z();
      group.allowance[k] = required + p.uncertainty;
    }
    group.bucket_start = {0, n};
    groups.push_back(std::move(group));
  }
  return groups;
}

void sort_into_buckets(std::vector<Group>& groups, const Pose& pose) {
  for (auto& group : groups) {
    const int n = group.size();
    const bool round = group.target.round();
    const int along = round ? (n >= 64 ? 8 : 4) : (n >= 64 ? 4 : 2);
    const int over = round ? 2 : along;
    const Vec3 u = across(group.target.direction), v = group.target.direction.cross(u);
    std::vector<Eigen::Vector2d> where(static_cast<std::size_t>(n));
    Eigen::Vector2d low = Eigen::Vector2d::Constant(no_margin), high = -low;
    for (int k = 0; k < n; ++k) {
      auto& w = where[static_cast<std::size_t>(k)];
      w = on_surface(group.target, u, v, pose.apply({group.x[k], group.y[k], group.z[k]}));
      low = low.cwiseMin(w);
      high = high.cwiseMax(w);
    }
    const Eigen::Vector2d span = (high - low).cwiseMax(1e-9);
    std::vector<int> bucket(static_cast<std::size_t>(n));
    std::vector<int> start(static_cast<std::size_t>(along * over) + 1, 0);
    for (int k = 0; k < n; ++k) {
      const Eigen::Vector2d f = (where[static_cast<std::size_t>(k)] - low).cwiseQuotient(span);
      const int i = std::min(along - 1, static_cast<int>(f.x() * along));
      const int j = std::min(over - 1, static_cast<int>(f.y() * over));
      bucket[static_cast<std::size_t>(k)] = i * over + j;
      ++start[static_cast<std::size_t>(bucket[static_cast<std::size_t>(k)]) + 1];
    }
    std::partial_sum(start.begin(), start.end(), start.begin());

    Group sorted = group;
    auto next = start;
    for (int k = 0; k < n; ++k) {
      const int to = next[static_cast<std::size_t>(bucket[static_cast<std::size_t>(k)])]++;
      sorted.x[to] = group.x[k];
      sorted.y[to] = group.y[k];
      sorted.z[to] = group.z[k];
      sorted.allowance[to] = group.allowance[k];
      sorted.point[static_cast<std::size_t>(to)] = group.point[static_cast<std::size_t>(k)];
    }
    sorted.bucket_start.assign(1, 0);
    for (std::size_t b = 1; b < start.size(); ++b)
      if (start[b] > sorted.bucket_start.back()) sorted.bucket_start.push_back(start[b]);
    group = std::move(sorted);
  }
}

void sweep(const std::vector<Group>& groups, const Pose& pose, Sweep& result) {
  constexpr int chunk = 1024;
  Eigen::ArrayXd buffer(chunk);
  result.group_margin.assign(groups.size(), no_margin);
  result.worst.resize(groups.size());
  for (std::size_t g = 0; g < groups.size(); ++g) {
    const auto& group = groups[g];
    auto& worst = result.worst[g];
    worst.assign(static_cast<std::size_t>(group.buckets()), {});
    // The finished surface taken into the survey frame, so that the touches need no transforming.
    const Vec3 a = pose.rotation.transpose() * group.target.direction;
    const Vec3 p = pose.rotation.transpose() * (group.target.point - pose.translation);
    const double radius = group.target.diameter / 2;
    for (int b = 0; b < group.buckets(); ++b) {
      auto& w = worst[static_cast<std::size_t>(b)];
      const int stop = group.bucket_start[static_cast<std::size_t>(b) + 1];
      for (int k = group.bucket_start[static_cast<std::size_t>(b)]; k < stop; k += chunk) {
        const int n = std::min(chunk, stop - k);
        const auto x = group.x.segment(k, n), y = group.y.segment(k, n), z = group.z.segment(k, n);
        auto margin = buffer.head(n);
        if (group.target.round()) {
          margin = (x - p.x()) * a.x() + (y - p.y()) * a.y() + (z - p.z()) * a.z();
          margin = ((x - p.x() - margin * a.x()).square() + (y - p.y() - margin * a.y()).square() +
                    (z - p.z() - margin * a.z()).square())
                       .sqrt();
          margin = group.sign * (margin - radius) - group.allowance.segment(k, n);
        } else {
          margin = group.sign * ((x - p.x()) * a.x() + (y - p.y()) * a.y() + (z - p.z()) * a.z()) -
                   group.allowance.segment(k, n);
        }
        if (const double least = margin.minCoeff(); least < w.margin) {
          Eigen::Index at = 0;
          margin.minCoeff(&at);
          w.margin = least;
          w.row = {static_cast<int>(g), k + static_cast<int>(at)};
        }
      }
      result.group_margin[g] = std::min(result.group_margin[g], w.margin);
    }
  }
}

RowGradient row_gradient(const Group& group, int at, const Pose& pose, const Vec3& centre, double size) {
  const Vec3 x = pose.apply({group.x[at], group.y[at], group.z[at]});
  // stock_direction is the way stock grows; a wall is stock counted the other way.
  const double way = group.wall < 0 ? 1.0 : -1.0;
  const Vec3 direction = way * stock_direction(group.target, x);
  RowGradient row;
  row.margin = way * stock_at(group.target, x) - group.allowance[at];
  row.rate << direction, (x - centre).cross(direction) / size;
  return row;
}

Eigen::Matrix<double, 6, 6> row_curvature(const Group& group, int at, const Pose& pose, const Vec3& centre,
                                          double size) {
  // x(y) = r + w×r + w×(w×r)/2 + … with r = x − centre and w the turn: the last term bends every margin a
  // little; a round surface bends more, by 1 / (distance to the axis) across the line from axis to touch.
  const Vec3 x = pose.apply({group.x[at], group.y[at], group.z[at]});
  const Vec3 r = x - centre;
  const double way = group.wall < 0 ? 1.0 : -1.0;
  const Vec3 n = way * stock_direction(group.target, x);
  Eigen::Matrix<double, 6, 6> curvature = Eigen::Matrix<double, 6, 6>::Zero();
  curvature.bottomRightCorner<3, 3>() =
      (0.5 * (n * r.transpose() + r * n.transpose()) - n.dot(r) * Mat3::Identity()) / (size * size);
  if (!group.target.round()) return curvature;
  const Vec3& a = group.target.direction;
  const Vec3 e = x - group.target.point;
  const Vec3 across_axis = e - a * a.dot(e);
  const double distance = std::max(across_axis.norm(), 1e-9);
  const Vec3 tangent = a.cross(across_axis / distance);
  // Along the tangent the distance to the axis grows as d²/2ρ: stock of a bore falls by it, of a boss rises.
  Eigen::Matrix<double, 6, 1> along;
  along << tangent, r.cross(tangent) / size;
  const double sign = group.sign;
  return curvature + sign / distance * along * along.transpose();
}

} // namespace datrin::casting
