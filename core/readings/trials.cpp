#include "readings/trials.h"

#include "build/words.h"
#include "quantity/length_text.h"
#include "readings/size_now.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::readings {

using namespace build;

namespace {

double exact_size(const SizeNow& now) {
  return now.read() && now.bound == Bound::exact ? now.value : 0;
}

std::vector<fits::FormReading> form_of(const SizeNow& now) {
  std::vector<fits::FormReading> out;
  if (exact_size(now) <= 0) return out;
  if (now.measurement)
    for (const auto& p : now.measurement->places) out.push_back({p.depth, p.direction, p.value});
  if (out.empty()) out.push_back({0, 0, now.value});
  return out;
}

} // namespace

Trial try_now(const Build& build, const Trial& tried, const std::string& at) {
  auto out = tried;
  if (const auto* joint = build.find<Joint>(tried.joint)) {
    out.hole = exact_size(size_now(build, {joint->hole, tried.hole_piece}));
    out.shaft = exact_size(size_now(build, {joint->shaft, tried.shaft_piece}));
    if (out.felt == Felt::will_not_start) out.depth = 0;
    if (out.felt >= Felt::tight) out.depth = joint->length;
  }
  out.at = at;
  out.order = next_order(build.trials_of(tried.joint));
  return out;
}

std::string trial_text(const Build& build, const Trial& trial) {
  if (trial.felt != Felt::jams) return std::string(shown_word(trial.felt));
  return fmt::format("jams at {}", length_text(trial.depth, build.info().unit,
                                               {.decimals_mm = 1, .decimals_inch = 2, .show_unit = true}));
}

Edit keep_trial(const Build& build, const Trial& trial) {
  const auto* joint = build.find<Joint>(trial.joint);
  if (joint == nullptr) return build::is_gone();
  return add(build, trial, fmt::format("Try {}: {}", joint->name, trial_text(build, trial)));
}

Edit take_back_trial(const Build& build, Id id) {
  const auto* trial = build.find<Trial>(id);
  const auto* joint = trial ? build.find<Joint>(trial->joint) : nullptr;
  if (joint == nullptr) return build::is_gone();
  return remove(build, id,
                fmt::format("Take back a trial of {}: {}", joint->name, trial_text(build, *trial)));
}

fits::TrialInput trial_input(const Build& build, const Trial& trial, const TrialView& view) {
  fits::TrialInput in;
  in.cut_hole = view.cut_hole;
  in.wanted = view.wanted;
  in.felt = trial.felt;
  in.depth = trial.depth;
  in.unit = build.info().unit;
  const auto* joint = build.find<Joint>(trial.joint);
  if (joint == nullptr) return in;
  const auto hole = size_now(build, {joint->hole, trial.hole_piece});
  const auto shaft = size_now(build, {joint->shaft, trial.shaft_piece});
  in.hole = form_of(hole);
  in.shaft = form_of(shaft);
  in.uncertainty = std::hypot(hole.uncertainty, shaft.uncertainty); // independent of each other
  in.length = joint->length;
  in.least = joint->least;
  in.most = joint->most;
  return in;
}

std::string read_since(const Build& build, const Trial& trial) {
  const auto* joint = build.find<Joint>(trial.joint);
  std::string words;
  if (joint == nullptr) return words;
  const auto say = [&](const char* side, const Made& made, double then) {
    const double now = exact_size(size_now(build, made));
    constexpr double same = 1e-6;
    if (now <= 0 || std::abs(now - then) < same) return;
    const auto text = [&](double mm) {
      return length_text(mm, build.info().unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
    };
    words += fmt::format("{}The {} reads {} now{}.", words.empty() ? "" : " ", side, text(now),
                         then > 0 ? fmt::format(", it was {}", text(then)) : std::string());
  };
  say("hole", {joint->hole, trial.hole_piece}, trial.hole);
  say("shaft", {joint->shaft, trial.shaft_piece}, trial.shaft);
  return words;
}

} // namespace datrin::readings
