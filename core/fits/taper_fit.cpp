#include "fits/taper_fit.h"

#include "quantity/angle.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::fits {

TaperFitResult taper_fit(const TaperFitInput& in) {
  TaperFitResult out;
  const auto refuse = [&](const char* why) {
    out.status = TaperFitStatus::refused;
    out.message = why;
    return out;
  };
  if (!(in.half_angle > 0) || !(in.half_angle < 1.5)) return refuse("a taper needs an angle above 0");
  if (!(in.hole > 0) || !(in.shaft > 0)) return refuse("both diameters must be above 0");
  out.taper = 2 * std::tan(in.half_angle);
  out.proud = (in.shaft - in.hole) / out.taper;
  out.push_least = std::max(0.0, -in.wanted_most) / out.taper;
  out.push_most = std::max(0.0, -in.wanted_least) / out.taper;
  const auto text = [&](double mm) { return length_text(std::abs(mm), in.unit, {.show_unit = true}); };
  const auto fine = [&](double mm) { return fine_text(mm, in.unit); };
  const double little = in.unit == Unit::mm ? 0.01 : mm_per_thou;
  out.words = fmt::format("Taper {} on the diameter: {} of diameter is {} along. ",
                          taper_text(2 * in.half_angle), fine(little), text(little / out.taper));
  constexpr double flush = 0.005; // mm
  if (std::abs(out.proud) < flush)
    out.words += "As the sizes are it touches when flush. ";
  else
    out.words += fmt::format("As the sizes are it stops {} {}. ", text(out.proud),
                             out.proud > 0 ? "proud of the mouth" : "below the mouth");
  if (out.push_most > 0) {
    if (out.push_least > 0 && out.push_most - out.push_least > flush)
      out.words += fmt::format("Pushed {} to {} beyond touching it has the interference wanted.",
                               text(out.push_least), text(out.push_most));
    else
      out.words += fmt::format("Pushed up to {} beyond touching it has no more interference than wanted.",
                               text(out.push_most));
  }
  if (in.shaft_half_angle > 0 && in.length > 0) {
    out.mismatch = in.length * (out.taper - 2 * std::tan(in.shaft_half_angle));
    constexpr double seen = 0.001; // mm
    if (std::abs(out.mismatch) > seen)
      out.words += fmt::format(" Over the length engaged the two tapers differ by {} on the diameter: it "
                               "bears at the {} end only.",
                               fine(std::abs(out.mismatch)), out.mismatch > 0 ? "small" : "large");
  }
  out.status = TaperFitStatus::computed;
  return out;
}

} // namespace datrin::fits
