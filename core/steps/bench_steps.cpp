#include "steps/bench_steps.h"

#include "build/edit_making.h"
#include "build/rows.h"
#include "drawing/dimension_limits.h"
#include "geometry/between.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "readings/size_now.h"
#include "route/card.h"
#include "route/features.h"
#include "route/gate.h"
#include "route/propose.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double along_axis = 0.99; // cosine
constexpr std::array axis_names{"X", "Y", "Z"};

class Steps {
public:
  Steps(const Build& build, const BenchInput& in, const BenchOptions& options)
      : build_(build), in_(in), options_(options), setup_(*build.find<Setup>(in.setup)) {
    held_ = {route::way_of_setup(build, setup_), route::is_turned(build, setup_)};
    axes_ = route::machine_axes(held_);
    if (const auto place = build.bench_place_of(in.piece, in.setup))
      for (const auto word : words_of(place->second.passed)) passed_.emplace_back(word);
    features_ = route::features_to_make(build, setup_.part);
    for (const Id id : setup_.datums) datum_axis(id);
    find_middle();
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
  bool passed(const std::string& key) const { return contains_word(passed_, key); }
  static bool contains_word(const std::vector<std::string>& list, const std::string& word) {
    return std::find(list.begin(), list.end(), word) != list.end();
  }
  std::string text(double mm, int decimals = 2) const {
    return length_text(mm, build_.info().unit, {.decimals_mm = decimals, .show_unit = true});
  }
  BenchStep plain(std::string key, StepKind kind, std::string title) const {
    BenchStep step;
    step.key = std::move(key);
    step.kind = kind;
    step.title = std::move(title);
    step.done = passed(step.key);
    return step;
  }

  /// A plane square to an axis of the machine is its datum, the first there is.
  void datum_axis(Id id) {
    const auto* s = build_.find<PartSurface>(id);
    if (!s || s->round()) return;
    const Vec3 out = axes_ * s->direction.normalized();
    for (int k = 0; k < 3; ++k)
      if (std::abs(out[k]) > along_axis && datums_[static_cast<std::size_t>(k)] == 0)
        datums_[static_cast<std::size_t>(k)] = id;
  }

  /// Where no plane locates it, places count from the axis of what is round about the tool: a datum, else the
  /// largest of the part.
  void find_middle() {
    double largest = 0;
    for (const auto& [id, s] : build_.surfaces_of(setup_.part)) {
      if (!s.round() || s.copy != 0 || std::abs(s.direction.normalized().dot(held_.way)) < along_axis)
        continue;
      const double counts = s.diameter + (contains(setup_.datums, id) ? 1e6 : 0);
      if (counts <= largest) continue;
      largest = counts;
      middle_ = id;
    }
  }
  /// What is 0 along an axis of the machine: a plane, or the middle of a round; null: nothing is.
  const PartSurface* zero_of(std::size_t axis) const {
    return build_.find<PartSurface>(datums_[axis] != 0 ? datums_[axis] : middle_);
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
    step.words = route::held_text(setup_, build_.info().unit);
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
      const auto* s = zero_of(k);
      if (!wanted || !s) continue;
      auto step = plain(fmt::format("zero-{}", k == 0 ? "x" : "y"), StepKind::zero,
                        fmt::format(fmt::runtime(s->round() ? "Find the middle of {}" : "Find {}"), s->name));
      step.surface = s->round() ? middle_ : datums_[k];
      step.lit = {step.surface};
      step.axis = axis_names[k];
      step.at = s->point;
      step.datum = s->name;
      if (s->round()) {
        step.number = 0;
        step.words = fmt::format(
            "Touch it on both sides along {0}, go back half of what it moved, set {0} to", axis_names[k]);
        out_.push_back(std::move(step));
        continue;
      }
      // The finder stands outside the metal: the spindle half of it further out than the face.
      const double sign = (axes_ * s->direction.normalized())[static_cast<Eigen::Index>(k)] > 0 ? 1 : -1;
      step.number = sign * options_.finder / 2;
      step.words = fmt::format("Touch it twice with a finder {} across. When both agree, set {} to",
                               text(options_.finder, 1), axis_names[k]);
      step.sum = {fmt::format("{} at the touch", axis_names[k]),
                  {{s->name, 0, "the datum is 0"}, {"half the finder, outside it", *step.number, "finder"}},
                  {}};
      out_.push_back(std::move(step));
    }
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
          passes(id, f, work);
      }
      if (work.size() == before || ends_by_ticking(o, work, before)) {
        auto step = plain(fmt::format("done-{}", id), StepKind::tick, route::operation_text(build_, o));
        step.operation = id;
        step.lit = o.surfaces;
        step.words = o.note.empty() ? std::string("Enter when it is done.") : o.note;
        if (!o.deferred.empty()) step.words += "\nStill to be decided: " + o.deferred;
        step.done = done;
        work.push_back(std::move(step));
      }
    }
    return work;
  }
  /// What is gone to hole by hole is ticked off when the last is done; passes are told by what they leave.
  static bool ends_by_ticking(const Operation&, const std::vector<BenchStep>& work, std::size_t from) {
    return std::any_of(work.begin() + static_cast<std::ptrdiff_t>(from), work.end(),
                       [](const BenchStep& s) { return s.kind == StepKind::deep; });
  }

  /// Drilled, reamed, tapped, or sunk with a cutter, along the tool.
  bool goes_along_the_tool(const Operation& o, const route::Feature& f) const {
    const bool hole = f.shape == route::FeatureShape::hole || f.shape == route::FeatureShape::taper_hole;
    const bool kind = o.kind == OperationKind::drill || o.kind == OperationKind::ream ||
                      o.kind == OperationKind::tap || (o.kind == OperationKind::bore && f.from_solid);
    return hole && kind && std::abs(f.way.dot(held_.way)) > along_axis;
  }

  void holes(Id id, const Operation& o, const route::Feature& f, bool done, std::vector<BenchStep>& work) {
    const auto mouths = route::mouths_of(build_, setup_.part, f);
    const bool turned = f.way.dot(held_.way) < 0; // from its other end
    for (std::size_t n = 0; n < mouths.size(); ++n) {
      const Vec3 at = turned ? Vec3(mouths[n] - f.deep * f.way) : mouths[n];
      const auto name =
          mouths.size() > 1 ? fmt::format("{}, {} of {}", f.name, n + 1, mouths.size()) : f.name;
      if (!held_.lathe)
        for (std::size_t k = 0; k < 2; ++k) go(id, name, at, n, k, done, work);
      if (f.deep <= 0) continue;
      auto step = plain(fmt::format("deep-{}-{}", id, n + 1), StepKind::deep, name);
      step.operation = id;
      step.lit = f.surfaces;
      step.done = step.done || done;
      const double across = o.size > 0 ? o.size : f.across;
      const bool through = f.both_ways && o.kind == OperationKind::drill;
      const double on = through ? options_.point * across + options_.clear : 0;
      step.axis = held_.lathe ? "" : "Z";
      step.number = held_.lathe ? f.deep + on : -(f.deep + on);
      step.words = fmt::format("{}, from its mouth{}", route::operation_text(build_, o),
                               held_.lathe ? ", so deep" : " at 0, until Z reads");
      step.sum = {"depth", {{f.name, -f.deep, "drawing"}}, {}};
      if (through) {
        step.sum.lines.push_back({fmt::format("point of the drill, {} of its diameter", options_.point),
                                  -options_.point * across, "118\u00B0"});
        step.sum.lines.push_back({"through, and clear", -options_.clear, "chosen"});
      }
      if (held_.lathe)
        for (auto& line : step.sum.lines) line.mm = -line.mm;
      step.at = at;
      work.push_back(std::move(step));
    }
  }

  void go(Id id, const std::string& name, const Vec3& at, std::size_t n, std::size_t k, bool done,
          std::vector<BenchStep>& work) {
    const auto* datum = zero_of(k);
    auto step = plain(fmt::format("go-{}-{}-{}", id, n + 1, k == 0 ? "x" : "y"), StepKind::go, name);
    step.operation = id;
    step.axis = axis_names[k];
    step.done = step.done || done;
    step.at = at;
    const auto row = static_cast<Eigen::Index>(k);
    if (datum) {
      step.number = (axes_ * (at - datum->point))[row];
      step.datum = datum->name;
      step.from = datum->point;
      if (std::abs(*step.number) < 1e-9) step.number = 0;
      step.words = fmt::format("{0} is 0 at {1}{2}. Move until {0} reads", step.axis,
                               datum->round() ? "the middle of " : "", datum->name);
      step.sum = {
          fmt::format("{} of {}", step.axis, name), {{"from " + datum->name, *step.number, "drawing"}}, {}};
    } else {
      step.words = fmt::format(
          "Nothing locates it along {}: find its middle there, by touching or by its lines", step.axis);
    }
    work.push_back(std::move(step));
  }

  const allowance::SurfacePlan* plan_of(Id surface) const {
    const auto found =
        std::find_if(in_.plans.begin(), in_.plans.end(), [&](const auto& p) { return p.surface == surface; });
    return found == in_.plans.end() ? nullptr : &*found;
  }

  void passes(Id id, const route::Feature& f, std::vector<BenchStep>& work) {
    for (const Id surface : f.surfaces) {
      const auto* plan = plan_of(surface);
      if (!plan || !contains(setup_.cuts, surface)) continue;
      const auto title = [&](std::size_t n, std::size_t of) {
        return of > 1 ? fmt::format("{}, cut {} of {}", plan->drawn.name, n, of) : plan->drawn.name;
      };
      const std::size_t made = plan->cuts.size();
      const std::size_t to_come = plan->state == allowance::SurfaceState::finished || !plan->rest.usable()
                                      ? 0
                                      : plan->rest.passes.size();
      for (std::size_t n = 0; n < made; ++n) {
        auto step =
            plain(fmt::format("cut-{}-{}", surface, n + 1), StepKind::cut, title(n + 1, made + to_come));
        step.surface = surface;
        step.operation = id;
        step.done = true;
        step.number = plan->cuts[n].second.left;
        step.words = "Left";
        work.push_back(std::move(step));
      }
      for (std::size_t n = 0; n < to_come; ++n) {
        const auto& pass = plan->rest.passes[n];
        auto step = plain(fmt::format("cut-{}-{}", surface, made + n + 1), StepKind::cut,
                          title(made + n + 1, made + to_come));
        step.surface = surface;
        step.operation = id;
        step.done = false;
        step.may_be_empty = false;
        step.lit = {surface};
        const auto size = plan->size_with(pass.left);
        step.number = size ? *size : pass.left;
        const auto dial = plan->dial_here();
        step.words = fmt::format("{}, {} {} by the dial. Cut until it {}", allowance::pass_name(pass.kind),
                                 allowance::dial_text(pass.depth, dial), unit_name(dial.unit),
                                 size ? "measures" : "leaves");
        step.sum = allowance::level_sum(*plan, static_cast<int>(made + n)); // counts the cuts made first
        step.planned_left = pass.left;
        step.ask = size ? "What does it measure?" : "How much is left, or what is it across?";
        work.push_back(std::move(step));
      }
      if (made + to_come == 0) {
        auto step = plain(fmt::format("cut-{}-1", surface), StepKind::cut, plan->drawn.name);
        step.surface = surface;
        step.operation = id;
        step.lit = {surface};
        step.done = plan->state == allowance::SurfaceState::finished;
        step.words =
            "Nothing is known of the metal over it yet: touch it, or say under Stock what it is made "
            "from. Enter goes on.";
        step.done = step.done || passed(step.key);
        work.push_back(std::move(step));
      }
    }
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
      step.words =
          fmt::format("Measure it while it is held: {}", drawing::dimension_text(*d, build_.info().unit));
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
  route::AsHeld held_;
  Mat3 axes_ = Mat3::Identity();
  std::array<Id, 3> datums_{0, 0, 0};
  Id middle_ = 0; ///< what is round about the tool
  std::vector<std::string> passed_;
  std::vector<route::Feature> features_;
  std::vector<BenchStep> out_;
};

BenchPlace place_or_new(const Build& build, const BenchInput& in) {
  if (const auto place = build.bench_place_of(in.piece, in.setup)) return place->second;
  BenchPlace place;
  place.piece = in.piece;
  place.setup = in.setup;
  return place;
}

void keep_place(Rows& rows, const BenchInput& in, const BenchPlace& place) {
  if (const auto old = rows.build().bench_place_of(in.piece, in.setup))
    rows.set(old->first, place);
  else
    rows.add(place);
}

void pass(Rows& rows, const BenchInput& in, const BenchStep& step, const std::string& at) {
  auto place = place_or_new(rows.build(), in);
  const auto words = words_of(place.passed);
  if (std::find(words.begin(), words.end(), step.key) == words.end())
    place.passed += (place.passed.empty() ? "" : " ") + step.key;
  place.step = step.key;
  place.at = at;
  keep_place(rows, in, place);
}

StepTaken refused(std::string why) {
  StepTaken out;
  out.wrong = std::move(why);
  return out;
}

} // namespace

std::vector<BenchStep> bench_steps(const Build& build, const BenchInput& input, const BenchOptions& options) {
  if (!build.find<Setup>(input.setup) || !build.find<Piece>(input.piece)) return {};
  return Steps(build, input, options).all();
}

int step_to_do(const std::vector<BenchStep>& steps) {
  const auto found = std::find_if(steps.begin(), steps.end(), [](const BenchStep& s) { return !s.done; });
  return found == steps.end() ? -1 : static_cast<int>(found - steps.begin());
}

namespace {

StepTaken take_cut(const Build& build, const BenchInput& input, const BenchStep& step, double mm,
                   const std::string& typed, const std::string& at) {
  const auto plan = std::find_if(input.plans.begin(), input.plans.end(),
                                 [&](const auto& p) { return p.surface == step.surface; });
  if (plan == input.plans.end()) return refused("the surface is not to be machined any more");
  // Of a plane either what is left of the metal is read, or what it is across to the face opposite: the two
  // are far apart, and the one that is nearer to what the pass was to leave is meant.
  const double planned = step.planned_left;
  std::string why, other_why;
  const auto first = plan->drawn.round() ? allowance::ReadingOf::size : allowance::ReadingOf::left;
  auto left = allowance::left_by_reading(build, *plan, first, mm, &why);
  if (!plan->drawn.round()) {
    const auto across =
        allowance::left_by_reading(build, *plan, allowance::ReadingOf::distance, mm, &other_why);
    if (across && (!left || std::abs(*across - planned) < std::abs(*left - planned))) left = across;
  }
  if (!left) return refused(why);
  auto cut = allowance::cut_of(*plan, input.pose, *left);
  cut.read = typed;
  cut.at = at;
  StepTaken out;
  out.edit = log_cut(build, cut);
  const auto text = [&](double v) {
    return length_text(v, build.info().unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  };
  const bool to_size = *left >= plan->low - 1e-9 && *left <= plan->high + 1e-9;
  out.told = to_size ? std::string("to size")
             : *left > plan->aim
                 ? fmt::format("{} still to come off a side", text(*left - plan->aim))
                 : fmt::format("{} too deep: see the gate for what can be done", text(plan->aim - *left));
  return out;
}

StepTaken take_reading(const Build& build, const BenchInput& input, const BenchStep& step, double value,
                       const std::string& typed, const std::string& at) {
  const auto& d = *build.find<Dimension>(step.dimension);
  // A reading a fifth beside what is drawn is of something else, or in another unit.
  constexpr double far_off = 0.2;
  if (d.nominal > 0 && std::abs(value - d.nominal) > far_off * d.nominal)
    return refused(fmt::format("that is far from {}: another unit, or another size?",
                               drawing::dimension_text(d, build.info().unit)));
  Measurement m;
  m.piece = input.piece;
  m.dimension = step.dimension;
  m.value = value;
  m.at = at;
  m.read = typed;
  StepTaken out;
  out.edit = add(build, m, "Read " + d.name);
  out.told = d.allows(value) ? "within its limits" : "outside its limits";
  return out;
}

} // namespace

StepTaken take_step(const Build& build, const BenchInput& input, const BenchStep& step,
                    const std::string& typed, Unit unit, const std::string& at) {
  const auto text = std::string(trimmed(typed));
  const bool reads = step.kind == StepKind::cut || step.kind == StepKind::read;
  if (text.empty() && !step.may_be_empty)
    return refused(step.kind == StepKind::unclamp
                       ? "something is missing yet: it can be unclamped all the same under Route, Gate"
                       : "type what it reads, then Enter");
  double value = 0;
  if (!text.empty() && step.is_angle) {
    const auto degrees_read = number_from(text, true);
    if (!degrees_read) return refused("type degrees, as 45.25");
    value = radians(*degrees_read);
  } else if (!text.empty()) {
    LengthOptions lengths;
    lengths.bare_unit = unit;
    lengths.decimal_comma = true;
    const auto read = parse_length(text, lengths);
    if (!read.ok()) return refused(read.message);
    value = read.mm;
  }
  if (reads && !text.empty())
    return step.kind == StepKind::cut ? take_cut(build, input, step, value, text, at)
                                      : take_reading(build, input, step, value, text, at);
  if (step.kind == StepKind::go && !text.empty() && step.number) {
    // The read-out says something else: it stands somewhere else, or shows another unit or sense.
    constexpr double there = 0.05;
    const double off = value - *step.number;
    const auto shown = [&](double v) {
      return length_text(v, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
    };
    if (std::abs(value + *step.number) < there && std::abs(off) > there)
      return refused(
          fmt::format("{} counts the other way here: it should read {}", step.axis, shown(*step.number)));
    if (std::abs(value * mm_per_inch - *step.number) < there ||
        std::abs(value / mm_per_inch - *step.number) < there)
      return refused(fmt::format("it looks as if the read-out shows the other unit: it should read {}",
                                 shown(*step.number)));
    if (std::abs(off) > there)
      return refused(
          fmt::format("{} to go: it should read {}. Is the zero lost, or the read-out in incremental?",
                      shown(-off), shown(*step.number)));
  }
  Rows rows(build);
  pass(rows, input, step, at);
  if (step.kind == StepKind::tick) rows.add(OperationDone{input.piece, step.operation, at, {}});
  if (step.kind == StepKind::leave) {
    const auto* s = build.find<PartSurface>(step.surface);
    Cut cut;
    cut.piece = input.piece;
    cut.surface = step.surface;
    cut.note = "reference";
    cut.at = at;
    cut.place = input.pose.inverse().apply(s->point);
    rows.add(cut);
  }
  if (step.kind == StepKind::unclamp) rows.add(Release{input.piece, input.setup, at, {}, {}});
  StepTaken out;
  out.edit = rows.edit(step.title + (step.axis.empty() ? "" : ", " + step.axis));
  return out;
}

Edit step_back(const Build& build, const BenchInput& input, const std::vector<BenchStep>& steps, int to,
               const std::string& at) {
  if (to < 0 || to >= static_cast<int>(steps.size())) return {};
  const auto& step = steps[static_cast<std::size_t>(to)];
  Rows rows(build);
  auto place = place_or_new(build, input);
  std::string kept;
  for (const auto word : words_of(place.passed))
    if (word != step.key) kept += (kept.empty() ? "" : " ") + std::string(word);
  place.passed = kept;
  place.step = step.key;
  place.at = at;
  keep_place(rows, input, place);
  if (step.kind == StepKind::tick)
    if (const auto done = build.done_of(input.piece, step.operation)) rows.take_away(done->first);
  return rows.edit("Back to " + step.title);
}

Edit leave_bench(const Build& build, const BenchInput& input, const std::string& step,
                 const std::string& dials, const std::string& at) {
  Rows rows(build);
  auto place = place_or_new(build, input);
  if (place.step == step && place.dials == dials) return {};
  place.step = step;
  place.dials = dials;
  place.at = at;
  keep_place(rows, input, place);
  return rows.edit("Leave the bench");
}

} // namespace datrin::steps
