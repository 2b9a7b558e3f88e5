#include "casting/explain.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::casting {

std::string group_name(const SeatInput& input, const GroupMargin& group) {
  if (group.wall < 0) return input.surfaces[static_cast<std::size_t>(group.surface)].id;
  const auto& wall = input.walls[static_cast<std::size_t>(group.wall)];
  const auto alike = std::count_if(input.walls.begin(), input.walls.end(),
                                   [&](const SeatWall& w) { return w.from == wall.from; });
  if (alike == 1) return "wall at " + input.surfaces[static_cast<std::size_t>(wall.from)].id;
  return fmt::format("wall {} to {}", input.surfaces[static_cast<std::size_t>(wall.from)].id,
                     input.surfaces[static_cast<std::size_t>(wall.to)].id);
}

Reckoning explain_margin(const SeatInput& input, const GroupMargin& group) {
  Reckoning why;
  why.title = "room on " + group_name(input, group);
  if (group.least_point < 0) return why;
  const auto& point = input.points[static_cast<std::size_t>(group.least_point)];
  const double metal = group.margin + group.required + point.uncertainty;
  why.lines.push_back(
      {fmt::format("{} at touch {}", group.wall < 0 ? "metal" : "wall", group.least_point + 1), metal,
       "survey, seated"});
  why.lines.push_back(
      {group.wall < 0 ? "less the stock needed" : "less the wall to keep", -group.required, "drawing"});
  if (point.uncertainty > 0)
    why.lines.push_back({"less the touch's uncertainty", -point.uncertainty, "survey"});
  return why;
}

} // namespace datrin::casting
