#include "route/facing.h"

#include "build/edits.h"
#include "geometry/between.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "route/features.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

constexpr double is_square = 0.01, is_along = 0.99; // cosines

/// "top: foot to the fixed jaw, a soft rod at side, hammered down on end; square to foot within 0.03 mm in
/// 100".
template <class Name>
std::string step_words(const Build& build, const SquaringStep& step, const Name& name) {
  const auto keeps = [&](double lean) {
    const double over = build.info().unit == Unit::inch ? 4 * mm_per_inch : 100;
    return fmt::format(
        "{} in {}", length_text(3 * lean * over, build.info().unit, {.decimals_mm = 3, .show_unit = true}),
        length_text(over, build.info().unit, {.decimals_mm = 0, .decimals_inch = 0, .show_unit = true}));
  };
  const auto on = step.down != 0 ? name(step.down) : std::string("what is there");
  const auto seat = step.seating == Seating::hammered ? "hammered down on " + on
                    : step.seating == Seating::packed ? "packed level on " + on + ", no hammer"
                    : step.upright_by != 0            ? "upright by a square against " + name(step.upright_by)
                                                      : std::string("upright by a square");
  auto words = step.fixed_jaw == 0
                   ? fmt::format("{}: clamped on the table or an angle plate, {}", name(step.cut), seat)
                   : fmt::format("{}: {} to the fixed jaw, {}, {}", name(step.cut), name(step.fixed_jaw),
                                 !step.rod              ? "no rod"
                                 : step.moving_jaw != 0 ? "a soft rod at " + name(step.moving_jaw)
                                                        : "a soft rod at the moving jaw",
                                 seat);
  if (step.square_to != 0)
    words += fmt::format("; square to {} within {}", name(step.square_to), keeps(step.out_of_square));
  if (step.parallel_to != 0)
    words += fmt::format("; parallel to {} within {}", name(step.parallel_to), keeps(step.out_of_parallel));
  return words + step.care;
}

struct Face {
  Id id = 0;
  Vec3 out = Vec3::UnitZ();
  Vec3 at = Vec3::Zero();
  double area = 0;
  bool machined = false;
};

std::vector<Face> planes_of(const Build& build, Id part) {
  std::vector<Face> faces;
  for (const auto& [id, patch] : stock::patches_of(build, part)) {
    const auto* s = build.find<PartSurface>(id);
    if (s && !s->round() && s->copy == 0)
      faces.push_back({id, s->direction.normalized(), s->point, patch.width * patch.height, s->machined});
  }
  return faces;
}

/// The outermost of that way only: a step is no side of the block. Of a casting what is machined before what
/// stays raw.
const Face* outermost(const std::vector<Face>& faces, const Vec3& way) {
  const Face* best = nullptr;
  const auto at = [&](const Face& f) { return f.at.dot(way); };
  for (const auto& f : faces)
    if (f.out.dot(way) > is_along && (!best || at(f) > at(*best))) best = &f;
  return best;
}

} // namespace

FacesToSquare faces_to_square(const Build& build, Id part) {
  FacesToSquare out;
  out.casting = stock::needs_touches(build, part);
  auto faces = planes_of(build, part);
  std::stable_sort(faces.begin(), faces.end(), [&](const Face& a, const Face& b) {
    if (out.casting && a.machined != b.machined) return a.machined;
    return a.area > b.area;
  });
  if (faces.empty() || (!out.casting && faces.size() < block_faces)) return {};
  const Vec3 first = faces.front().out;
  const auto beside = std::find_if(faces.begin(), faces.end(),
                                   [&](const Face& f) { return std::abs(f.out.dot(first)) < is_square; });
  if (beside == faces.end()) return {};
  const Vec3 second = beside->out, third = first.cross(second);
  const auto shape = stock::finished_box(stock::shape_of(build, part), {});
  const Vec3 ways[] = {first, second, -second, -first, third, -third};
  int machined = 0;
  for (std::size_t k = 0; k < block_faces; ++k) {
    const auto* face = outermost(faces, ways[k]);
    if (face) machined += face->machined;
    if (face) out.faces[k] = face->id;
    if (out.casting) continue;
    // Of a block each side is nearly as large as the box about it.
    constexpr double most_of_it = 0.6;
    double side = 1;
    for (int c = 0; c < 3; ++c)
      if (std::abs(ways[k][c]) < is_along) side *= shape.size()[c];
    if (!face || (shape.known && face->area < most_of_it * side)) return {};
  }
  const bool enough = !out.casting || (machined >= 2 && faces.front().machined);
  return enough ? out : FacesToSquare{};
}

SquaringInput squaring_input(const Build& build, Id part, const FacesToSquare& of) {
  SquaringInput in;
  in.casting = of.casting;
  const auto box = stock::finished_box(stock::shape_of(build, part), {});
  const auto size = [&](std::size_t a, std::size_t b) {
    const auto *one = build.find<PartSurface>(of.faces[a]), *other = build.find<PartSurface>(of.faces[b]);
    if (one && other) return std::abs((one->point - other->point).dot(one->direction.normalized()));
    const auto* known = one ? one : other;
    if (!known) return 1.0;
    return std::max(1.0, known->direction.cwiseAbs().dot(box.size()));
  };
  in.size = {size(4, 5), size(1, 2), size(0, 3)};
  const auto foundry = build.foundry_of(part);
  for (std::size_t k = 0; k < block_faces; ++k) {
    const auto* s = build.find<PartSurface>(of.faces[k]);
    in.missing[k] = s == nullptr;
    if (!s) continue;
    in.good[k] = !s->machined && !of.casting; // as good as it came
    in.stays[k] = !s->machined && of.casting;
    if (foundry && std::abs(s->direction.normalized().dot(foundry->second.draw)) < is_along)
      in.slope[k] = foundry->second.draft; // a side of the pattern
    for (const auto& [id, body] : build.bodies_of(part))
      if (!body.thread.empty() && body.cut && body.on != 0 && body.on == s->body && body.face == s->face)
        in.tapped[k] = true;
  }
  return in;
}

namespace {

/// Up to three of those cut that locate a part whose tool comes from `way`: the one away from it first.
std::vector<Id> locating_faces(const Build& build, const std::vector<Id>& cut, const Vec3& way) {
  std::vector<Id> out;
  const auto take = [&](bool under) {
    for (const Id id : cut) {
      const auto* s = build.find<PartSurface>(id);
      if (!s || s->round() || out.size() >= 3) continue;
      const double cosine = s->direction.normalized().dot(way);
      if (under ? cosine > -is_along : std::abs(cosine) > is_square) continue;
      const bool again = std::any_of(out.begin(), out.end(), [&](Id other) {
        return std::abs(build.find<PartSurface>(other)->direction.normalized().dot(
                   s->direction.normalized())) > is_along;
      });
      if (!again) out.push_back(id);
    }
  };
  take(true);
  take(false);
  return out;
}

/// Setups for what the faces' own do not reach: a bore across, a step behind.
void reach_the_rest(const Build& build, Id part, std::vector<Setup>& setups) {
  std::vector<Id> cut;
  for (const auto& setup : setups) cut.insert(cut.end(), setup.cuts.begin(), setup.cuts.end());
  for (const auto& f : features_to_make(build, part)) {
    const bool there =
        std::any_of(f.surfaces.begin(), f.surfaces.end(), [&](Id id) { return contains(cut, id); });
    if (there) continue;
    // In the last setup its tool comes to: what it is measured from is cut by then.
    const auto reaching = [&](const Setup& s) {
      const double cosine = s.way.dot(f.way);
      return cosine > is_along || (f.both_ways && cosine < -is_along);
    };
    auto at = std::find_if(setups.rbegin(), setups.rend(), reaching);
    if (at == setups.rend()) {
      Setup setup;
      setup.part = part;
      setup.way = f.way;
      setup.datums = locating_faces(build, cut, f.way);
      setup.name = setup.datums.empty() ? std::string("another way up")
                                        : "on " + surface_name(build, setup.datums.front());
      setup.order = static_cast<double>(setups.size());
      setups.push_back(std::move(setup));
      at = setups.rbegin();
    }
    for (const Id id : f.surfaces) {
      at->cuts.push_back(id);
      cut.push_back(id);
    }
  }
}

} // namespace

std::vector<Setup> facing_setups(const Build& build, Id part, std::vector<std::string>* notes) {
  const auto of = faces_to_square(build, part);
  if (!of.usable()) return {};
  const auto at = [&](int face) { return face == 0 ? 0 : of.faces[static_cast<std::size_t>(face - 1)]; };
  const auto squared = squaring(squaring_input(build, part, of));
  const auto name = [&](int face) { return at(face) != 0 ? surface_name(build, at(face)) : std::string(); };
  std::vector<Setup> setups;
  for (const auto& step : squared.steps) {
    if (notes) notes->push_back(step_words(build, step, name));
    Setup setup;
    setup.part = part;
    setup.name = fmt::format("{} {}", of.casting ? "face" : "square", name(step.cut));
    const bool by_square = step.seating == Seating::by_square; // a raw end locates nothing
    for (const int datum : {step.fixed_jaw, by_square ? step.upright_by : step.down})
      if (at(datum) != 0) setup.datums.push_back(at(datum));
    setup.cuts = {at(step.cut)};
    setup.way = build.find<PartSurface>(at(step.cut))->direction.normalized();
    setup.holding = step.fixed_jaw == 0 ? Workholding::clamps
                    : step.rod          ? Workholding::soft_rod
                                        : Workholding::vise;
    setup.packing = step.seating == Seating::packed      ? "packed level, not hammered"
                    : step.seating == Seating::by_square ? "upright by a square"
                                                         : "parallels, hammered down";
    setup.order = static_cast<double>(setups.size());
    setups.push_back(std::move(setup));
  }
  reach_the_rest(build, part, setups);
  return setups;
}

} // namespace datrin::route
