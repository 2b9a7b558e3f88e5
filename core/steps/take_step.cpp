#include "steps/take_step.h"

#include "build/edit_making.h"
#include "build/edit_route.h"
#include "build/rows.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "readings/measure.h"
#include "route/card.h"
#include "steps/bench_place.h"
#include "steps/jaw_steps.h"
#include "steps/mate_steps.h"
#include "steps/take_touch.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double there = 0.05;        // mm: nearer than this the read-out stands where it should
constexpr double widest_finder = 50;  // mm
constexpr double highest_block = 300; // mm

class Taking {
public:
  Taking(const Build& build, const BenchInput& in, const BenchStep& step, const std::string& typed,
         const TakeOptions& options)
      : build_(build), in_(in), step_(step), typed_(trimmed(typed)), options_(options),
        unit_(options.lengths.bare_unit.value_or(build.info().unit)) {}

  StepTaken take() const {
    const bool touched = step_.kind == StepKind::zero && step_.surface != 0 && step_.axis != "Z";
    if (typed_.empty()) return touched ? take_touch(build_, in_, step_, {}, options_.at) : entered();
    if (typed_ == "+" && !step_.another_way.empty()) return otherwise();
    if (step_.ask.empty()) return StepTaken::refused("nothing is read here: clear the field, then Enter");
    if (step_.kind == StepKind::read) return size();
    if (step_.kind == StepKind::true_up) return take_jaws(build_, in_, step_, typed_, options_);
    if (step_.kind == StepKind::feel) return take_trial(build_, in_, step_, typed_, options_);
    const bool reads = step_.kind == StepKind::zero && step_.axis == "Z" && typed_[0] == '+'; // Z is not set
    const auto read = parse_length(reads ? typed_.substr(1) : typed_, options_.lengths);
    if (!read.ok()) return StepTaken::refused(read.message);
    if (reads) return height(read.mm);
    switch (step_.kind) {
    case StepKind::cut:
      return cut(read.mm);
    case StepKind::check:
      return checked(read.mm);
    case StepKind::zero:
      if (touched) return take_touch(build_, in_, step_, read.mm, options_.at);
      return step_.key == "finder" ? finder(read.mm) : block(read.mm);
    default:
      break;
    }
    if (const auto why = elsewhere(read.mm); !why.empty()) return StepTaken::refused(why);
    auto out = behind();
    constexpr double beside = 0.005; // mm: what a last figure is off by is not worth a word
    if (const double off = read.mm - *step_.number; std::abs(off) > beside)
      out.told = fmt::format("{} {} than it should read: taken as it is", text(std::abs(off)),
                             off > 0 ? "more" : "less");
    return out;
  }

private:
  /// The other way the step says.
  StepTaken otherwise() const {
    if (step_.kind != StepKind::note) return another_way(build_, in_, step_, options_.at);
    auto not_so = step_;
    not_so.key = "not-" + step_.key;
    Rows rows(build_);
    pass(rows, in_, step_, options_.at);
    pass(rows, in_, not_so, options_.at);
    StepTaken out;
    out.edit = rows.edit(step_.title + ": " + step_.another_way);
    return out;
  }

  StepTaken entered() const {
    if (step_.kind == StepKind::zero && step_.axis == "Z") return height(options_.shows);
    if (step_.may_be_empty) return behind();
    return StepTaken::refused(
        step_.kind == StepKind::unclamp
            ? "something is missing yet: it can be unclamped all the same under Route, Gate"
            : "type what it reads, then Enter");
  }

  /// It is behind, with what says so elsewhere in the build.
  StepTaken behind() const {
    Rows rows(build_);
    pass(rows, in_, step_, options_.at);
    if (step_.kind == StepKind::tick)
      rows.apply(set_done(build_, in_.piece, step_.operation, true, options_.at));
    if (step_.kind == StepKind::unclamp) rows.apply(unclamp(build_, in_.piece, in_.setup, {}, options_.at));
    if (step_.kind == StepKind::leave)
      if (const auto* s = build_.find<PartSurface>(step_.surface))
        rows.apply(
            log_reference(build_, in_.piece, step_.surface, in_.pose.inverse().apply(s->point), options_.at));
    StepTaken out;
    out.edit = rows.edit(step_.title + (step_.axis.empty() ? "" : ", " + step_.axis));
    return out;
  }

  /// Z was set to what the step says; or need not be: what it reads there is kept.
  StepTaken height(std::optional<double> reads) const {
    auto out = behind();
    const double shows = reads.value_or(*step_.number);
    Rows rows(build_);
    rows.apply(out.edit);
    rows.apply(height_found(rows.build(), in_, step_, shows, options_.at));
    out.edit = rows.edit(step_.title);
    if (reads) out.told = fmt::format("Z is counted from {} here", text(shows - *step_.number));
    return out;
  }

  std::string text(double mm) const {
    return length_text(mm, unit_, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  }

  /// The read-out says something else: it stands somewhere else, or shows another unit or sense.
  std::string elsewhere(double mm) const {
    const double should = *step_.number, off = mm - should;
    if (std::abs(off) < there) return {};
    if (std::abs(mm + should) < there)
      return fmt::format("{} counts the other way here: it should read {}",
                         step_.axis.empty() ? "the depth" : step_.axis, text(should));
    if (std::abs(mm * mm_per_inch - should) < there || std::abs(mm / mm_per_inch - should) < there)
      return fmt::format("it looks as if the read-out shows the other unit: it should read {}", text(should));
    return fmt::format("{} to go: it should read {}. Is the zero lost (/ finds it again), or the read-out in "
                       "incremental?",
                       text(-off), text(should));
  }

  /// Kept in the log; what is off is said, and the step is behind: there is nothing to correct it by.
  StepTaken checked(double mm) const {
    const double off = mm - *step_.number;
    constexpr double not_it = 0.3; // of the distance: another was measured, or in the other unit
    if (std::abs(off) > not_it * *step_.number)
      return StepTaken::refused(fmt::format("{} is far from {}: is it centre to centre, and the unit right?",
                                            text(mm), text(*step_.number)));
    Rows rows(build_);
    pass(rows, in_, step_, options_.at);
    StepTaken out;
    out.edit = rows.edit(fmt::format("Check {}: {}, drawn {}", step_.title, text(mm), text(*step_.number)));
    out.told = std::abs(off) < there
                   ? std::string("as drawn")
                   : fmt::format("{} {} than drawn: it is in the log; the zero and the table of "
                                 "holes may be looked at again",
                                 text(std::abs(off)), off > 0 ? "more" : "less");
    return out;
  }

  StepTaken finder(double across) const {
    if (across <= 0 || across > widest_finder)
      return StepTaken::refused(fmt::format(
          "a finder is up to {} across: type its diameter, or clear the field", text(widest_finder)));
    Rows rows(build_);
    auto place = place_or_new(build_, in_);
    place.finder = across;
    keep_place(rows, in_, place);
    pass(rows, in_, step_, options_.at);
    StepTaken out;
    out.edit = rows.edit("Finder " + text(across) + " across");
    out.told = fmt::format("the finder is {} across: the numbers follow from it", text(across));
    return out;
  }

  /// What lies between the tool and the work when Z is set: the step stays, with its new number.
  StepTaken block(double high) const {
    if (high < 0 || high > highest_block)
      return StepTaken::refused(fmt::format(
          "a block is up to {} high: type how thick it is, or clear the field", text(highest_block)));
    auto place = place_or_new(build_, in_);
    constexpr double same = 1e-9;
    if (std::abs(high - place.block) < same) return height(options_.shows); // as it is: Z is set over that
    place.block = high;
    place.at = options_.at;
    Rows rows(build_);
    keep_place(rows, in_, place);
    StepTaken out;
    out.edit = rows.edit("Block " + text(high));
    out.told = fmt::format("{} lies between: the number follows from it", text(high));
    return out;
  }

  StepTaken cut(double mm) const {
    const auto plan = std::find_if(in_.plans.begin(), in_.plans.end(),
                                   [&](const auto& p) { return p.surface == step_.surface; });
    if (plan == in_.plans.end()) return StepTaken::refused("the surface is not to be machined any more");
    std::string why;
    bool across = false;
    const auto left = plan->drawn.round()
                          ? allowance::left_by_reading(build_, *plan, allowance::ReadingOf::size, mm, &why)
                          : left_or_across(*plan, mm, across, why);
    if (!left) return StepTaken::refused(why);
    if (const auto cannot = cannot_be(*plan, *left); !cannot.empty()) return StepTaken::refused(cannot);
    auto made = allowance::cut_of(*plan, in_.pose, *left);
    made.read = typed_;
    made.at = options_.at;
    if (across) made.note = "read across";
    StepTaken out;
    out.edit = log_cut(build_, made);
    if (across) out.told = fmt::format("across, {} left: ", text(*left));
    const double over = *left - plan->aim;
    if (plan->to_size(*left))
      out.told += "to size";
    else if (over > 0)
      out.told += fmt::format("{} still to come off a side", text(over));
    else if (plan->limited)
      out.told += fmt::format("{} too deep: see the gate for what can be done", text(-over));
    else
      out.told += fmt::format("{} a side under what its mates want: they can be made to suit, see Joints",
                              text(-over));
    return out;
  }

  /// More than there was before the cut, or far under its size: another size was read, or in another unit.
  /// Empty: it can be.
  std::string cannot_be(const allowance::SurfacePlan& plan, double left) const {
    if (plan.source == allowance::StockSource::none) return {};
    constexpr double far_under = 1, first_cut = 1, grown = 0.05; // mm
    const double before = plan.now + (plan.cuts.empty() ? first_cut : grown);
    const auto shown = [&](double metal) { return text(plan.size_with(metal).value_or(metal)); };
    if (left > before)
      return fmt::format(
          "that is more than there was before the cut, {}: is it this size, and the unit right? "
          "If the cut before was read wrong, it is put right under Allowance",
          shown(plan.now));
    if (left < std::min(plan.aim, plan.limited ? plan.low : plan.aim) - far_under)
      return fmt::format(
          "that is {} a side under its size, {}: is it this size, and the unit right? If it is "
          "so, log it under Allowance",
          text(plan.aim - left), shown(plan.aim));
    return {};
  }

  /// What a plane has left by a reading that is either that, or how far it is across to the face opposite.
  /// One of them at most may make sense: no more than there was before the cut, and not far below the
  /// drawing.
  std::optional<double> left_or_across(const allowance::SurfacePlan& plan, double mm, bool& across,
                                       std::string& why) const {
    constexpr double far_below = 1, more = 0.05; // mm
    std::string not_across;
    const auto left = allowance::left_by_reading(build_, plan, allowance::ReadingOf::left, mm, &why);
    const auto over =
        allowance::left_by_reading(build_, plan, allowance::ReadingOf::distance, mm, &not_across);
    if (!left || !over) {
      across = !left && over;
      return left ? left : over;
    }
    const bool metal_known = plan.source != allowance::StockSource::none;
    const auto likely = [&](double v) { return v > -far_below && (!metal_known || v < plan.now + more); };
    if (likely(*left) == likely(*over)) {
      why = fmt::format(
          "{0} left, or {0} across, which leaves {1}: log it under Allowance, where it is said which",
          text(mm), text(*over));
      return std::nullopt;
    }
    across = likely(*over);
    return across ? over : left;
  }

  StepTaken size() const {
    readings::MeasureInput in;
    in.made = {step_.dimension, in_.piece};
    in.text = typed_;
    in.at = options_.at;
    in.angles = options_.angles;
    const auto read = readings::measure(build_, in, options_.lengths);
    if (!read.ok) return StepTaken::refused(read.message);
    StepTaken out;
    out.edit = readings::keep_measurement(build_, read.measurement);
    const auto* d = build_.find<Dimension>(step_.dimension);
    out.told = d && d->allows(read.measurement.value) ? "within its limits" : "outside its limits";
    return out;
  }

  const Build& build_;
  const BenchInput& in_;
  const BenchStep& step_;
  std::string typed_;
  const TakeOptions& options_;
  Unit unit_;
};

} // namespace

StepTaken take_step(const Build& build, const BenchInput& input, const BenchStep& step,
                    const std::string& typed, const TakeOptions& options) {
  return Taking(build, input, step, typed, options).take();
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
  if (step.kind == StepKind::zero && !step.axis.empty())
    rows.apply(touch_again(rows.build(), input, step, at));
  if (step.operation != 0 && step.kind != StepKind::zero)
    rows.apply(set_done(build, input.piece, step.operation, false, at));
  if (step.kind == StepKind::unclamp) rows.apply(clamp_again(build, input.piece, input.setup));
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
