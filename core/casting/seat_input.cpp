#include "casting/seat_input.h"

#include "quantity/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

std::string validate(const SeatInput& input) {
  const auto count = static_cast<int>(input.surfaces.size());
  if (count == 0) return "there are no surfaces";
  if (input.points.empty()) return "there are no touches";
  for (int i = 0; i < count; ++i) {
    const auto& s = input.surfaces[static_cast<std::size_t>(i)];
    if (const auto wrong = shape_wrong(s.shape); !wrong.empty())
      return fmt::format("surface {} (\"{}\") {}", i, s.id, wrong);
    if (!is_length(s.favour)) return fmt::format("surface {} (\"{}\") is favoured by no number", i, s.id);
    if (!is_length(s.required))
      return fmt::format("surface {} (\"{}\") needs a required stock, at most 10 km", i, s.id);
  }
  for (std::size_t i = 0; i < input.points.size(); ++i) {
    const auto& p = input.points[i];
    if (p.surface < 0 || p.surface >= count) return fmt::format("touch {} is on no surface", i);
    if (!p.xyz.allFinite()) return fmt::format("touch {} has a coordinate that is not a number", i);
    for (const double c : p.xyz)
      if (!is_length(c)) return fmt::format("touch {} has a coordinate that {}", i, too_long);
    if (!(p.uncertainty >= 0)) return fmt::format("touch {} has an uncertainty below 0", i);
    if (!is_length(p.uncertainty)) return fmt::format("touch {} has an uncertainty that {}", i, too_long);
  }
  for (std::size_t i = 0; i < input.walls.size(); ++i) {
    const auto& w = input.walls[i];
    if (w.from < 0 || w.from >= count || w.to < 0 || w.to >= count)
      return fmt::format("wall {} names a surface that is not there", i);
    if (w.from == w.to) return fmt::format("wall {} runs from a surface to itself", i);
    if (!is_length(w.least)) return fmt::format("wall {} needs a least thickness, at most 10 km", i);
  }
  return {};
}

namespace {

void take(GroupMargin& group, double metal, double margin, int point) {
  ++group.touches;
  group.stock_least = std::min(group.stock_least, metal);
  group.stock_most = std::max(group.stock_most, metal);
  if (margin < group.margin) {
    group.margin = margin;
    group.least_point = point;
  }
}

} // namespace

SeatMargins margins_at(const SeatInput& input, const Pose& pose, double limiting_within) {
  SeatMargins result;
  std::vector<int> group_of(input.surfaces.size(), -1);
  for (std::size_t i = 0; i < input.surfaces.size(); ++i)
    if (input.surfaces[i].machined) {
      group_of[i] = static_cast<int>(result.groups.size());
      GroupMargin group;
      group.surface = static_cast<int>(i);
      group.required = input.surfaces[i].required;
      result.groups.push_back(group);
    }
  const auto first_wall = result.groups.size();
  std::vector<std::vector<std::size_t>> walls_from(input.surfaces.size());
  for (std::size_t w = 0; w < input.walls.size(); ++w) {
    GroupMargin group;
    group.surface = input.walls[w].from;
    group.wall = static_cast<int>(w);
    group.required = input.walls[w].least;
    result.groups.push_back(group);
    walls_from[static_cast<std::size_t>(input.walls[w].from)].push_back(w);
  }
  for (std::size_t i = 0; i < input.points.size(); ++i) {
    const auto& point = input.points[i];
    const auto surface = static_cast<std::size_t>(point.surface);
    const Vec3 at = pose.apply(point.xyz);
    if (const int g = group_of[surface]; g >= 0) {
      auto& group = result.groups[static_cast<std::size_t>(g)];
      const double stock = stock_at(input.surfaces[surface].shape, at);
      take(group, stock, stock - group.required - point.uncertainty, static_cast<int>(i));
    }
    for (const auto w : walls_from[surface]) {
      auto& group = result.groups[first_wall + w];
      const double wall = -stock_at(input.surfaces[static_cast<std::size_t>(input.walls[w].to)].shape, at);
      take(group, wall, wall - group.required - point.uncertainty, static_cast<int>(i));
    }
  }
  for (auto& group : result.groups) {
    group.weighed = group.wall >= 0
                        ? group.margin
                        : group.margin - input.surfaces[static_cast<std::size_t>(group.surface)].favour;
    result.least = std::min(result.least, group.margin);
    result.least_weighed = std::min(result.least_weighed, group.weighed);
  }
  for (auto& group : result.groups)
    group.limiting = group.touches > 0 && group.weighed <= result.least_weighed + limiting_within;
  return result;
}

std::vector<double> stocks_at(const SeatInput& input, const Pose& pose) {
  std::vector<double> stocks;
  stocks.reserve(input.points.size());
  for (const auto& point : input.points)
    stocks.push_back(
        stock_at(input.surfaces[static_cast<std::size_t>(point.surface)].shape, pose.apply(point.xyz)));
  return stocks;
}

} // namespace datrin::casting
