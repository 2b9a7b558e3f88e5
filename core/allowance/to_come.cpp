#include "allowance/to_come.h"

#include "allowance/plan.h"
#include "build/usual.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::allowance {

using namespace build;

ToCome to_come(const Build& build, const Made& made, const readings::SizeNow& now, double target,
               bool mated) {
  ToCome out;
  const auto* d = build.find<Dimension>(made.dimension);
  if (d == nullptr || !now.read() || d->kind == DimensionKind::angle) return out;
  const auto unit = build.info().unit;
  const auto text = [unit](double mm) {
    return length_text(mm, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  };
  if (now.bound != Bound::exact) {
    if (now.standing != readings::Standing::metal_on) return out;
    out.any = true;
    out.words = fmt::format("The gauge says it is {} {}: more is to come off; read its size for how much.",
                            now.bound == Bound::below ? "below" : "above", text(now.value));
    return out;
  }
  const auto left = readings::left_to(side_of(build, made.dimension), now.value, target);
  constexpr double nothing = 1e-6;
  if (!left || *left <= nothing) return out;
  out.any = true;
  out.left = *left;
  const bool diameter = d->kind != DimensionKind::distance;
  out.a_side = diameter ? *left / 2 : *left;
  const auto kept = build.allowance_of(made.piece, d->surface);
  const double finish = kept ? kept->second.finish : usual_finish(unit);
  const double rough = kept ? kept->second.rough : usual_rough(unit);
  const double trial = usual_last(LastStep::trial, {}); // a side
  const bool keeps = kept && kept->second.last > 0;
  const double last = keeps ? kept->second.last : mated ? trial : 0;
  const auto step = keeps ? kept->second.last_step : LastStep::trial;
  const bool hole = side_of(build, made.dimension) == Side::hole;
  out.words =
      diameter ? fmt::format("{} on diameter still to come off, {} a side.", text(out.left), text(out.a_side))
               : fmt::format("{} still to come off.", text(out.left));
  if (out.a_side > finish + last + nothing) {
    const double passes = std::ceil((out.a_side - finish - last) / rough - nothing);
    out.cut = (out.a_side - finish - last) / passes;
    out.words += fmt::format(" Next cut {} a side{}; the finishing cut is {}.", text(out.cut),
                             passes > 1 ? fmt::format(", {:.0f} such", passes) : std::string(), text(finish));
  } else if (out.a_side > last + nothing) {
    out.finishing = true;
    out.cut = out.a_side - last;
    out.words += fmt::format(" Next the finishing cut, {} a side", text(out.cut));
    const double off =
        diameter ? 2 * last : last; // for a hole the sizes it is tried at climb, for a shaft they fall
    const char* then = step == LastStep::ream  ? "ream it"
                       : step != LastStep::lap ? "try it"
                       : hole                  ? "lap it"
                                               : "polish it";
    out.words +=
        last > 0 ? fmt::format("; then {}, at {}.", then, text(hole ? target - off : target + off)) : ".";
  } else {
    out.trying = true;
    out.cut = std::min(out.a_side, diameter ? mm_per_thou / 2 : mm_per_thou);
    if (step == LastStep::lap)
      out.words += fmt::format(" Left for {}: {} a side.", hole ? "the lap" : "polishing", text(out.a_side));
    else if (mated)
      out.words += fmt::format(" Try it on its mate now; then {} a side at a time.", text(out.cut));
    else
      out.words += fmt::format(" Take {} a side at a time, and read.", text(out.cut));
  }
  return out;
}

} // namespace datrin::allowance
