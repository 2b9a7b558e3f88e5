#include "steps/place_steps.h"

#include "cutting/cutter_path.h"
#include "cutting/speed.h"
#include "route/propose.h"
#include "solid/body_form.h"
#include "solid/place.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double on_the_axis = 0.01; // mm
constexpr double same_height = 1e-6; // mm
constexpr double as_long = 1e-4;     // mm: no move
constexpr double along_tool = 0.99;  // cosine

double mouth_depth(const Build& build, const route::Feature& f) {
  const auto* body = build.find<Body>(f.body);
  return body ? solid::form_of(*body)[BodyRole::mouth_depth] : 0;
}

std::string joined(const std::string& a, const std::string& b) {
  return a + (a.empty() || b.empty() ? "" : "; ") + b;
}

/// Of an operation: as it says, or its tool.
double cutter_across(const Build& build, const Operation& o) {
  const auto* tool = build.find<Tool>(o.tool);
  return tool && tool->size > 0 ? tool->size : o.size;
}

} // namespace

PlaceSteps::PlaceSteps(const Build& build, const BenchInput& in, const BenchOptions& options,
                       const Places& places)
    : StepMaker(build, in, options), places_(places), held_(places.held()),
      soft_(setup_.holding == Workholding::soft_rod || setup_.holding == Workholding::tape) {
  if (const auto place = build.bench_place_of(in.piece, in.setup)) block_ = place->second.block;
  for (std::size_t k = 0; k < 3; ++k) counts_[k] = counting(build, in, k, k < 2 ? places.zero(k).surface : 0);
  if (const auto* m = build.find<Machine>(setup_.machine)) machine_ = *m;
}

BenchStep PlaceSteps::go(const ToolPlace& place, std::size_t k, const std::string& moving) const {
  const auto zero = places_.zero(k);
  auto step = plain(fmt::format("go-{}-{}-{}", place.operation, place.key, k == 0 ? "x" : "y"), StepKind::go,
                    place.name);
  step.operation = place.operation;
  step.axis = axis_names[k];
  step.done = step.done || place.done;
  step.at = place.at;
  if (zero.known()) {
    step.sum = places_.along(k, place.at);
    step.sum.title = fmt::format("{} of {}", step.axis, place.name);
    as_counted(step.sum, k, counts_[k], zero.on->name);
    step.number = step.sum.total();
    step.datum = zero.on->name;
    step.from = zero.on->point;
    step.words = fmt::format("{0} is {1} at {2}{3}. {4} until {0} reads", step.axis,
                             counts_[k].shows == 0 ? "0" : text(counts_[k].shows, 3),
                             zero.on->round() ? "the middle of " : "", zero.on->name, moving);
    step.also = by_the_screw(*step.number);
    step.ask = "What does it read?";
  } else if (zero.on) {
    step.words =
        fmt::format("{0} is not cut yet, and nothing says how much is over it: no {1} is counted from it. "
                    "Go by the lines marked out, or cut {0} first",
                    zero.on->name, step.axis);
  } else {
    step.words = fmt::format(
        "Nothing locates it along {}: find its middle there, by touching or by its lines", step.axis);
  }
  return step;
}

/// The lines as the read-out shows them: from where it reads what at the datum, and which way it counts.
void PlaceSteps::as_counted(Reckoning& sum, std::size_t k, const Counting& count,
                            const std::string& datum) const {
  if (count.sense < 0)
    for (auto& line : sum.lines) {
      line.mm = -line.mm;
      line.label += ", counted backwards";
    }
  if (count.found)
    sum.lines.insert(sum.lines.begin(), {fmt::format("{} at {}", axis_names[k], datum), count.shows,
                                         fmt::format("found, \u00B1{}", text(count.uncertainty, 3))});
}

/// Depths as Z shows them: it counts up, or down, from what it shows at the face it was set on.
void PlaceSteps::as_height(Reckoning& sum, const Height& height, Id operation) const {
  const Id face = height.face.face;
  for (auto& line : sum.lines) line.mm = -line.mm;
  as_counted(sum, 2, counting(build_, in_, 2, face, operation),
             face != 0 ? surface_name(build_, face) : "the touch");
}

/// Where the mouth is not as high as the face Z was set on.
void PlaceSteps::below_where_it_was_set(BenchStep& step, const ToolPlace& place, const Height& height) const {
  const double lower = held_.way.dot(height.at - place.at);
  if (std::abs(lower) <= same_height) return;
  const Id face = height.face.face;
  step.sum.lines.push_back({fmt::format("its mouth {} {}, where Z was set", lower > 0 ? "below" : "above",
                                        face != 0 ? surface_name(build_, face) : "the first"),
                            lower, "drawing"});
}

/// What a hand wheel shows, and that its play is taken out: below the number, in smaller type.
std::string PlaceSteps::by_the_screw(double number) const {
  std::string words;
  if (machine_.dial_turn > 0) {
    const double turns = std::floor(number / machine_.dial_turn + 1e-9);
    const double rest = std::max(0.0, number - turns * machine_.dial_turn);
    words += fmt::format("on the dial {} {} {}, and {}", std::abs(turns),
                         std::abs(turns) == 1 ? "turn" : "turns", turns < 0 ? "back" : "on", text(rest, 3));
  }
  if (machine_.backlash > 0)
    words += fmt::format("{}come up to it counting up: {} of play in the screw", words.empty() ? "" : "; ",
                         text(machine_.backlash, 3));
  return words;
}

std::string PlaceSteps::turn_at(const Operation& o, double across) const {
  const auto* part = build_.find<Part>(setup_.part);
  const double speed = part ? cutting::cutting_speed(part->material, cutting::ToolMetal::high_speed) : 0;
  if (speed <= 0 || across <= 0) return {};
  // A reamer at half, a tap at a quarter of what cuts there (common practice).
  const double share = o.kind == OperationKind::ream ? 0.5 : o.kind == OperationKind::tap ? 0.25 : 1;
  const double wanted = cutting::revolutions(share * speed, across);
  const auto why = fmt::format("high-speed steel, {:g} m/min", share * speed);
  const auto has = cutting::speeds_of(machine_.speeds);
  if (has.empty())
    return fmt::format("turn at about {:.0f} rev/min or slower ({})", std::round(wanted / 10) * 10, why);
  const double turns = cutting::speed_below(has, wanted);
  return fmt::format("turn at {:g} rev/min{} ({})", turns,
                     turns > wanted ? ", its slowest and too fast: by hand" : "", why);
}

const PlaceSteps::Height& PlaceSteps::height_of(const ToolPlace& place, const Operation& o,
                                                std::vector<BenchStep>& work) {
  const auto [found, first] = heights_.try_emplace(place.operation);
  if (first) {
    found->second = {place.at, places_.over(place.at, place.out)};
    work.push_back(set_height(place, o, found->second));
  }
  return found->second;
}

BenchStep PlaceSteps::set_height(const ToolPlace& place, const Operation& o, const Height& height) const {
  const auto& face = height.face;
  auto step = plain(fmt::format("zero-z-{}", place.operation), StepKind::zero,
                    "Set Z: " + route::operation_text(build_, o));
  step.operation = place.operation;
  step.done = step.done || place.done;
  step.axis = "Z";
  step.at = place.at;
  if (face.face != 0) {
    step.lit = {face.face};
    step.surface = face.face;
    step.datum = surface_name(build_, face.face);
  }
  step.number = counts_[2].sense * block_;
  step.sum = {"Z at the touch", {{"what lies between", *step.number, "block, paper"}}, {}};
  step.words = fmt::format("Bring it down on {}{}. {}Set Z to",
                           face.face != 0 ? surface_name(build_, face.face) : place.name,
                           block_ > 0 ? fmt::format(", {} between", text(block_)) : std::string(),
                           soft_ ? "It is held against something soft: set it anew for every piece. " : "");
  step.ask = "Over a block or paper? How thick is it?";
  return step;
}

void PlaceSteps::hole_depth(const ToolPlace& place, const Operation& o, const route::Feature& f,
                            std::vector<BenchStep>& work) {
  const bool mouth = route::works_mouth(build_, o);
  const double drawn = mouth ? mouth_depth(build_, f) : f.deep;
  auto step = plain(fmt::format("deep-{}-{}", place.operation, place.key), StepKind::deep, place.name);
  step.operation = place.operation;
  step.lit = f.surfaces;
  step.done = step.done || place.done;
  step.at = place.at;
  const auto what = route::operation_text(build_, o);
  if (drawn <= 0) {
    step.words = what + (mouth ? ", until its mouth measures what is drawn" : ", as deep as it goes");
    work.push_back(std::move(step));
    return;
  }
  const Height height =
      held_.lathe ? Height{place.at, places_.over(place.at, place.out)} : height_of(place, o, work);
  step.axis = held_.lathe ? "" : "Z";
  step.words =
      held_.lathe ? fmt::format("{}, from its mouth, so deep", what) : fmt::format("{}, until Z reads", what);
  step.ask = "What does it read?";
  step.sum = {"depth", {{mouth ? "its mouth" : f.name, drawn, "drawing"}}, {}};
  below_where_it_was_set(step, place, height);
  const auto metal = [&](const MetalOver& over) {
    if (over.mm > 0)
      step.sum.lines.push_back(
          {"still to come off " + surface_name(build_, over.face), over.mm, "allowance"});
    if (over.rough)
      step.words = fmt::format("What stands over {} nobody has measured: it comes on top. {}",
                               surface_name(build_, over.face), step.words);
  };
  metal(height.face);
  if (f.both_ways && !mouth) metal(places_.over(place.at - f.deep * place.out, -place.out));
  if (f.both_ways && !mouth && o.kind == OperationKind::drill) {
    const double across = o.size > 0 ? o.size : f.across;
    step.sum.lines.push_back({fmt::format("point of the drill, {} of its diameter", options_.point),
                              options_.point * across, "118\u00B0"});
    step.sum.lines.push_back({"through, and clear", options_.clear, "chosen"});
  }
  if (!held_.lathe) as_height(step.sum, height, place.operation);
  const double bit = o.size > 0 ? o.size : f.across;
  constexpr double deep_hole = 3; // diameters: deeper, chips stay in (common practice)
  const bool pecks = o.kind == OperationKind::drill && bit > 0 && drawn > deep_hole * bit;
  step.also = joined(turn_at(o, bit) + (pecks ? "; out for chips every " + text(bit) : ""),
                     held_.lathe ? std::string() : by_the_screw(step.sum.total()));
  step.from = height.at;
  step.at = place.at - drawn * place.out;
  step.number = step.sum.total();
  if (const auto off = held_.lathe ? places_.off_axis(place.at) : std::nullopt; off && *off > on_the_axis)
    step.words =
        fmt::format("It lies {} off the axis the part turns about: not with the tailstock as it is held. {}",
                    text(*off), step.words);
  work.push_back(std::move(step));
}

void PlaceSteps::chords(Id id, const route::Feature& f, const std::vector<Vec3>& mouths, bool done,
                        std::vector<BenchStep>& work) const {
  std::size_t farthest = 1;
  for (std::size_t k = 2; k < mouths.size(); ++k)
    if ((mouths[k] - mouths[0]).norm() > (mouths[farthest] - mouths[0]).norm() + as_long) farthest = k;
  std::vector<std::size_t> to{1};
  if (farthest != 1) to.push_back(farthest);
  for (const auto k : to) {
    const double apart = (mouths[k] - mouths[0]).norm();
    auto step = plain(fmt::format("check-{}-{}-{}", id, f.body, k + 1), StepKind::check,
                      fmt::format("{}, 1 to {}", f.name, k + 1));
    step.operation = id;
    step.lit = f.surfaces;
    step.done = step.done || done;
    step.number = apart;
    step.sum = {"centre to centre", {{fmt::format("{} 1 to {}", f.name, k + 1), apart, "drawing"}}, {}};
    step.words =
        f.across > 0
            ? fmt::format("A check that no zero comes into. Over two pins that fill them {}, between "
                          "their edges {}. Centre to centre",
                          text(apart + f.across, 3), text(apart - f.across, 3))
            : std::string("A check that no zero comes into. Centre to centre");
    step.ask = "What is it, centre to centre? Enter: not measured";
    work.push_back(std::move(step));
  }
}

BenchStep PlaceSteps::outline_depth(const ToolPlace& place, const Operation& o, const Height& height,
                                    double deep, bool through) const {
  auto step = plain(fmt::format("deep-{}-{}", place.operation, place.key), StepKind::deep, place.name);
  step.operation = place.operation;
  step.lit = place.lit;
  step.done = step.done || place.done;
  step.at = place.at;
  step.axis = "Z";
  step.words =
      fmt::format("{}: down in cuts the cutter bears, until Z reads", route::operation_text(build_, o));
  step.ask = "What does it read?";
  step.sum = {"depth", {{place.name, deep, "drawing"}}, {}};
  const auto& face = height.face;
  below_where_it_was_set(step, place, height);
  if (face.mm > 0)
    step.sum.lines.push_back({"still to come off " + surface_name(build_, face.face), face.mm, "allowance"});
  if (through) step.sum.lines.push_back({"through, and clear", options_.clear, "chosen"});
  if (face.rough)
    step.words = fmt::format("What stands over {} nobody has measured: it comes on top. {}",
                             surface_name(build_, face.face), step.words);
  as_height(step.sum, height, place.operation);
  step.number = step.sum.total();
  step.also = joined(turn_at(o, cutter_across(build_, o)), by_the_screw(*step.number));
  step.from = height.at;
  step.at = place.at - deep * place.out;
  return step;
}

void PlaceSteps::marks(Id id, const route::Feature& f, bool done, std::vector<BenchStep>& work) const {
  const auto placed = solid::place_bodies(build_, setup_.part);
  const auto body =
      std::find_if(placed.begin(), placed.end(), [&](const auto& one) { return one.id == f.body; });
  if (body == placed.end()) return;
  const bool line = body->form.shape == BodyShape::scribed;
  for (std::size_t n = 0; n < body->copies.size(); ++n) {
    const auto& pose = body->copies[n];
    ToolPlace place;
    place.operation = id;
    place.key = fmt::format("{}", n + 1);
    place.name =
        body->copies.size() > 1 ? fmt::format("{}, {} of {}", f.name, n + 1, body->copies.size()) : f.name;
    place.at = pose.apply(Vec3::Zero());
    place.out = pose.rotation * Vec3::UnitZ();
    place.done = done;
    const Vec3 along = route::machine_axes(held_) * (pose.rotation * Vec3::UnitX());
    for (std::size_t axis = 0; axis < 2; ++axis)
      if (!line ||
          std::abs(along[static_cast<Eigen::Index>(axis)]) < along_tool) // along itself a line has no place
        work.push_back(go(place, axis, line ? "Scribe where" : "Pop where"));
  }
}

void PlaceSteps::outline(Id id, const Operation& o, const route::Feature& f, bool done,
                         std::vector<BenchStep>& work) {
  const auto placed = solid::place_bodies(build_, setup_.part);
  const auto body =
      std::find_if(placed.begin(), placed.end(), [&](const auto& one) { return one.id == f.body; });
  if (body == placed.end() || body->copies.empty()) return;
  const auto& form = body->form;
  cutting::CutterPathInput in;
  const bool boss = f.shape == route::FeatureShape::profile; // milled all round, down to what it stands on
  in.of = boss                                   ? cutting::CutOf::boss
          : f.shape == route::FeatureShape::slot ? cutting::CutOf::slot
                                                 : cutting::CutOf::pocket;
  in.length = form[BodyRole::length];
  in.width = form[BodyRole::width];
  in.corner = in.of != cutting::CutOf::slot ? form[BodyRole::corner] : 0;
  in.cutter = cutter_across(build_, o);
  cutting::CutterPathOptions how;
  how.unit = unit_;
  const auto path = cutting::cutter_path(in, how);
  const double top = boss ? form[BodyRole::height] : 0, deep = boss ? form[BodyRole::height] : f.deep;
  for (std::size_t n = 0; n < body->copies.size(); ++n) {
    const auto& pose = body->copies[n];
    const Vec3 out = pose.rotation * Vec3::UnitZ();
    if (out.dot(held_.way) < along_tool) continue;
    ToolPlace place;
    place.operation = id;
    place.name =
        body->copies.size() > 1 ? fmt::format("{}, {} of {}", f.name, n + 1, body->copies.size()) : f.name;
    place.out = out;
    place.done = done;
    place.lit = f.surfaces;
    if (!path.usable()) {
      auto step = plain(fmt::format("cutter-{}-{}", id, n + 1), StepKind::note, place.name);
      step.operation = id;
      step.lit = place.lit;
      step.done = step.done || done;
      step.words = in.cutter <= 0 ? "Say under Operations which cutter: the numbers follow from it"
                                  : "No path for this cutter: " + path.message;
      work.push_back(std::move(step));
      continue;
    }
    Vec3 before = Vec3::Zero();
    for (std::size_t k = 0; k < path.middles.size(); ++k) {
      place.at = pose.apply(Vec3(path.middles[k].x(), path.middles[k].y(), top));
      place.key = path.middles.size() > 1 ? fmt::format("{}.{}", n + 1, k + 1) : fmt::format("{}", n + 1);
      const Vec3 way = route::machine_axes(held_) * (place.at - before);
      for (std::size_t axis = 0; axis < 2; ++axis) {
        if (k > 0 && std::abs(way[static_cast<Eigen::Index>(axis)]) < as_long) continue;
        auto step = go(place, axis, k == 0 ? "Move" : "Mill along");
        if (k == 0 && axis == 0 && !path.left_over.empty()) step.also = path.left_over;
        step.lit = place.lit;
        work.push_back(std::move(step));
      }
      before = place.at;
      if (k > 0) continue;
      // Set on the metal that goes, or stays, in its middle: at its corner the tool may stand beside it.
      ToolPlace middle = place;
      middle.at = pose.apply(Vec3(0, 0, top));
      const auto& height = height_of(middle, o, work);
      work.push_back(outline_depth(place, o, height, deep, form.through));
    }
  }
}

} // namespace datrin::steps
