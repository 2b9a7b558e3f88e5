#include "steps/place_steps.h"

#include "cutting/speed.h"
#include "route/propose.h"
#include "solid/body_form.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double on_the_axis = 0.01; // mm
constexpr double same_height = 1e-6; // mm
constexpr double no_longer = 1e-4;   // mm

double mouth_depth(const Build& build, const route::Feature& f) {
  const auto* body = build.find<Body>(f.body);
  return body ? solid::form_of(*body)[BodyRole::mouth_depth] : 0;
}

} // namespace

PlaceSteps::PlaceSteps(const Build& build, const BenchInput& in, const BenchOptions& options,
                       const Places& places)
    : StepMaker(build, in, options), places_(places), held_(places.held()),
      soft_(setup_.holding == Workholding::soft_rod || setup_.holding == Workholding::tape) {
  if (const auto place = build.bench_place_of(in.piece, in.setup)) block_ = place->second.block;
  for (std::size_t k = 0; k < 3; ++k) counts_[k] = counting(build, in, k, k < 2 ? places.zero(k).surface : 0);
  turn_ = counts_[0].turn;
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
  if (zero.known() && (counts_[k].turn == 0 || places_.zero(1 - k).known())) {
    step.sum = as_turned(k, place.at);
    step.sum.title = fmt::format("{} of {}", step.axis, place.name);
    const bool corner = counts_[k].turn != 0;
    const auto datum =
        corner ? fmt::format("the corner of {} and {}", places_.zero(0).name(), places_.zero(1).name())
               : zero.place();
    as_counted(step.sum, k, counts_[k], datum);
    step.number = step.sum.total();
    step.datum = datum;
    step.from = zero.point();
    step.words = fmt::format("{0} is {1} at {2}. {3} until {0} reads", step.axis,
                             counts_[k].shows == 0 ? "0" : text(counts_[k].shows, 3), datum, moving);
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

/// From the datum along the axis of the machine; of a part that lies askew X and Y both go into either.
Reckoning PlaceSteps::as_turned(std::size_t k, const Vec3& at) const {
  const double turn = counts_[k].turn;
  auto sum = places_.along(k, at);
  if (turn == 0) return sum;
  auto other = places_.along(1 - k, at);
  const double by = std::cos(turn), by_other = (k == 0 ? -1 : 1) * std::sin(turn);
  const auto put = [&](Reckoning& of, double factor, const char* what) {
    for (auto& line : of.lines) {
      line.label = fmt::format("{}: {} {} {:.3f}\u00B0", line.label, text(line.mm, 3), what, turn * 180 / pi);
      line.mm *= factor;
    }
  };
  put(sum, by, "\u00D7 cos");
  put(other, by_other, k == 0 ? "\u00D7 \u2212sin" : "\u00D7 sin");
  sum.lines.insert(sum.lines.end(), other.lines.begin(), other.lines.end());
  return sum;
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

double PlaceSteps::cutter_across(const Operation& o) const {
  const auto* tool = build_.find<Tool>(o.tool);
  return tool && tool->size > 0 ? tool->size : o.size;
}

/// Why it gives under the cut; empty: nothing says it does.
std::string PlaceSteps::gives(const Operation& o) const {
  constexpr double far_out = 4; // times: the work its grip, a cutter its width (common practice)
  if (soft_) return "it is held softly";
  if (setup_.grip > 0 && setup_.overhang > far_out * setup_.grip) return "it stands far out for its grip";
  const auto* tool = build_.find<Tool>(o.tool);
  if (tool && tool->size > 0 && tool->reach > far_out * tool->size) return "a long cutter";
  return {};
}

std::string PlaceSteps::turn_at(const Operation& o, double across) const {
  const auto* part = build_.find<Part>(setup_.part);
  const double speed = part ? cutting::cutting_speed(part->material, cutting::ToolMetal::high_speed) : 0;
  if (speed <= 0 || across <= 0) return {};
  // A reamer at half, a tap at a quarter of what cuts there; what gives at two thirds (common practice).
  double share = o.kind == OperationKind::ream ? 0.5 : o.kind == OperationKind::tap ? 0.25 : 1;
  const auto loose = gives(o);
  if (!loose.empty()) share *= 2.0 / 3;
  const double wanted = cutting::revolutions(share * speed, across);
  const auto why = fmt::format("high-speed steel, {:.3g} m/min{}", share * speed,
                               loose.empty() ? "" : ", a third less: " + loose);
  const auto has = cutting::speeds_of(machine_.speeds);
  if (has.speeds.empty())
    return fmt::format("turn at about {:.0f} rev/min or slower ({})", std::round(wanted / 10) * 10, why);
  const double turns = has.stepless ? std::round(has.below(wanted)) : has.below(wanted);
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
  step.words = fmt::format("{} {}{}. {}Set Z to", held_.lathe ? "Touch" : "Bring it down on",
                           face.face != 0 ? surface_name(build_, face.face) : place.name,
                           block_ > 0 ? fmt::format(", {} between", text(block_)) : std::string(),
                           soft_ ? "It is held against something soft: set it anew for every piece. " : "");
  step.ask = "Over a block or paper? How thick is it? Not set: + and what Z reads";
  return step;
}

/// What has still to come off the face it begins at is cut through as well; what nobody knows is told.
void PlaceSteps::metal_in_the_way(BenchStep& step, const MetalOver& over) const {
  if (over.mm > 0)
    step.sum.lines.push_back({"still to come off " + surface_name(build_, over.face), over.mm, "allowance"});
  if (over.rough)
    step.words = fmt::format("What stands over {} nobody has measured: it comes on top. {}",
                             surface_name(build_, over.face), step.words);
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
  metal_in_the_way(step, height.face);
  if (f.both_ways && !mouth) metal_in_the_way(step, places_.over(place.at - f.deep * place.out, -place.out));
  if (f.both_ways && !mouth) {
    const double across = o.size > 0 ? o.size : f.across;
    if (o.kind == OperationKind::drill)
      step.sum.lines.push_back({fmt::format("point of the drill, {} of its diameter", options_.point),
                                options_.point * across, "118\u00B0"});
    if (o.kind == OperationKind::ream)
      step.sum.lines.push_back({fmt::format("lead of the reamer, {} of its diameter", options_.lead),
                                options_.lead * across, "chosen"});
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
    if ((mouths[k] - mouths[0]).norm() > (mouths[farthest] - mouths[0]).norm() + no_longer) farthest = k;
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

} // namespace datrin::steps
