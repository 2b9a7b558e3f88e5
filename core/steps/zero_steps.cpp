#include "steps/zero_steps.h"

#include "build/now.h"
#include "route/propose.h"
#include "steps/step_maker.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

/// In this setup the piece before came against the same stop: the datum should be where it was.
std::optional<double> where_it_was(const Build& build, const BenchInput& in, const Setup& setup,
                                   std::size_t axis, Id datum) {
  if (!setup.stop) return std::nullopt;
  const BenchZero* last = nullptr;
  for (const auto& [id, z] : build.of<BenchZero>(in.setup))
    if (z.setup == in.setup && z.found && !z.lost && !z.both_axes &&
        z.axis == static_cast<MachineAxis>(axis) && z.datum == datum && z.piece != in.piece &&
        (!last || z.at >= last->at))
      last = build.find<BenchZero>(id);
  return last ? std::optional(last->shows) : std::nullopt;
}

class ZeroSteps : public StepMaker {
public:
  ZeroSteps(const Build& build, const BenchInput& in, const BenchOptions& options, const Places& places,
            std::size_t axis, double finder)
      : StepMaker(build, in, options), places_(places), axis_(axis), zero_(places.zero(axis)),
        finder_(finder), count_(counting(build, in, axis, zero_.surface)),
        now_(zero_now(build, in, axis, zero_.surface)), key_(axis == 0 ? "zero-x" : "zero-y"),
        axes_(route::machine_axes(places.held())) {
    // Both axes were read of a face, and there is no corner with another any more: it is found as usual.
    if (now_ && now_->second.both_axes && zero_.on && !zero_.on->round() && !lies_askew(build, in, places))
      now_.reset();
  }

  std::vector<BenchStep> all() const {
    if (!zero_.known() || found_by_the_other()) return {};
    if (lies_askew(build_, in_, places_)) return points(2, "askew");
    if (now_ && now_->second.both_axes) return round_about();
    if (!zero_.has_middle()) return face();
    return zero_.made_here ? by_the_lines() : middle();
  }

  std::vector<BenchStep> still() const {
    if (!found() || now_->second.both_axes || zero_.made_here || options_.now.empty()) return {};
    const auto& zero = now_->second;
    const auto old = hours_between(std::max(zero.at, zero.checked), options_.now);
    if (!old || *old <= options_.old_zero) return {};
    auto one = step("still-" + std::string(axis_ == 0 ? "x" : "y"), "Whether the zero holds", false);
    one.number = zero_.has_middle() ? first_side(zero) : count_.shows + outside();
    if (zero_.has_middle())
      touched_at(one, -1);
    else
      one.looks = zero_.on->direction.normalized();
    one.words = fmt::format("It was found on {}. Touch {}{} once, the finder {} across: {} should read",
                            zero.at.substr(0, std::string("2026-01-01").size()),
                            zero_.has_middle() ? first_side_name() + " of " : std::string(), zero_.name(),
                            exact(finder_), axis());
    one.ask = "What does it read? Enter: that";
    one.sum = {fmt::format("{} at the touch", axis()),
               {{fmt::format("{} at {}", axis(), zero_.place()), count_.shows, "found"},
                {"from there to where the spindle stands", *one.number - count_.shows, "finder"}},
               {}};
    return {one};
  }

private:
  const char* axis() const { return axis_names[axis_]; }
  std::string exact(double mm) const {
    return length_text(mm, unit_, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  }
  BenchStep step(std::string key, std::string title, bool done) const {
    BenchStep made;
    made.key = std::move(key);
    made.kind = StepKind::zero;
    made.title = std::move(title);
    made.done = done;
    made.surface = zero_.surface;
    made.lit = {zero_.surface};
    if (zero_.opposite) made.lit.push_back(zero_.opposite_surface);
    made.axis = axis();
    made.at = zero_.on->point;
    made.datum = zero_.place();
    made.finder = finder_;
    return made;
  }
  std::vector<double> touches() const {
    return now_ ? touches_in(now_->second.touches) : std::vector<double>{};
  }
  bool found() const { return now_ && now_->second.found; }

  /// X and Y of something round are found by the same touches.
  bool found_by_the_other() const {
    if (axis_ == 0 || !zero_.on->round() || places_.zero(0).surface != zero_.surface) return false;
    const auto x = zero_now(build_, in_, 0, zero_.surface);
    return x && x->second.both_axes;
  }

  /// The spindle beside the face it touches.
  double outside() const { return count_.sense * zero_.sense * finder_ / 2; }

  std::vector<BenchStep> face() const {
    const auto before = where_it_was(build_, in_, setup_, axis_, zero_.surface);
    auto first = step(key_, "Find " + zero_.name(), !touches().empty());
    first.number = before.value_or(0) + outside();
    first.looks = zero_.on->direction.normalized();
    first.words =
        before ? fmt::format("The piece before stood against it here. Touch it: {} should read", axis())
               : fmt::format("Touch it with the finder, {} across. Set {} to", exact(finder_), axis());
    first.ask =
        before ? "What does it read? Enter: that" : fmt::format("Not set? What does {} read there?", axis());
    const auto other = places_.zero(1 - axis_);
    if (other.known() && !other.has_middle()) first.another_way = "it lies askew";
    first.sum = {fmt::format("{} at the touch", axis()),
                 {{zero_.name(), before.value_or(0), before ? "the piece before" : "the datum is 0"},
                  {"half the finder, outside it", outside(), "finder"}},
                 {}};
    auto again = step(key_ + "-again", fmt::format("{}, once more", zero_.name()), found());
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
                                exact(std::abs(read.back() - read[read.size() - 2])), axis());
    return {first, again};
  }

  std::string first_side_name() const {
    return zero_.opposite ? zero_.on->name : axis_ == 0 ? "the left" : "the near side";
  }

  /// What the read-out shows at the side met first, by what the touches said it is across.
  double first_side(const BenchZero& zero) const {
    const auto one = touches_in(zero.touches), other = touches_in(zero.other_touches);
    const double put_on = zero_.inside() ? -1 : 1;
    const double across = one.empty() || other.empty()
                              ? zero_.across
                              : std::abs(other.back() - one.back()) - put_on * zero.finder;
    return count_.shows - count_.sense * (across + put_on * finder_) / 2;
  }

  std::vector<BenchStep> middle() const {
    const bool inside = zero_.inside();
    const auto read = touches();
    auto first = step(key_, "Find " + zero_.place(), !read.empty() || found());
    const char* side = axis_ == 0 ? "left" : "near";
    first.number = 0;
    first.words = zero_.opposite
                      ? fmt::format("Touch {} with the finder, {} across. Set {} to", zero_.on->name,
                                    exact(finder_), axis())
                      : fmt::format(fmt::runtime(inside ? "Touch its {} wall from inside. Set {} to"
                                                        : "Touch it from the {} side. Set {} to"),
                                    side, axis());
    first.ask = fmt::format("Not set? What does {} read there?", axis());
    first.sum = {fmt::format("{} at the first touch", axis()), {{"the side met first", 0, "set"}}, {}};
    if (!zero_.opposite) first.another_way = "by touches at three places";
    touched_at(first, -1);
    auto other = step(key_ + "-other",
                      zero_.opposite ? zero_.opposite->name : "The other side of " + zero_.name(), found());
    const double start = read.empty() ? 0 : read.back();
    other.sum = {fmt::format("{} at the other touch", axis()),
                 {{"the side met first", start, "read"},
                  {zero_.name() + " across", count_.sense * zero_.across, "drawing"},
                  {inside ? "less the finder" : "and the finder", (inside ? -1 : 1) * count_.sense * finder_,
                   "finder"}},
                 {}};
    other.number = other.sum.total();
    touched_at(other, 1);
    other.words =
        fmt::format("Touch {}, the finder {} across. By the drawing {} should read",
                    zero_.opposite ? zero_.opposite->name : "the other side", exact(finder_), axis());
    other.ask = "What does it read? Enter: halved there, 0 in the middle";
    other.another_way = "not to be reached: by its size";
    return {first, other};
  }

  /// Its side that way along the axis, −1 the left or near one: where it is touched, and how it looks there.
  void touched_at(BenchStep& step, double side) const {
    const Vec3 along = axes_.row(static_cast<Eigen::Index>(axis_)).transpose();
    step.looks = (zero_.inside() ? -side : side) * along;
    step.at = zero_.opposite ? (side < 0 ? zero_.on : zero_.opposite)->point
                             : Vec3(zero_.on->point + side * zero_.on->diameter / 2 * along);
  }

  /// What is cut in this setup: its middle is where the spindle is put.
  std::vector<BenchStep> by_the_lines() const {
    auto only = step(key_, "Find " + zero_.place(), found());
    only.number = 0;
    only.sum = {axis(), {{zero_.place(), 0, "the datum is 0"}}, {}};
    only.words =
        fmt::format("It is cut here: put the spindle where its middle is to be, by the lines or as the "
                    "metal lets it, and set {} to",
                    axis());
    only.ask = fmt::format("Not set? What does {} read there?", axis());
    return {only};
  }

  /// Places round it, three, and a fourth that says whether they are right.
  std::vector<BenchStep> round_about() const {
    auto all = points(3, "by three places");
    auto fourth = points(4, "by three places");
    for (std::size_t k = all.size(); k < fourth.size(); ++k) {
      auto& one = fourth[k];
      const bool left_out = passed(point_key(4, 0));
      one.done = one.done || left_out;
      one.title = "Find " + zero_.place() + ": a fourth place";
      if (k == all.size()) {
        one.words = "A fourth touch says whether the three are right";
        one.ask += " Enter: no more";
        one.may_be_empty = true;
      }
      all.push_back(one);
    }
    return all;
  }

  std::string point_key(std::size_t n, std::size_t k) const {
    return fmt::format("{}-touch-{}-{}", key_, n, k == 0 ? "x" : "y");
  }

  /// X, then Y, of each of so many touches.
  std::vector<BenchStep> points(std::size_t count, const char* way) const {
    const auto read = now_ ? points_in(now_->second) : TouchedPoints{};
    std::vector<BenchStep> all;
    for (std::size_t n = 1; n <= count; ++n)
      for (std::size_t k = 0; k < 2; ++k) {
        const bool done = (k == 0 ? read.x : read.y).size() >= n && (n < count || k == 0 || !askew_apart());
        auto one = step(point_key(n, k),
                        fmt::format("Find {}, {}: touch {} of {}", zero_.place(), way, n, count), done);
        one.axis = axis_names[k];
        one.may_be_empty = false;
        one.ask = fmt::format("What does {} read?", axis_names[k]);
        one.words = k == 1 ? std::string("The same touch: both axes are read")
                    : zero_.on->round()
                        ? fmt::format("Touch it {}, the finder {} across. Both axes are read",
                                      n == 1 ? "anywhere round it" : "well away from the places before",
                                      exact(finder_))
                        : fmt::format("Touch it near its {} end, the finder {} across. Both axes are read",
                                      n == 1 ? "one" : "other", exact(finder_));
        if (!zero_.on->round()) one.looks = zero_.on->direction.normalized();
        if (n == 1 && k == 0 && read.x.empty()) one.another_way = "as usual, an axis at a time";
        all.push_back(std::move(one));
      }
    if (askew_apart()) {
      all.back().words = "The two faces are not at a right angle by these touches: a burr, a chip? Clean "
                         "them, and go back (\u2212 Enter) to what is to be touched anew";
      all.back().another_way = "taken as it is: they are not square";
    }
    return all;
  }

  /// All is touched, and it does not agree.
  bool askew_apart() const {
    return axis_ == 1 && !zero_.on->round() && now_ && !now_->second.found &&
           points_in(now_->second).whole(2);
  }

  const Places& places_;
  std::size_t axis_;
  AxisZero zero_;
  double finder_;
  Counting count_;
  std::optional<std::pair<Id, BenchZero>> now_;
  std::string key_;
  Mat3 axes_;
};

} // namespace

bool lies_askew(const Build& build, const BenchInput& input, const Places& places) {
  const auto x = places.zero(0), y = places.zero(1);
  if (!x.known() || !y.known() || x.has_middle() || y.has_middle()) return false;
  const auto now = zero_now(build, input, 0, x.surface);
  return now && now->second.both_axes;
}

std::vector<BenchStep> zero_steps(const Build& build, const BenchInput& input, const BenchOptions& options,
                                  const Places& places, std::size_t axis, double finder) {
  return ZeroSteps(build, input, options, places, axis, finder).all();
}

std::vector<BenchStep> still_steps(const Build& build, const BenchInput& input, const BenchOptions& options,
                                   const Places& places, std::size_t axis, double finder) {
  return ZeroSteps(build, input, options, places, axis, finder).still();
}

} // namespace datrin::steps
