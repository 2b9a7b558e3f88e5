#include "steps/bench_steps.h"

#include "cutting/travel_order.h"
#include "drawing/dimension_limits.h"
#include "quantity/angle.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "readings/size_now.h"
#include "route/card.h"
#include "route/features.h"
#include "route/gate.h"
#include "route/propose.h"
#include "solid/body_form.h"
#include "steps/jaw_steps.h"
#include "steps/mate_steps.h"
#include "steps/off_the_face.h"
#include "steps/place_steps.h"
#include "steps/places.h"
#include "steps/zero_steps.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double along_axis = 0.99; // cosine

class Steps : public StepMaker {
public:
  Steps(const Build& build, const BenchInput& in, const BenchOptions& options)
      : StepMaker(build, in, options), places_(build, setup_, in.plans), held_(places_.held()),
        to_places_(build, in, options, places_), mates_(build, in, options),
        finder_(finder_across(build, in, options.finder)),
        features_(route::features_to_make(build, setup_.part)) {}

  std::vector<BenchStep> all() {
    look_out();
    hold();
    JawSteps(build_, in_, options_).true_up(out_);
    const auto work = operations();
    zeros(work);
    out_.insert(out_.end(), work.begin(), work.end());
    sizes();
    references();
    unclamp();
    return std::move(out_);
  }

private:
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

  /// Zero on the datum of every axis along which something is gone to; before it what it is touched with.
  void zeros(const std::vector<BenchStep>& work) {
    std::vector<BenchStep> touches, still;
    const bool askew = lies_askew(build_, in_, places_); // both, to know either
    for (std::size_t k = 0; k < 2; ++k) {
      const auto along = [&](const BenchStep& s) { // counted from a datum; of what is turned X is its size
        return s.kind == StepKind::go && s.axis == axis_names[k] && !s.datum.empty();
      };
      if (!askew && std::none_of(work.begin(), work.end(), along)) continue;
      for (auto& step : zero_steps(build_, in_, options_, places_, k, finder_))
        touches.push_back(std::move(step));
      if (std::any_of(work.begin(), work.end(), [&](const BenchStep& s) { return along(s) && !s.done; }))
        for (auto& step : still_steps(build_, in_, options_, places_, k, finder_))
          still.push_back(std::move(step));
    }
    const bool with_finder = std::any_of(touches.begin(), touches.end(), [](const BenchStep& s) {
      return s.key.ends_with("-again") || s.key.ends_with("-other") ||
             s.key.find("-touch-") != std::string::npos;
    });
    if (with_finder) {
      auto step = plain("finder", StepKind::zero, "The finder");
      step.number = finder_;
      step.sum = {"finder, across", {{"as it was said last", finder_, "or 6 mm"}}, {}};
      step.words =
          "Put it in the spindle. With a block between it and the work, add twice the block. It is across";
      step.ask = "Another? How much is it across? Enter: that";
      if (std::all_of(touches.begin(), touches.end(), [](const BenchStep& s) { return s.done; }))
        step.done = true;
      out_.push_back(std::move(step));
    }
    out_.insert(out_.end(), touches.begin(), touches.end());
    out_.insert(out_.end(), still.begin(), still.end());
  }

  std::vector<BenchStep> operations() {
    std::vector<BenchStep> work;
    for (const auto& [id, o] : build_.operations_of(setup_.part)) {
      if (o.setup != in_.setup) continue;
      const auto before = work.size();
      const bool done = build_.done_of(in_.piece, id).has_value();
      if (o.kind == OperationKind::trial) mates_.trials(id, o, done, work);
      for (const auto& f : features_) {
        if (!route::makes(o, f) || o.kind == OperationKind::trial) continue;
        if (o.kind == OperationKind::transfer) {
          mates_.transfer(id, o, f, done, work);
          continue;
        }
        if (goes_along_the_tool(o, f))
          holes(id, o, f, done, work);
        else if (f.shape == route::FeatureShape::mark && o.kind == OperationKind::mark)
          to_places_.marks(id, f, done, work);
        else if (is_outline(o, f))
          to_places_.outline(id, o, f, done, work);
        else if (is_turned_profile(o, f))
          to_places_.turned(id, o, f, done, work);
        else
          for (const Id surface : f.surfaces) passes(id, o, surface, work);
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

  /// What is milled down into, its mouth towards the tool.
  bool is_outline(const Operation& o, const route::Feature& f) const {
    if (o.kind != OperationKind::mill || held_.lathe) return false;
    const auto* body = build_.find<Body>(f.body);
    if (f.shape == route::FeatureShape::profile)
      return body && body->shape == BodyShape::block && f.surfaces.empty();
    const bool shape = f.shape == route::FeatureShape::slot || f.shape == route::FeatureShape::pocket;
    return shape && f.way.dot(held_.way) > along_axis;
  }

  bool is_turned_profile(const Operation& o, const route::Feature& f) const {
    const auto* body = build_.find<Body>(f.body);
    return o.kind == OperationKind::turn && held_.lathe && f.shape == route::FeatureShape::profile && body &&
           body->shape == BodyShape::turned && f.surfaces.empty();
  }

  /// Holes in the order of little travel, from the one nearest to the datums on.
  std::vector<std::size_t> route_through(const std::vector<Vec3>& mouths) const {
    std::vector<Vec2> places;
    const Mat3 axes = route::machine_axes(held_);
    const auto x = places_.zero(0), y = places_.zero(1);
    for (const auto& mouth : mouths)
      places.emplace_back((axes * (mouth - (x.on ? x.on->point : Vec3(Vec3::Zero())))).x(),
                          (axes * (mouth - (y.on ? y.on->point : Vec3(Vec3::Zero())))).y());
    return cutting::travel_order(places).order;
  }

  void holes(Id id, const Operation& o, const route::Feature& f, bool done, std::vector<BenchStep>& work) {
    const auto mouths = route::mouths_of(build_, setup_.part, f);
    const bool turned = f.way.dot(held_.way) < 0; // from its other end
    const bool by_passes = o.kind == OperationKind::bore &&
                           std::any_of(f.surfaces.begin(), f.surfaces.end(), [&](Id s) { return is_cut(s); });
    const bool each = f.surfaces.size() == mouths.size(); // a wall a hole
    const auto order = route_through(mouths);
    const auto placed = solid::place_bodies(build_, setup_.part);
    for (const std::size_t n : order) {
      const ToolPlace place{id,
                            fmt::format("{}", n + 1),
                            numbered(f.name, n, mouths.size()),
                            turned ? Vec3(mouths[n] - f.deep * f.way) : mouths[n],
                            turned ? Vec3(-f.way) : f.way,
                            done};
      const auto odd = off_the_face(placed, f.body, mouths[n], f.across);
      for (std::size_t k = 0; k < 2 && !held_.lathe; ++k) {
        auto step = to_places_.go(place, k);
        if (!odd.empty()) step.words = fmt::format("Look at the drawing first: {}. {}", odd, step.words);
        work.push_back(std::move(step));
      }
      if (!by_passes)
        to_places_.hole_depth(place, o, f, work);
      else if (each)
        passes(id, o, f.surfaces[n], work);
      else if (n == order.back())
        for (const Id surface : f.surfaces) passes(id, o, surface, work);
    }
    if (mouths.size() > 1 && !held_.lathe && !route::works_mouth(build_, o))
      to_places_.chords(id, f, mouths, done, work);
  }

  const allowance::SurfacePlan* plan_of(Id surface) const {
    const auto found =
        std::find_if(in_.plans.begin(), in_.plans.end(), [&](const auto& p) { return p.surface == surface; });
    return found == in_.plans.end() ? nullptr : &*found;
  }

  bool is_cut(Id surface) const { return plan_of(surface) && contains(setup_.cuts, surface); }

  /// Once in a setup, whatever operations it is cut in.
  void passes(Id id, const Operation& o, Id surface, std::vector<BenchStep>& work) {
    if (!is_cut(surface) || !listed_.insert(surface).second) return;
    const auto& plan = *plan_of(surface);
    // What turns, as wide as it is now, or the cutter; a face that is turned has no one width.
    const double across = plan.drawn.round()
                              ? std::max(plan.drawn.diameter, plan.size_with(plan.now).value_or(0))
                          : held_.lathe ? 0
                                        : to_places_.cutter_across(o);
    const auto speed = to_places_.turn_at(o, across);
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
      step.also = speed;
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
      if (step.is_angle)
        step.sum = {d->name, {{"nominal", 0, "drawing", angle_text(d->nominal)}}, angle_text(d->nominal)};
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

  Places places_;
  route::AsHeld held_;
  PlaceSteps to_places_;
  MateSteps mates_;
  double finder_; ///< mm across
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
