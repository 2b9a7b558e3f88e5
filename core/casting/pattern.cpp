#include "casting/pattern.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

using namespace build;

Pattern make_pattern(const Build& build, Id part, const Foundry& foundry, const PatternOptions& options) {
  Pattern out;
  const auto expected = expect_casting(build, part, foundry);
  out.status = expected.status;
  out.message = expected.message;
  if (!expected.usable()) return out;
  if (foundry.shrinkage < 0 || foundry.shrinkage > 0.1 || foundry.draft < 0 || foundry.draft > radians(15)) {
    out.status = ExpectStatus::refused;
    out.message = foundry.draft < 0 || foundry.draft > radians(15) ? "draft must be between 0 and 15 degrees"
                                                                   : "shrinkage must be between 0 and 10 %";
    return out;
  }
  out.scale = 1 + foundry.shrinkage;
  for (const auto& [id, s] : build.surfaces_of(part)) {
    PatternSurface p;
    p.surface = id;
    p.shape = s;
    const auto* raw = expected.of(id);
    const double stock = raw ? raw->stock : 0.0;
    if (s.round())
      p.shape.diameter = (raw ? raw->raw : s.diameter) * out.scale;
    else
      p.shape.point += s.direction * stock;
    p.shape.point *= out.scale;
    p.shape.width *= out.scale;
    p.shape.height *= out.scale;
    if (is_hole(s.kind)) {
      p.size = p.shape.diameter;
      if (raw == nullptr && s.machined) p.size = 0;
      if (p.size < options.least_core * out.scale) {
        p.solid = true;
        p.note = "cast solid, too small to core";
      } else if (std::abs(s.direction.dot(foundry.draw)) > 0.999) {
        p.note = "may draw with the pattern";
      } else {
        p.cored = true;
        // Common practice: a print about as long as the core is thick, not under 15 mm.
        p.print = std::max(15.0, std::round(p.size));
        p.note = fmt::format("core, prints {:.0f} mm long", p.print);
      }
    } else if (is_outside(s.kind)) {
      p.size = p.shape.diameter;
    } else if (const auto* other = build.find<PartSurface>(opposite_plane(build, id))) {
      const auto* raw_other = expected.of(opposite_plane(build, id));
      p.size = (std::abs((s.point - other->point).dot(s.direction)) + stock +
                (raw_other ? raw_other->stock : 0.0)) *
               out.scale;
    }
    // Sides that the sand is drawn along lean outward.
    const bool drawn_along = s.round() ? std::abs(s.direction.dot(foundry.draw)) > 0.999
                                       : std::abs(s.direction.dot(foundry.draw)) < 1e-3;
    if (drawn_along && !p.solid && !p.cored) {
      const auto [u, v] = patch_directions(s.direction);
      const double depth = s.round() ? p.shape.height
                                     : std::abs(foundry.draw.dot(u)) * p.shape.width +
                                           std::abs(foundry.draw.dot(v)) * p.shape.height;
      p.draft_adds = depth * std::tan(foundry.draft);
    }
    out.surfaces.push_back(std::move(p));
  }
  return out;
}

} // namespace datrin::casting
