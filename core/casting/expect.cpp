#include "casting/expect.h"

#include "casting/foundry_tables.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

using namespace build;

const RawSize* Expectation::of(Id surface) const {
  const auto found =
      std::find_if(sizes.begin(), sizes.end(), [&](const auto& s) { return s.surface == surface; });
  return found == sizes.end() ? nullptr : &*found;
}

Foundry foundry_or_usual(const Build& build, Id part) {
  if (const auto kept = build.foundry_of(part)) return kept->second;
  Foundry usual;
  usual.part = part;
  usual.process = "sand by hand";
  const auto* p = build.find<Part>(part);
  const auto metal = metal_named(p ? p->material : "").value_or(metals().front());
  usual.metal = metal.name;
  usual.shrinkage = metal.shrink_usual;
  usual.draft = metal.draft;
  if (const auto grade = usual_grade(usual.process, metal.group)) {
    usual.tolerance_grade = grade->tolerance;
    usual.allowance = grade->allowance;
  }
  return usual;
}

Id opposite_plane(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  if (s == nullptr || s->round()) return 0;
  Id best = 0;
  double farthest = 1e-6;
  for (const auto& [id, other] : build.surfaces_of(s->part)) {
    if (other.round() || other.direction.dot(s->direction) > -0.999) continue;
    const double across = (s->point - other.point).dot(s->direction);
    if (across > farthest) {
      farthest = across;
      best = id;
    }
  }
  return best;
}

namespace {

/// Largest dimension of the finished part: the longest side of the box around its surfaces.
double largest_dimension(const std::vector<std::pair<Id, PartSurface>>& surfaces) {
  if (surfaces.empty()) return 0;
  Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300);
  for (const auto& [id, s] : surfaces) {
    const auto [u, v] =
        s.round() ? PatchDirections{across(s.direction), s.direction} : patch_directions(s.direction);
    const Vec3 w = s.direction.cross(u);
    const Vec3 reach =
        s.round()
            ? Vec3(s.diameter / 2 * (u.cwiseAbs() + w.cwiseAbs()) + s.height / 2 * s.direction.cwiseAbs())
            : Vec3(s.width / 2 * u.cwiseAbs() + s.height / 2 * v.cwiseAbs());
    low = low.cwiseMin(s.point - reach);
    high = high.cwiseMax(s.point + reach);
  }
  return (high - low).maxCoeff();
}

} // namespace

Expectation expect_casting(const Build& build, Id part, const Foundry& foundry) {
  Expectation out;
  const auto surfaces = build.surfaces_of(part);
  const auto refuse = [&](std::string why) {
    out.status = ExpectStatus::refused;
    out.message = std::move(why);
    return out;
  };
  if (std::none_of(surfaces.begin(), surfaces.end(), [](const auto& s) { return s.second.machined; }))
    return refuse("no surface is to be machined yet");
  out.largest = largest_dimension(surfaces);
  const auto allowance = machining_allowance(out.largest, foundry.allowance);
  if (!allowance)
    return refuse(fmt::format("no machining allowance of grade {} is tabled for a casting of {:.0f} mm",
                              foundry.allowance, out.largest));
  out.allowance = *allowance;
  for (const auto& [id, s] : surfaces) {
    if (!s.machined) continue;
    RawSize size;
    size.surface = id;
    int sides = 2;
    double sign = s.kind == SurfaceKind::bore ? -1 : 1;
    if (s.round()) {
      size.name = s.name;
      size.finished = s.diameter;
    } else {
      size.other = opposite_plane(build, id);
      const auto* other = build.find<PartSurface>(size.other);
      size.name = other ? fmt::format("{} to {}", s.name, other->name) : s.name;
      sides = other && other->machined ? 2 : 1;
      size.finished = other ? std::abs((s.point - other->point).dot(s.direction)) : 0.0;
    }
    // A face with nothing opposite is placed from the casting's own largest dimension.
    const auto tolerance =
        casting_tolerance(size.finished > 0 ? size.finished : out.largest, foundry.tolerance_grade);
    if (!tolerance) {
      out.remarks.push_back(fmt::format("{}: grade {} is not tabled for {:.1f} mm", size.name,
                                        foundry.tolerance_grade, size.finished));
      continue;
    }
    size.tolerance = *tolerance;
    size.sum.title = "Raw size of " + size.name;
    size.sum.lines.push_back({"finished", size.finished, "drawing"});
    size.sum.lines.push_back({fmt::format("{} \u00D7 machining allowance {}", sides, foundry.allowance),
                              sign * sides * *allowance, "ISO 8062-3"});
    size.sum.lines.push_back({fmt::format("half the casting tolerance, grade {}", foundry.tolerance_grade),
                              sign * *tolerance / 2, "ISO 8062-3"});
    size.raw = size.sum.total();
    // A raw size at the small end leaves just the allowance on each side.
    size.stock_least = *allowance;
    size.stock = *allowance + *tolerance / 2 / sides;
    size.stock_most = *allowance + *tolerance / sides;
    if (s.kind == SurfaceKind::bore && size.raw <= 0)
      out.remarks.push_back(
          fmt::format("{}: nothing is left of the hole with this much allowance; cast it solid", s.name));
    out.sizes.push_back(std::move(size));
  }
  out.status = ExpectStatus::expected;
  return out;
}

} // namespace datrin::casting
