#include "build/edit_drawing.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::build {

namespace {

template <class Alter>
Edit change_info(const Build& build, Alter alter, std::string label) {
  auto info = build.info();
  alter(info);
  return replace(build, Build::info_id, info, std::move(label));
}

std::string name_or_unknown(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  return s ? s->name : "?";
}

} // namespace

Edit name_build(const Build& build, const std::string& name) {
  return change_info(
      build, [&](Info& info) { info.name = name; }, "Name of the build");
}

Edit work_in(const Build& build, Unit unit) {
  return change_info(
      build, [&](Info& info) { info.unit = unit; },
      unit == Unit::mm ? "Work in millimetres" : "Work in inches");
}

Edit lay_out_views(const Build& build, bool third_angle) {
  return change_info(
      build, [&](Info& info) { info.third_angle = third_angle; },
      third_angle ? "Third-angle views" : "First-angle views");
}

Added add_part(const Build& build, const std::string& name, bool free) {
  Part part;
  part.name = free ? free_name(build.parts(), name) : name;
  part.order = next_order(build.parts());
  Piece piece;
  piece.part = build.next_id();
  return {piece.part, add_all(build, {part, piece}, fmt::format("Add part {}", part.name)), {}};
}

Edit set_quantity(const Build& build, Id part_id, int quantity) {
  const auto* part = build.find<Part>(part_id);
  if (part == nullptr) return is_gone();
  if (quantity < 1) return cannot("a part is made once at least");
  Edit edit{fmt::format("Make {} of {}", quantity, part->name), {}};
  Part changed = *part;
  changed.quantity = quantity;
  if (!(changed == *part)) edit.changes.push_back({part_id, *part, changed});
  const auto pieces = build.pieces_of(part_id);
  auto kept = pieces.size();
  while (static_cast<int>(kept) > quantity && build.touches_of(pieces[kept - 1].first).empty()) {
    const auto removal = remove(build, pieces[kept - 1].first, {});
    edit.changes.insert(edit.changes.end(), removal.changes.begin(), removal.changes.end());
    --kept;
  }
  Id id = build.next_id();
  for (int number = static_cast<int>(kept) + 1; number <= quantity; ++number)
    edit.changes.push_back({id++, std::nullopt, Piece{part_id, number}});
  return edit;
}

Added add_surface(const Build& build, Id part, SurfaceKind kind) {
  if (build.find<Part>(part) == nullptr) return {0, {}, "there is no part to draw it on yet: add one first"};
  const auto surfaces = build.surfaces_of(part);
  PartSurface surface;
  surface.part = part;
  if (is_round(kind)) surface.direction = Vec3::UnitY();
  const Unit unit = build.info().unit;
  surface.required = usual_length(unit, 0.5, 0.02);
  surface = of_kind(surface, kind, unit);
  surface.name = free_name(surfaces, std::string(surface_kind_name(kind)));
  surface.order = next_order(surfaces);
  return added(build, surface, "Add " + surface.name);
}

PartSurface of_kind(PartSurface surface, SurfaceKind kind, Unit unit) {
  surface.kind = kind;
  if (is_round(kind) && !(surface.diameter > 0)) surface.diameter = usual_length(unit, 20, 0.75);
  if (!is_cone(kind))
    surface.half_angle = 0;
  else if (!(surface.half_angle > 0))
    surface.half_angle = std::atan(0.5 / 20); // 1 in 20 on the diameter, about that of a drill's socket
  return surface;
}

Edit keep_wall(const Build& build, Id part, Id from, Id to) {
  for (const auto& [id, wall] : build.walls_of(part))
    if (wall.from == from && wall.to == to) return {};
  if (build.find<PartSurface>(from) == nullptr || build.find<PartSurface>(to) == nullptr) return is_gone();
  return add(
      build, Wall{part, from, to, usual_length(build.info().unit, 5, 0.2)},
      fmt::format("Keep a wall from {} to {}", name_or_unknown(build, from), name_or_unknown(build, to)));
}

Edit set_wall(const Build& build, Id id, double least) {
  const auto* wall = build.find<Wall>(id);
  if (wall == nullptr) return is_gone();
  auto changed = *wall;
  changed.least = least;
  return replace(build, id, changed,
                 fmt::format("Least wall from {} to {}", name_or_unknown(build, wall->from),
                             name_or_unknown(build, wall->to)));
}

Edit set_foundry(const Build& build, const Foundry& foundry, const std::string& what) {
  const auto* part = build.find<Part>(foundry.part);
  if (part == nullptr) return is_gone();
  return keep_one(build, build.foundry_of(foundry.part), foundry, what + " of " + part->name);
}

Added add_dimension(const Build& build, Id part) {
  if (build.find<Part>(part) == nullptr) return {0, {}, "there is no part to draw it on yet: add one first"};
  const auto all = build.dimensions_of(part);
  Dimension d;
  d.part = part;
  d.order = next_order(all);
  const auto taken = [&](const auto& entry) { return entry.second.name == d.name; };
  auto number = all.size();
  do d.name = fmt::format("dimension {}", ++number);
  while (std::any_of(all.begin(), all.end(), taken));
  return added(build, d, "Add " + d.name);
}

Added keep_reckoned(const Build& build, Id part, const std::string& name, double mm, std::string reason) {
  if (build.find<Part>(part) == nullptr) return {0, {}, "choose the part it is of first"};
  if (!std::isfinite(mm) || mm < 0) return {0, {}, "a dimension is a length of 0 or more"};
  Dimension d;
  d.part = part;
  const auto all = build.dimensions_of(part);
  d.name = free_name(all, name.empty() ? std::string("reckoned") : name);
  d.nominal = mm;
  d.source = DimensionSource::chosen;
  d.reason = std::move(reason);
  d.order = next_order(all);
  const auto label = fmt::format("Keep {}, reckoned: {}", d.name,
                                 length_text(mm, build.info().unit, {.decimals_mm = 3, .show_unit = true}));
  return added(build, d, label);
}

} // namespace datrin::build
