#include "steps/zero_steps.h"

#include "build/rows.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "readings/size_now.h"
#include "route/card.h"
#include "route/propose.h"
#include "steps/zeroing.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

const Setup& setup_of(const Build& build, const BenchInput& in) {
  return *build.find<Setup>(in.setup);
}

const Machine* machine_of(const Build& build, const BenchInput& in) {
  return build.find<Machine>(setup_of(build, in).machine);
}

double resolution(const Build& build, const BenchInput& in) {
  const auto* machine = machine_of(build, in);
  return machine ? machine->resolution : Machine{}.resolution;
}

std::vector<double> touches_in(const std::string& text) {
  std::vector<double> touches;
  for (const auto word : words_of(text)) {
    double mm = 0;
    std::from_chars(word.data(), word.data() + word.size(), mm);
    touches.push_back(mm);
  }
  return touches;
}

void add_touch(std::string& touches, double mm) {
  touches += fmt::format("{}{:.5f}", touches.empty() ? "" : " ", mm);
}

bool is_inside(const PartSurface& s) {
  return s.kind == SurfaceKind::bore;
}

/// mm by the reading of its diameter, where that was taken exactly; 0: not known.
double measured_across(const Build& build, const BenchInput& in, Id surface) {
  for (const auto& [id, d] : build.dimensions_of(setup_of(build, in).part)) {
    if (d.surface != surface || d.kind != DimensionKind::size) continue;
    const auto now = readings::size_now(build, {id, in.piece});
    if (now.settled()) return now.value;
  }
  return 0;
}

/// What the touches kept of a zero say.
Zero reckoned(const Build& build, const BenchInput& in, const BenchZero& zero, double towards) {
  const auto* on = build.find<PartSurface>(zero.datum);
  if (!on) return {};
  ZeroInput of;
  of.touches = touches_in(zero.touches);
  of.other = touches_in(zero.other_touches);
  of.both_sides = on->round();
  of.inside = is_inside(*on);
  of.size = measured_across(build, in, zero.datum);
  of.towards = towards;
  of.finder = zero.finder;
  of.resolution = resolution(build, in);
  return find_zero(of);
}

/// In this setup the piece before came against the same stop: the datum should be where it was.
std::optional<double> where_it_was(const Build& build, const BenchInput& in, std::size_t axis, Id datum) {
  if (!setup_of(build, in).stop) return std::nullopt;
  const BenchZero* last = nullptr;
  for (const auto& [id, z] : build.of<BenchZero>(in.setup))
    if (z.setup == in.setup && z.found && !z.lost && z.axis == static_cast<MachineAxis>(axis) &&
        z.datum == datum && z.piece != in.piece && (!last || z.at >= last->at))
      last = build.find<BenchZero>(id);
  return last ? std::optional(last->shows) : std::nullopt;
}

class ZeroSteps {
public:
  ZeroSteps(const Build& build, const BenchInput& in, const Places& places, std::size_t axis, double finder)
      : build_(build), in_(in), axis_(axis), zero_(places.zero(axis)), finder_(finder),
        count_(counting(build, in, axis, zero_.surface)), now_(zero_now(build, in, axis, zero_.surface)),
        key_(axis == 0 ? "zero-x" : "zero-y"), axes_(route::machine_axes(places.held())) {}

  std::vector<BenchStep> all() const {
    if (!zero_.known()) return {};
    if (!zero_.on->round()) return face();
    return zero_.made_here ? by_the_lines() : middle();
  }

private:
  const char* axis() const { return axis_names[axis_]; }
  std::string text(double mm) const {
    return length_text(mm, route::machine_unit(build_, setup_of(build_, in_)),
                       {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  }
  BenchStep step(std::string key, std::string title, bool done) const {
    BenchStep made;
    made.key = std::move(key);
    made.kind = StepKind::zero;
    made.title = std::move(title);
    made.done = done;
    made.surface = zero_.surface;
    made.lit = {zero_.surface};
    made.axis = axis();
    made.at = zero_.on->point;
    made.datum = zero_.on->name;
    made.finder = finder_;
    return made;
  }
  std::vector<double> touches() const {
    return now_ ? touches_in(now_->second.touches) : std::vector<double>{};
  }
  bool found() const { return now_ && now_->second.found; }

  /// The finder stands outside the metal: the spindle half of it further out than the face.
  std::vector<BenchStep> face() const {
    const double outside = count_.sense * zero_.sense * finder_ / 2;
    const auto before = where_it_was(build_, in_, axis_, zero_.surface);
    auto first = step(key_, "Find " + zero_.on->name, !touches().empty());
    first.number = before.value_or(0) + outside;
    first.looks = zero_.on->direction.normalized();
    first.words =
        before ? fmt::format("The piece before stood against it here. Touch it: {} should read", axis())
               : fmt::format("Touch it with the finder, {} across. Set {} to", text(finder_), axis());
    first.ask =
        before ? "What does it read? Enter: that" : fmt::format("Not set? What does {} read there?", axis());
    first.sum = {fmt::format("{} at the touch", axis()),
                 {{zero_.on->name, before.value_or(0), before ? "the piece before" : "the datum is 0"},
                  {"half the finder, outside it", outside, "finder"}},
                 {}};
    auto again = step(key_ + "-again", fmt::format("{}, once more", zero_.on->name), found());
    again.looks = first.looks;
    const auto read = touches();
    again.number = read.empty() ? *first.number : read.back();
    again.words = fmt::format("Back off, and touch it again. {} should read", axis());
    again.ask = "What does it read? Enter: the same";
    again.sum = {
        fmt::format("{} at the second touch", axis()), {{"the touch before", *again.number, "read"}}, {}};
    if (read.size() > 1 && !found())
      again.words = fmt::format("The last two were {} apart: a burr, a chip, something soft behind it? Clean "
                                "it, and touch it until two agree. {} should read",
                                text(std::abs(read.back() - read[read.size() - 2])), axis());
    return {first, again};
  }

  std::vector<BenchStep> middle() const {
    const bool inside = is_inside(*zero_.on);
    const auto read = touches();
    auto first = step(key_, "Find the middle of " + zero_.on->name, !read.empty() || found());
    const char* side = axis_ == 0 ? "left" : "near";
    first.number = 0;
    first.words = fmt::format(fmt::runtime(inside ? "Touch its {} wall from inside. Set {} to"
                                                  : "Touch it from the {} side. Set {} to"),
                              side, axis());
    first.ask = fmt::format("Not set? What does {} read there?", axis());
    first.sum = {fmt::format("{} at the first touch", axis()), {{"the side met first", 0, "set"}}, {}};
    touched_at(first, -1);
    auto other = step(key_ + "-other", "The other side of " + zero_.on->name, found());
    const double start = read.empty() ? 0 : read.back();
    other.sum = {fmt::format("{} at the other touch", axis()),
                 {{"the side met first", start, "read"},
                  {zero_.on->name + " across", count_.sense * zero_.on->diameter, "drawing"},
                  {inside ? "less the finder" : "and the finder", (inside ? -1 : 1) * count_.sense * finder_,
                   "finder"}},
                 {}};
    other.number = other.sum.total();
    touched_at(other, 1);
    other.words = fmt::format("Touch the other side, the finder {} across. By the drawing {} should read",
                              text(finder_), axis());
    other.ask = "What does it read? Enter: halved there, 0 in the middle";
    return {first, other};
  }

  /// Its side that way along the axis, −1 the left or near one: where it is touched, and how it looks there.
  void touched_at(BenchStep& step, double side) const {
    const Vec3 along = axes_.row(static_cast<Eigen::Index>(axis_)).transpose();
    step.at = zero_.on->point + side * zero_.on->diameter / 2 * along;
    step.looks = (is_inside(*zero_.on) ? -side : side) * along;
  }

  /// What is cut in this setup: its middle is where the spindle is put.
  std::vector<BenchStep> by_the_lines() const {
    auto only = step(key_, "Find the middle of " + zero_.on->name, found());
    only.number = 0;
    only.sum = {axis(), {{"the middle of " + zero_.on->name, 0, "the datum is 0"}}, {}};
    only.words =
        fmt::format("It is cut here: put the spindle where its middle is to be, by the lines or as the "
                    "metal lets it, and set {} to",
                    axis());
    only.ask = fmt::format("Not set? What does {} read there?", axis());
    return {only};
  }

  const Build& build_;
  const BenchInput& in_;
  std::size_t axis_;
  AxisZero zero_;
  double finder_;
  Counting count_;
  std::optional<std::pair<Id, BenchZero>> now_;
  std::string key_;
  Mat3 axes_;
};

std::size_t axis_of(const BenchStep& step) {
  return step.axis == "X" ? 0 : step.axis == "Y" ? 1 : 2;
}

} // namespace

std::optional<std::pair<Id, BenchZero>> zero_now(const Build& build, const BenchInput& input,
                                                 std::size_t axis, Id datum, Id operation) {
  const auto all = build.bench_zeros_of(input.piece, input.setup);
  const auto found = std::find_if(all.rbegin(), all.rend(), [&](const auto& z) {
    return z.second.axis == static_cast<MachineAxis>(axis) && z.second.datum == datum &&
           z.second.operation == operation && !z.second.lost;
  });
  return found == all.rend() ? std::nullopt : std::optional(*found);
}

Counting counting(const Build& build, const BenchInput& input, std::size_t axis, Id datum, Id operation) {
  Counting count;
  if (const auto* machine = machine_of(build, input))
    count.sense =
        lower_case(machine->reversed).find(lower_case(axis_names[axis])) != std::string::npos ? -1 : 1;
  const auto now = zero_now(build, input, axis, datum, operation);
  if (!now || !now->second.found) return count;
  count.shows = now->second.shows;
  count.uncertainty = now->second.uncertainty;
  count.found = true;
  return count;
}

double finder_across(const Build& build, const BenchInput& input, double usual) {
  if (const auto here = build.bench_place_of(input.piece, input.setup); here && here->second.finder > 0)
    return here->second.finder;
  const BenchPlace* last = nullptr;
  for (const auto& [id, place] : build.all<BenchPlace>())
    if (place.finder > 0 && (!last || place.at > last->at)) last = build.find<BenchPlace>(id);
  return last ? last->finder : usual;
}

std::vector<BenchStep> zero_steps(const Build& build, const BenchInput& input, const Places& places,
                                  std::size_t axis, double finder) {
  return ZeroSteps(build, input, places, axis, finder).all();
}

StepTaken take_touch(const Build& build, const BenchInput& input, const BenchStep& step,
                     std::optional<double> read, const std::string& at) {
  StepTaken out;
  const auto* on = build.find<PartSurface>(step.surface);
  if (!on || !step.number) return StepTaken::refused("its datum is not there any more");
  const std::size_t axis = axis_of(step);
  const auto now = zero_now(build, input, axis, step.surface);
  const auto before = counting(build, input, axis, step.surface);
  BenchZero zero;
  if (now) zero = now->second;
  zero.piece = input.piece;
  zero.setup = input.setup;
  zero.axis = static_cast<MachineAxis>(axis);
  zero.datum = step.surface;
  zero.finder = step.finder;
  zero.at = at;
  const auto unit = route::machine_unit(build, setup_of(build, input));
  const auto text = [&](double mm) {
    return length_text(mm, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  };
  const bool other = step.key.ends_with("-other");
  constexpr double agree = ZeroOptions{}.agree;
  if (read && step.key.ends_with("-again") && std::abs(*read) > agree) {
    const double last = *step.number;
    for (const double as : {*read * mm_per_inch, *read / mm_per_inch})
      if (std::abs(as - last) < 2 * agree && std::abs(*read - last) > agree)
        return StepTaken::refused(
            fmt::format("it looks as if the read-out shows the other unit: it read {} before", text(last)));
  }
  const bool one_place = on->round() && !other && contains(setup_of(build, input).cuts, step.surface);
  add_touch(other ? zero.other_touches : zero.touches, read.value_or(*step.number));
  Zero found;
  if (one_place || (other && !read)) { // set, or halved there
    found.status = ZeroStatus::found;
    found.shows = one_place ? read.value_or(*step.number) : 0;
    found.uncertainty = other ? agree : resolution(build, input); // of halving nothing is told
    if (other) zero.other_touches.clear();
  } else {
    // The spindle moves against the way the face looks to meet it.
    const auto out_of = route::machine_axes({route::way_of_setup(build, setup_of(build, input)), false});
    const double looks = (out_of * on->direction.normalized())[static_cast<Eigen::Index>(axis)];
    found = reckoned(build, input, zero, looks > 0 ? -before.sense : before.sense);
  }
  if (found.status == ZeroStatus::refused) return StepTaken::refused(found.message);
  zero.found = found.found();
  zero.shows = found.found() ? found.shows : 0;
  zero.uncertainty = found.found() ? found.uncertainty : 0;
  if (found.status == ZeroStatus::apart)
    out.told = fmt::format("the last two are {} apart: touch it once more", text(found.apart));
  if (zero.found) {
    out.told = fmt::format("{} reads {} at {}{}, \u00B1{}", step.axis, text(zero.shows),
                           on->round() ? "the middle of " : "", on->name, text(zero.uncertainty));
    constexpr double not_its_size = 0.3; // mm
    if (found.across > 0 && std::abs(found.across - on->diameter) > not_its_size)
      out.told +=
          fmt::format(". By the touches it is {} across, by the drawing {}: touched beside its middle, "
                      "or another finder?",
                      text(found.across), text(on->diameter));
  }
  Rows rows(build);
  if (now)
    rows.set(now->first, zero);
  else
    rows.add(zero);
  out.edit = rows.edit(fmt::format("Touch {}, {}", on->name, step.axis));
  return out;
}

Edit height_found(const Build& build, const BenchInput& input, const BenchStep& step, double shows,
                  const std::string& at) {
  BenchZero zero;
  zero.piece = input.piece;
  zero.setup = input.setup;
  zero.axis = MachineAxis::z;
  zero.datum = step.surface;
  zero.operation = step.operation;
  add_touch(zero.touches, shows);
  zero.shows = shows - step.number.value_or(0);
  zero.uncertainty = resolution(build, input);
  zero.found = true;
  zero.at = at;
  Rows rows(build);
  rows.add(zero);
  return rows.edit("Set Z" + (step.datum.empty() ? "" : " on " + step.datum));
}

Edit touch_again(const Build& build, const BenchInput& input, const BenchStep& step, const std::string& at) {
  const bool second = step.key.ends_with("-again") || step.key.ends_with("-other");
  const auto now = zero_now(build, input, axis_of(step), step.surface);
  if (!second || !now) return lose_zero(build, input, step, at);
  Rows rows(build);
  auto lost = now->second, kept = now->second;
  lost.lost = true;
  kept.found = false;
  kept.shows = kept.uncertainty = 0;
  kept.other_touches.clear();
  kept.touches = kept.touches.substr(0, kept.touches.find(' '));
  kept.at = lost.at = at;
  rows.set(now->first, lost);
  rows.add(kept);
  return rows.edit("Touch again, " + step.axis);
}

Edit lose_zero(const Build& build, const BenchInput& input, const BenchStep& step, const std::string& at) {
  if (step.axis.empty()) return {};
  Rows rows(build);
  bool any = false;
  // Z is set with every tool: it leaves no record but that it was.
  if (const auto place = build.bench_place_of(input.piece, input.setup); place && axis_of(step) == 2) {
    const auto key = fmt::format("zero-z-{}", step.operation);
    auto kept = place->second;
    kept.passed.clear();
    for (const auto word : words_of(place->second.passed))
      if (word != key) kept.passed += (kept.passed.empty() ? "" : " ") + std::string(word);
    any = kept.passed != place->second.passed;
    kept.at = at;
    if (any) rows.set(place->first, kept);
  }
  for (const auto& [id, z] : build.bench_zeros_of(input.piece, input.setup)) {
    const bool of_it = z.axis == static_cast<MachineAxis>(axis_of(step)) &&
                       (z.axis != MachineAxis::z || z.operation == step.operation);
    if (z.lost || !of_it) continue;
    auto lost = z;
    lost.lost = true;
    lost.at = at;
    rows.set(id, lost);
    any = true;
  }
  return any ? rows.edit(fmt::format("Find {} again", step.axis)) : Edit{};
}

} // namespace datrin::steps
