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
  group.sign = wall >= 0 ? -1.0 : 1.0;
  return group;
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
    // Around an axis eight (or four) sectors of two depths; over a plane four by four (or two by two).
    const Chart chart(group.target);
    const int along = (chart.closes() ? 2 : 1) * (n >= 64 ? 4 : 2);
    const int over = chart.closes() ? 2 : along;
    std::vector<Eigen::Vector2d> where(static_cast<std::size_t>(n));
    Eigen::Vector2d low = Eigen::Vector2d::Constant(no_margin), high = -low;
    for (int k = 0; k < n; ++k) {
      auto& w = where[static_cast<std::size_t>(k)];
      w = chart.coordinates(pose.apply({group.x[k], group.y[k], group.z[k]}));
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
    Surface target = group.target;
    target.direction = pose.rotation.transpose() * group.target.direction;
    target.point = pose.rotation.transpose() * (group.target.point - pose.translation);
    for (int b = 0; b < group.buckets(); ++b) {
      auto& w = worst[static_cast<std::size_t>(b)];
      const int stop = group.bucket_start[static_cast<std::size_t>(b) + 1];
      for (int k = group.bucket_start[static_cast<std::size_t>(b)]; k < stop; k += chunk) {
        const int n = std::min(chunk, stop - k);
        auto margin = buffer.head(n);
        stocks_at(target, group.x.segment(k, n), group.y.segment(k, n), group.z.segment(k, n), margin);
        margin = group.sign * margin - group.allowance.segment(k, n);
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
  const Vec3 direction = group.sign * stock_direction(group.target, x);
  RowGradient row;
  row.margin = group.sign * stock_at(group.target, x) - group.allowance[at];
  row.rate << direction, (x - centre).cross(direction) / size;
  return row;
}

Eigen::Matrix<double, 6, 6> row_curvature(const Group& group, int at, const Pose& pose, const Vec3& centre,
                                          double size) {
  // x(y) = r + w×r + w×(w×r)/2 + … with r = x − centre and w the turn: the last term bends every margin a
  // little; a round surface bends more, around its axis (stock_bend).
  const Vec3 x = pose.apply({group.x[at], group.y[at], group.z[at]});
  const Vec3 r = x - centre;
  const Vec3 n = group.sign * stock_direction(group.target, x);
  Eigen::Matrix<double, 6, 6> curvature = Eigen::Matrix<double, 6, 6>::Zero();
  curvature.bottomRightCorner<3, 3>() =
      (0.5 * (n * r.transpose() + r * n.transpose()) - n.dot(r) * Mat3::Identity()) / (size * size);
  const auto bend = stock_bend(group.target, x);
  if (bend.per_mm == 0) return curvature;
  Eigen::Matrix<double, 6, 1> along;
  along << bend.tangent, r.cross(bend.tangent) / size;
  return curvature + group.sign * bend.per_mm * along * along.transpose();
}

} // namespace datrin::casting
