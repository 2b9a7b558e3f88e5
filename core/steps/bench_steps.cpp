#include "steps/bench_steps.h"

#include "drawing/dimension_limits.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "readings/size_now.h"
#include "route/card.h"
#include "route/features.h"
#include "route/gate.h"
#include "route/propose.h"
#include "solid/body_form.h"
#include "steps/places.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double along_axis = 0.99;  // cosine
constexpr double on_the_axis = 0.01; // mm
constexpr std::array axis_names{"X", "Y", "Z"};

/// The finder said here; else the one said last anywhere in the build; else as is usual.
double finder_across(const Build& build, const BenchInput& in, const BenchOptions& options) {
  if (const auto here = build.bench_place_of(in.piece, in.setup); here && here->second.finder > 0)
    return here->second.finder;
  const BenchPlace* last = nullptr;
  for (const auto& [id, place] : build.all<BenchPlace>())
    if (place.finder > 0 && (!last || place.at > last->at)) last = build.find<BenchPlace>(id);
  return last ? last->finder : options.finder;
}

class Steps {
public:
  Steps(const Build& build, const BenchInput& in, const BenchOptions& options)
      : build_(build), in_(in), options_(options), setup_(*build.find<Setup>(in.setup)),
        unit_(route::machine_unit(build, setup_)), places_(build, setup_, in.plans), held_(places_.held()),
        finder_(finder_across(build, in, options)) {
    if (const auto place = build.bench_place_of(in.piece, in.setup))
      for (const auto word : words_of(place->second.passed)) passed_.emplace_back(word);
    features_ = route::features_to_make(build, setup_.part);
  }

  std::vector<BenchStep> all() {
    look_out();
    hold();
    const auto work = operations();
    zeros(work);
    out_.insert(out_.end(), work.begin(), work.end());
    sizes();
    references();
    unclamp();
    return std::move(out_);
  }

private:
  bool passed(const std::string& key) const {
    return std::find(passed_.begin(), passed_.end(), key) != passed_.end();
  }
  std::string text(double mm, int decimals = 2) const {
    return length_text(mm, unit_, {.decimals_mm = decimals, .show_unit = true});
  }
  BenchStep plain(std::string key, StepKind kind, std::string title) const {
    BenchStep step;
    step.key = std::move(key);
    step.kind = kind;
    step.title = std::move(title);
    step.done = passed(step.key);
    return step;
  }

  void look_out() {
    const auto card = route::route_card(build_, setup_.part, in_.piece);
    for (const auto& one : card.setups) {
      if (one.setup != in_.setup) continue;
      auto step = plain("look-out", StepKind::look_out, "Look out");
      for (const auto& caution : one.cautions) step.words += (step.words.empty() ? "" : "\n") + caution;
      if (!step.words.empty()) out_.push_back(std::move(step));
      return;
    }
  }

  void hold() {
    auto step = plain("hold", StepKind::hold, "Put it in");
    step.words = route::held_text(setup_, unit_);
    std::string on;
    for (const Id id : setup_.datums) on += (on.empty() ? "" : ", ") + surface_name(build_, id);
    if (!on.empty()) step.words += fmt::format("{}against {}", step.words.empty() ? "" : "\n", on);
    if (step.words.empty()) step.words = "nothing says how it is held";
    step.lit = setup_.datums;
    out_.push_back(std::move(step));
  }

  /// Zero on the datum of every axis along which something is gone to.
  void zeros(const std::vector<BenchStep>& work) {
    for (std::size_t k = 0; k < 2; ++k) {
      const bool wanted = std::any_of(work.begin(), work.end(), [&](const BenchStep& s) {
        return s.kind == StepKind::go && s.axis == axis_names[k];
      });
      const auto zero = places_.zero(k);
      if (!wanted || !zero.known()) continue;
      auto step = plain(
          fmt::format("zero-{}", k == 0 ? "x" : "y"), StepKind::zero,
          fmt::format(fmt::runtime(zero.on->round() ? "Find the middle of {}" : "Find {}"), zero.on->name));
      step.surface = zero.surface;
      step.lit = {zero.surface};
      step.axis = axis_names[k];
      step.at = zero.on->point;
      step.datum = zero.on->name;
      zero.on->round() ? zero_at_middle(step, zero) : zero_at_face(step, zero);
      out_.push_back(std::move(step));
    }
  }
  void zero_at_middle(BenchStep& step, const AxisZero& zero) const {
    step.number = 0;
    step.sum = {step.axis, {{"the middle of " + zero.on->name, 0, "the datum is 0"}}, {}};
    step.words =
        zero.made_here
            ? fmt::format("It is cut here: put the spindle where its middle is to be, by the lines or "
                          "as the metal lets it, and set {} to",
                          step.axis)
            : fmt::format("Touch it on both sides along {0}, go back half of what it moved, set {0} to",
                          step.axis);
  }
  /// The finder stands outside the metal: the spindle half of it further out than the face.
  void zero_at_face(BenchStep& step, const AxisZero& zero) const {
    step.number = zero.sense * finder_ / 2;
    step.words = fmt::format("Touch it twice with a finder {} across. When both agree, set {} to",
                             text(finder_, 1), step.axis);
    step.ask = "Another finder? How much is it across?";
    step.sum = {
        step.axis + " at the touch",
        {{zero.on->name, 0, "the datum is 0"}, {"half the finder, outside it", *step.number, "finder"}},
        {}};
  }

  std::vector<BenchStep> operations() {
    std::vector<BenchStep> work;
    for (const auto& [id, o] : build_.operations_of(setup_.part)) {
      if (o.setup != in_.setup) continue;
      const auto before = work.size();
      const bool done = build_.done_of(in_.piece, id).has_value();
      for (const auto& f : features_) {
        if (!route::makes(o, f)) continue;
        if (goes_along_the_tool(o, f))
          holes(id, o, f, done, work);
        else
          for (const Id surface : f.surfaces) passes(id, surface, work);
      }
      // Hole by hole it is ticked off when the last is done; passes are told by what they leave.
      const auto any = [&](StepKind kind) {
        return std::any_of(work.begin() + static_cast<std::ptrdiff_t>(before), work.end(),
                           [&](const BenchStep& s) { return s.kind == kind; });
      };
      if (any(StepKind::cut) && !any(StepKind::deep)) continue;
      auto step = plain(fmt::format("done-{}", id), StepKind::tick, route::operation_text(build_, o));
      step.operation = id;
      step.lit = o.surfaces;
      step.words = o.note.empty() ? std::string("Enter when it is done.") : o.note;
      if (!o.deferred.empty()) step.words += "\nStill to be decided: " + o.deferred;
      step.done = done;
      work.push_back(std::move(step));
    }
    return work;
  }

  /// What is drilled, bored, reamed, tapped along the tool, or sunk at its mouth.
  bool goes_along_the_tool(const Operation& o, const route::Feature& f) const {
    const bool hole = f.shape == route::FeatureShape::hole || f.shape == route::FeatureShape::taper_hole;
    const bool kind = o.kind == OperationKind::drill || o.kind == OperationKind::ream ||
                      o.kind == OperationKind::tap || o.kind == OperationKind::bore ||
                      route::works_mouth(build_, o);
    return hole && kind && std::abs(f.way.dot(held_.way)) > along_axis;
  }

  void holes(Id id, const Operation& o, const route::Feature& f, bool done, std::vector<BenchStep>& work) {
    const auto mouths = route::mouths_of(build_, setup_.part, f);
    const bool turned = f.way.dot(held_.way) < 0; // from its other end
    const bool by_passes = o.kind == OperationKind::bore &&
                           std::any_of(f.surfaces.begin(), f.surfaces.end(), [&](Id s) { return is_cut(s); });
    const bool each = f.surfaces.size() == mouths.size(); // a wall a hole
    for (std::size_t n = 0; n < mouths.size(); ++n) {
      Hole hole{id,
                n,
                mouths.size() > 1 ? fmt::format("{}, {} of {}", f.name, n + 1, mouths.size()) : f.name,
                turned ? Vec3(mouths[n] - f.deep * f.way) : mouths[n],
                turned ? Vec3(-f.way) : f.way,
                done};
      if (!held_.lathe)
        for (std::size_t k = 0; k < 2; ++k) go(hole, k, work);
      if (!by_passes)
        deep(hole, o, f, work);
      else if (each)
        passes(id, f.surfaces[n], work);
      else if (n + 1 == mouths.size())
        for (const Id surface : f.surfaces) passes(id, surface, work);
    }
  }

  /// One of the holes of an operation, as the tool comes to it.
  struct Hole {
    Id operation;
    std::size_t n; ///< from 0
    std::string name;
    Vec3 at, out; ///< its mouth; out of the metal
    bool done;
  };

  void go(const Hole& hole, std::size_t k, std::vector<BenchStep>& work) const {
    const auto zero = places_.zero(k);
    auto step = plain(fmt::format("go-{}-{}-{}", hole.operation, hole.n + 1, k == 0 ? "x" : "y"),
                      StepKind::go, hole.name);
    step.operation = hole.operation;
    step.axis = axis_names[k];
    step.done = step.done || hole.done;
    step.at = hole.at;
    if (zero.known()) {
      step.sum = places_.along(k, hole.at);
      step.sum.title = fmt::format("{} of {}", step.axis, hole.name);
      step.number = step.sum.total();
      step.datum = zero.on->name;
      step.from = zero.on->point;
      step.words = fmt::format("{0} is 0 at {1}{2}. Move until {0} reads", step.axis,
                               zero.on->round() ? "the middle of " : "", zero.on->name);
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
    work.push_back(std::move(step));
  }

  /// How deep, from the face as it is now: what is still to come off it is drilled through as well.
  void deep(const Hole& hole, const Operation& o, const route::Feature& f,
            std::vector<BenchStep>& work) const {
    const bool mouth = route::works_mouth(build_, o);
    const double drawn = mouth ? mouth_depth(f) : f.deep;
    auto step = plain(fmt::format("deep-{}-{}", hole.operation, hole.n + 1), StepKind::deep, hole.name);
    step.operation = hole.operation;
    step.lit = f.surfaces;
    step.done = step.done || hole.done;
    step.at = hole.at;
    const auto what = route::operation_text(build_, o);
    if (drawn <= 0) {
      step.words = what + (mouth ? ", until its mouth measures what is drawn" : ", as deep as it goes");
      work.push_back(std::move(step));
      return;
    }
    step.axis = held_.lathe ? "" : "Z";
    step.words =
        fmt::format("{}, from its mouth{}", what, held_.lathe ? ", so deep" : " at 0, until Z reads");
    step.ask = "What does it read?";
    step.sum = {"depth", {{mouth ? "its mouth" : f.name, drawn, "drawing"}}, {}};
    const auto metal = [&](const Vec3& at, const Vec3& out) {
      const auto over = places_.over(at, out);
      if (over.mm > 0)
        step.sum.lines.push_back(
            {"still to come off " + surface_name(build_, over.face), over.mm, "allowance"});
      if (over.rough)
        step.words = fmt::format("What stands over {} nobody has measured: it comes on top. {}",
                                 surface_name(build_, over.face), step.words);
    };
    metal(hole.at, hole.out);
    if (f.both_ways && !mouth) metal(hole.at - f.deep * hole.out, -hole.out);
    if (f.both_ways && !mouth && o.kind == OperationKind::drill) {
      const double across = o.size > 0 ? o.size : f.across;
      step.sum.lines.push_back({fmt::format("point of the drill, {} of its diameter", options_.point),
                                options_.point * across, "118\u00B0"});
      step.sum.lines.push_back({"through, and clear", options_.clear, "chosen"});
    }
    if (!held_.lathe)
      for (auto& line : step.sum.lines) line.mm = -line.mm; // Z counts up
    step.number = step.sum.total();
    if (const auto off = held_.lathe ? places_.off_axis(hole.at) : std::nullopt; off && *off > on_the_axis)
      step.words = fmt::format(
          "It lies {} off the axis the part turns about: not with the tailstock as it is held. {}",
          text(*off), step.words);
    work.push_back(std::move(step));
  }
  double mouth_depth(const route::Feature& f) const {
    const auto* body = build_.find<Body>(f.body);
    return body ? solid::form_of(*body)[BodyRole::mouth_depth] : 0;
  }

  const allowance::SurfacePlan* plan_of(Id surface) const {
    const auto found =
        std::find_if(in_.plans.begin(), in_.plans.end(), [&](const auto& p) { return p.surface == surface; });
    return found == in_.plans.end() ? nullptr : &*found;
  }

  bool is_cut(Id surface) const { return plan_of(surface) && contains(setup_.cuts, surface); }

  /// Once in a setup, whatever operations it is cut in.
  void passes(Id id, Id surface, std::vector<BenchStep>& work) {
    if (!is_cut(surface) || !listed_.insert(surface).second) return;
    const auto& plan = *plan_of(surface);
    const std::size_t made = plan.cuts.size();
    const bool more = plan.state != allowance::SurfaceState::finished && plan.rest.usable();
    const std::size_t all = made + (more ? plan.rest.passes.size() : 0);
    const auto cut = [&](std::size_t n) {
      auto step =
          plain(fmt::format("cut-{}-{}", surface, n + 1), StepKind::cut,
                all > 1 ? fmt::format("{}, cut {} of {}", plan.drawn.name, n + 1, all) : plan.drawn.name);
      step.surface = surface;
      step.operation = id;
      step.lit = {surface};
      step.ask = plan.drawn.round() ? "What does it measure?" : "How much is left, or what is it across?";
      step.done = n < made;
      return step;
    };
    for (std::size_t n = 0; n < all; ++n) {
      auto step = cut(n);
      if (!step.done) to_cut(step, plan, n);
      work.push_back(std::move(step));
    }
    if (all > 0) return;
    auto step = cut(0);
    step.words = "Nothing is known of the metal over it yet: touch it, or say under Stock what it is made "
                 "from. Enter goes on.";
    step.done = plan.state == allowance::SurfaceState::finished || passed(step.key);
    work.push_back(std::move(step));
  }
  static void to_cut(BenchStep& step, const allowance::SurfacePlan& plan, std::size_t n) {
    const auto& pass = plan.rest.passes[n - plan.cuts.size()];
    const auto size = plan.size_with(pass.left);
    const auto dial = plan.dial_here();
    step.number = size ? *size : pass.left;
    step.words = fmt::format("{}, {} {} by the dial. Cut until it {}", allowance::pass_name(pass.kind),
                             allowance::dial_text(pass.depth, dial), unit_name(dial.unit),
                             size ? "measures" : "leaves");
    step.sum = allowance::level_sum(plan, static_cast<int>(n)); // counts the cuts made first
    step.planned_left = pass.left;
    step.may_be_empty = false;
  }

  void sizes() {
    for (const Id id : setup_.sizes) {
      const auto* d = build_.find<Dimension>(id);
      if (!d) continue;
      const auto now = readings::size_now(build_, {id, in_.piece});
      auto step = plain(fmt::format("read-{}", id), StepKind::read, d->name);
      step.dimension = id;
      step.surface = d->surface;
      step.lit = {d->surface};
      step.done = now.settled() && d->allows(now.value);
      step.is_angle = d->kind == DimensionKind::angle;
      step.number = d->nominal;
      step.words = fmt::format("Measure it while it is held: {}", drawing::dimension_text(*d, unit_));
      step.sum = {d->name, {{"nominal", d->nominal, "drawing"}}, {}};
      step.ask = "What does it measure?";
      step.may_be_empty = false;
      out_.push_back(std::move(step));
    }
  }

  void references() {
    for (const Id id : setup_.marks) {
      auto step =
          plain(fmt::format("leave-{}", id), StepKind::leave, "Scribe or cut " + surface_name(build_, id));
      step.surface = id;
      step.lit = {id};
      step.words = "A later setup locates from it: do it before the part is unclamped.";
      step.done = !build_.cuts_of(in_.piece, id).empty();
      out_.push_back(std::move(step));
    }
  }

  void unclamp() {
    const auto gate = route::unclamp_gate(build_, in_.piece, in_.setup, in_.plans);
    auto step = plain("unclamp", StepKind::unclamp, "Unclamp it");
    step.words = gate.open == 0 ? std::string("Everything is there. Support it before it is loosened.")
                                : "Not yet: " + route::still_missing(gate) + ".";
    step.done = build_.release_of(in_.piece, in_.setup).has_value();
    step.may_be_empty = gate.open == 0;
    out_.push_back(std::move(step));
  }

  const Build& build_;
  const BenchInput& in_;
  BenchOptions options_;
  const Setup& setup_;
  Unit unit_; ///< of the machine
  Places places_;
  route::AsHeld held_;
  double finder_; ///< mm across
  std::vector<std::string> passed_;
  std::vector<route::Feature> features_;
  std::set<Id> listed_; ///< surfaces whose passes are there
  std::vector<BenchStep> out_;
};

} // namespace

std::vector<BenchStep> bench_steps(const Build& build, const BenchInput& input, const BenchOptions& options) {
  if (!build.find<Setup>(input.setup) || !build.find<Piece>(input.piece)) return {};
  return Steps(build, input, options).all();
}

int step_to_do(const std::vector<BenchStep>& steps) {
  const auto found = std::find_if(steps.begin(), steps.end(), [](const BenchStep& s) { return !s.done; });
  return found == steps.end() ? -1 : static_cast<int>(found - steps.begin());
}

} // namespace datrin::steps
