#include "casting/expect.h"

#include "casting/foundry_tables.h"
#include "geometry/between.h"

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
  return of_metal(usual, metal_named(p ? p->material : "").value_or(metals().front()).name);
}

Foundry of_metal(Foundry foundry, const std::string& metal) {
  foundry.metal = metal;
  if (const auto found = metal_named(metal)) {
    foundry.shrinkage = found->shrink_usual;
    foundry.draft = found->draft;
  }
  return by_process(foundry, foundry.process);
}

Foundry by_process(Foundry foundry, const std::string& process) {
  foundry.process = process;
  const auto metal = metal_named(foundry.metal);
  if (!metal) return foundry;
  if (const auto grade = usual_grade(process, metal->group)) {
    foundry.tolerance_grade = grade->tolerance;
    foundry.allowance = grade->allowance;
  }
  return foundry;
}

Id opposite_plane(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  if (s == nullptr || s->round()) return 0;
  Id best = 0;
  double farthest = 1e-6;
  for (const auto& [id, other] : build.surfaces_of(s->part)) {
    if (!faces(other.shape(), -s->direction, 0.999)) continue;
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
double largest_dimension(const Build& build, Id part) {
  std::vector<Patch> patches;
  for (const auto& [id, s] : build.surfaces_of(part)) patches.push_back(s.patch());
  return box_of(patches).size().maxCoeff();
}

} // namespace

namespace {

/// The casting tolerance of the raw size that is made of `finished`, the allowance (signed) and half that
/// tolerance.
std::optional<double> raw_tolerance(double finished, double allowance, double sign, int grade) {
  auto tolerance = casting_tolerance(finished, grade);
  for (int round = 0; round < 4 && tolerance; ++round) {
    const auto next = casting_tolerance(finished + allowance + sign * *tolerance / 2, grade);
    if (!next) return tolerance; // a small cored hole closes up: its own row is the first
    if (*next == *tolerance) break;
    // Where two rows lead to each other, the wider one holds.
    if (round == 3) return std::max(*next, *tolerance);
    tolerance = next;
  }
  return tolerance;
}

/// By how many grades finer a small dimension moulded by hand in sand can usually be held: ISO 8062, the note
/// to its table of grades for single castings.
int finer_by_hand(std::string_view process, double raw) {
  if (process != "sand by hand" || !(raw > 0)) return 0;
  return raw <= 10 ? 3 : raw <= 16 ? 2 : raw <= 25 ? 1 : 0;
}

/// How thick the metal is between as-cast surface `from` and finished surface `to`: at the point of `from`
/// nearest to it.
double thickness(const Surface& from, const Surface& to) {
  const auto radius = from.round() ? from.diameter / 2 : 0.0;
  const Vec3 out = to.round() ? across(from.direction) : to.direction;
  return std::abs(stock_at(to, from.point + radius * out));
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
  out.largest = largest_dimension(build, part);
  const auto allowance = machining_allowance(out.largest, foundry.allowance);
  if (!allowance)
    return refuse(fmt::format("no machining allowance of grade {} is tabled for a casting of {:.0f} mm",
                              foundry.allowance, out.largest));
  out.allowance = *allowance;
  for (const auto& [id, s] : surfaces) {
    if (!s.machined || s.from_solid) continue; // of what is made from solid nothing is cast
    RawSize size;
    size.surface = id;
    int sides = 2;
    double sign = metal_sign(s.kind);
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
    const double from = size.finished > 0 ? size.finished : out.largest;
    const auto tolerance = raw_tolerance(from, sign * sides * *allowance, sign, foundry.tolerance_grade);
    if (!tolerance) {
      out.remarks.push_back(foundry.tolerance_grade > 15
                                ? fmt::format("{}: grade 16 is for walls only; take 15 or finer", size.name)
                                : fmt::format("{}: grade {} is not tabled for {:.1f} mm", size.name,
                                              foundry.tolerance_grade, from));
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
    if (is_hole(s.kind) && size.raw <= 0)
      out.remarks.push_back(
          fmt::format("{}: nothing is left of the hole with this much allowance; cast it solid", s.name));
    if (const int finer = finer_by_hand(foundry.process, size.raw); finer > 0)
      out.remarks.push_back(fmt::format(
          "{}: {:.1f} mm is small; moulded by hand in sand it can usually be held {} {} "
          "finer, grade {}",
          size.name, size.raw, finer, finer == 1 ? "grade" : "grades", foundry.tolerance_grade - finer));
    out.sizes.push_back(std::move(size));
  }
  for (const auto& [id, wall] : build.walls_of(part)) {
    const auto *face = build.find<PartSurface>(wall.from), *to = build.find<PartSurface>(wall.to);
    if (face == nullptr || to == nullptr) continue;
    RawWall raw{id, fmt::format("{} to {}", face->name, to->name), 0, 0};
    const auto* stock = out.of(wall.to);
    raw.nominal = thickness(face->shape(), to->shape()) + (stock != nullptr ? stock->stock : 0.0);
    const auto tolerance = casting_tolerance(raw.nominal, foundry.tolerance_grade, CastOf::wall);
    if (!tolerance) {
      out.remarks.push_back(fmt::format("wall {}: grade {} is not tabled for {:.1f} mm", raw.name,
                                        foundry.tolerance_grade + 1, raw.nominal));
      continue;
    }
    raw.tolerance = *tolerance;
    out.walls.push_back(std::move(raw));
  }
  out.status = ExpectStatus::expected;
  return out;
}

} // namespace datrin::casting
