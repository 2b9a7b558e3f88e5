#include "solid/quick_start.h"

#include "build/edit_drawing.h"
#include "build/rows.h"
#include "solid/body_edits.h"
#include "solid/follow.h"
#include "solid/quick_shapes.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::solid {

using namespace build;

double QuickSize::begins(Unit unit) const {
  if (unit == Unit::mm) return mm;
  const double inches = mm / mm_per_inch;
  const double parts = inches < 0.125 ? 64 : inches < 1 ? 16 : inches < 4 ? 8 : 4;
  return std::max(1.0, std::round(inches * parts)) / parts * mm_per_inch;
}

const std::vector<QuickStart>& quick_starts() {
  static const std::vector<QuickStart> list{
      {QuickShape::pedestal,
       "Pedestal",
       "a bearing boss on a foot",
       {{"foot, length", 80},
        {"foot, width", 36},
        {"foot, thickness", 12},
        {"centre height", 40},
        {"bore", 20},
        {"boss", 34},
        {"over the cheeks", 40}}},
      {QuickShape::cylinder_block,
       "Cylinder block",
       "a bored barrel between two flanges, with a port face",
       {{"length", 80},
        {"bore", 30},
        {"barrel", 44},
        {"flanges", 56},
        {"flange thickness", 8},
        {"centre height", 32},
        {"port face from centre", 30}}},
      {QuickShape::cover,
       "Cover",
       "a disc with a spigot",
       {{"rim", 56}, {"thickness", 8}, {"spigot", 30}, {"spigot, depth", 3}}},
      {QuickShape::flange,
       "Flange",
       "a disc with a bore and six bolt holes",
       {{"rim", 50}, {"thickness", 8}, {"bore", 20}, {"bolt circle", 36}, {"bolt hole", 4.5}}},
      {QuickShape::wheel,
       "Wheel",
       "a rim and a hub on one bore, six spokes",
       {{"rim", 160},
        {"rim, width", 20},
        {"hub", 36},
        {"hub, length", 28},
        {"bore", 14},
        {"rim, depth", 14},
        {"spoke, width", 10}}},
      {QuickShape::bracket,
       "Bracket",
       "a foot, a back and a bored boss",
       {{"foot, length", 60},
        {"width", 30},
        {"foot, thickness", 10},
        {"centre height", 45},
        {"boss", 28},
        {"bore", 14}}},
      {QuickShape::angle_plate,
       "Angle plate",
       "two plates square to each other",
       {{"length", 80}, {"depth", 60}, {"height", 60}, {"thickness", 12}}},
      {QuickShape::axlebox,
       "Axlebox",
       "a block with a bore, sliding between horns",
       {{"width", 40}, {"height", 48}, {"thickness", 28}, {"bore", 18}, {"bore above the bottom", 24}}},
      {QuickShape::plain_block, "Plain block", "six faces", {{"length", 60}, {"width", 40}, {"height", 30}}},
      {QuickShape::crank_web,
       "Crank web",
       "two holes a throw apart",
       {{"throw", 20},
        {"shaft hole", 12},
        {"pin hole", 10},
        {"shaft end", 26},
        {"pin end", 22},
        {"thickness", 8}}},
      {QuickShape::stepped_shaft,
       "Stepped shaft",
       "a body between two journals",
       {{"body", 20}, {"body, length", 60}, {"journals", 12}, {"journals, length", 25}}},
      {QuickShape::connecting_rod,
       "Connecting rod",
       "two bored ends and a shank",
       {{"centres", 90},
        {"big end", 26},
        {"big end bore", 16},
        {"small end", 16},
        {"small end bore", 8},
        {"thickness", 10},
        {"shank, width", 10},
        {"shank, thickness", 6}}},
      {QuickShape::eccentric_sheave,
       "Eccentric sheave",
       "a disc bored off its middle",
       {{"sheave", 40}, {"thickness", 8}, {"bore", 12}, {"throw", 5}}},
      {QuickShape::eccentric_strap,
       "Eccentric strap",
       "a ring with a lug for its rod",
       {{"outside", 54}, {"bore", 40}, {"thickness", 8}, {"lug, width", 16}}},
      {QuickShape::slide_valve,
       "Slide valve",
       "a block with a cavity in its face",
       {{"length", 24},
        {"width", 18},
        {"height", 10},
        {"cavity, length", 12},
        {"cavity, width", 10},
        {"cavity, depth", 5}}},
      {QuickShape::gear_blank,
       "Gear blank",
       "a disc with a hub on one bore",
       {{"outside", 50}, {"width", 8}, {"hub", 20}, {"hub, length", 8}, {"bore", 10}}},
      {QuickShape::bush,
       "Bush",
       "a flanged sleeve",
       {{"outside", 16}, {"bore", 10}, {"length", 20}, {"flange", 22}, {"flange, thickness", 3}}},
      {QuickShape::plug,
       "Plug",
       "a hexagon head on a round shank",
       {{"hexagon, across flats", 14}, {"head, height", 6}, {"shank", 10}, {"shank, length", 12}}},
      {QuickShape::stand,
       "Stand",
       "a column between a base and a top",
       {{"base", 50},
        {"base, thickness", 8},
        {"column", 20},
        {"column, height", 64},
        {"top", 36},
        {"top, thickness", 8},
        {"bolt hole", 5}}},
  };
  return list;
}

QuickDrawing quick_drawing(QuickShape shape, const std::vector<double>& sizes) {
  QuickDrawing drawing;
  const auto& start = quick_starts()[static_cast<std::size_t>(shape)];
  for (std::size_t k = 0; k < start.sizes.size(); ++k)
    if (k >= sizes.size() || !(sizes[k] > 0) || !std::isfinite(sizes[k])) {
      drawing.message = fmt::format("{} must be above 0", start.sizes[k].name);
      return drawing;
    }
  draw_quickly(shape, sizes, drawing);
  return drawing;
}

std::vector<PlacedBody> QuickDrawing::placed() const {
  Build build;
  const auto made = add_quick_part(build, "x", *this);
  return build.apply(made.edit) ? place_bodies(build, made.id) : std::vector<PlacedBody>();
}

Added add_quick_part(const Build& build, const std::string& name, const QuickDrawing& drawing) {
  if (!drawing.message.empty() || drawing.bodies.empty()) return {0, {}, drawing.message};
  auto made = add_part(build, name, true);
  const Id part = made.id;
  Rows rows(build);
  rows.apply(made.edit);
  const auto number = [](std::size_t k) { return static_cast<Id>(k) + 1; };
  const auto shared_with = [&](Id body, BodyRole role) -> const QuickDrawing::Shared* {
    for (const auto& shared : drawing.shared)
      if (shared.body == body && shared.role == role) return &shared;
    return nullptr;
  };
  // Dimensions first, each under its name, then bodies, then the surfaces that are their faces.
  std::map<std::pair<Id, BodyRole>, Id> dimension;
  double order = 0;
  for (std::size_t k = 0; k < drawing.bodies.size(); ++k)
    for (const auto& size : drawing.bodies[k].sizes) {
      if (size.value == 0 || shared_with(number(k), size.role)) continue;
      auto one = dimension_for(drawing.bodies[k], size.role, size.value);
      for (const auto& named : drawing.names)
        if (named.body == number(k) && named.role == size.role) one.name = named.name;
      one.part = part;
      one.order = order++;
      dimension[{number(k), size.role}] = rows.add(one);
    }
  std::vector<Id> bodies, surfaces;
  for (std::size_t k = 0; k < drawing.bodies.size(); ++k) {
    auto body = drawing.bodies[k];
    body.part = part;
    body.order = static_cast<double>(k);
    if (body.on != 0) body.on = bodies[static_cast<std::size_t>(body.on - 1)];
    for (auto& size : body.sizes) {
      const auto* shared = shared_with(number(k), size.role);
      const auto found =
          shared ? dimension.find({shared->of, shared->of_role}) : dimension.find({number(k), size.role});
      if (found != dimension.end()) size.dimension = found->second;
    }
    bodies.push_back(rows.add(body));
  }
  for (std::size_t k = 0; k < drawing.surfaces.size(); ++k) {
    auto surface = drawing.surfaces[k];
    // Round in the build's unit: the nearest 64th of an inch.
    constexpr double sixty_fourth = 25.4 / 64;
    if (build.info().unit == Unit::inch)
      surface.required = std::round(surface.required / sixty_fourth) * sixty_fourth;
    surface.part = part;
    surface.body = bodies[static_cast<std::size_t>(surface.body - 1)];
    surface.order = static_cast<double>(k);
    surfaces.push_back(rows.add(surface));
  }
  for (const auto& wall : drawing.walls)
    rows.add(Wall{part, surfaces[wall.from], surfaces[wall.to], wall.least});
  made.edit = followed(build, rows.edit(made.edit.label));
  return made;
}

} // namespace datrin::solid
