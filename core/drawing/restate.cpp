#include "drawing/restate.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::drawing {

RestateResult restate(const RestateInput& in) {
  RestateResult out;
  const auto refuse = [&](std::string why) {
    out.status = RestateStatus::refused;
    out.message = std::move(why);
    return out;
  };
  const bool two = in.how == Restated::over_two_pins || in.how == Restated::between_two_pins;
  const bool ball = in.how == Restated::ball_in_cone;
  for (const double v :
       {in.nominal, in.lower, in.upper, in.pin, in.pin_2, in.hole, in.hole_2, in.half_angle, in.instrument})
    if (!std::isfinite(v)) return refuse("a number is missing");
  if (in.lower > in.upper) return refuse("the lower limit is above the upper");
  if (in.pin <= 0)
    return refuse(ball ? "the ball's diameter must be above 0" : "the pin's diameter must be above 0");
  if (two && in.pin_2 <= 0) return refuse("the second pin's diameter must be above 0");
  if (in.hole != 0 && in.hole < in.pin) return refuse("the pin is larger than the hole it stands in");
  if (two && in.hole_2 != 0 && in.hole_2 < in.pin_2) return refuse("the second pin is larger than its hole");
  if (ball && (in.half_angle <= 0 || in.half_angle >= pi / 2))
    return refuse("the half angle must be between 0 and 90 degrees");
  if (in.instrument < 0) return refuse("the instrument's uncertainty must not be negative");

  out.sum.title = "Reading";
  const auto line = [&](std::string what, double mm, const char* from) {
    out.sum.lines.push_back({std::move(what), mm, from});
  };
  double clearance = 0;
  const double sign = in.how == Restated::over_pin || in.how == Restated::over_two_pins ? 1 : -1;
  if (ball) {
    const double r = in.pin / 2, sine = std::sin(in.half_angle), tangent = std::tan(in.half_angle);
    out.factor = -1 / (2 * tangent);
    out.offset = r / sine + r;
    // The ball must touch the cone below its mouth: the circle of contact is r·cos α in radius.
    if (r * std::cos(in.half_angle) > in.nominal / 2)
      return refuse("the ball is too large: it rests on the edge of the mouth");
    line("ball's middle over the tip of the cone, r / sin \u03B1", r / sine, "ball, angle");
    line("ball's radius", r, "ball");
    line("less tip to mouth, D / (2 tan \u03B1)", -in.nominal / (2 * tangent), "drawing");
  } else {
    out.offset = sign * (in.pin + (two ? in.pin_2 : 0.0)) / 2;
    line("the dimension", in.nominal, "drawing");
    line(in.how == Restated::from_edge ? "less half the hole"
         : sign > 0                    ? "half the pin"
                                       : "less half the pin",
         sign * in.pin / 2, in.how == Restated::from_edge ? "hole" : "pin");
    if (two)
      line(sign > 0 ? "half the second pin" : "less half the second pin", sign * in.pin_2 / 2, "second pin");
    if (in.how != Restated::from_edge) {
      // A pin loose by δ stands up to δ/2 to either side of the hole's middle.
      clearance =
          (in.hole > 0 ? in.hole - in.pin : 0.0) + (two && in.hole_2 > 0 ? in.hole_2 - in.pin_2 : 0.0);
    }
  }
  const auto reads = [&](double value) { return out.factor * value + out.offset; };
  out.reading = reads(in.nominal);
  out.reading_least = std::min(reads(in.nominal + in.lower), reads(in.nominal + in.upper));
  out.reading_most = std::max(reads(in.nominal + in.lower), reads(in.nominal + in.upper));
  out.band = clearance / 2 + in.instrument / std::abs(out.factor);
  const double band_read = out.band * std::abs(out.factor);
  out.sure_least = out.reading_least + band_read;
  out.sure_most = out.reading_most - band_read;
  const double half = (in.upper - in.lower) / 2;
  const auto mm = [&in](double v) { return length_text(v, in.unit, {.decimals_mm = 3, .decimals_inch = 4}); };
  const auto unit = unit_name(in.unit);
  if (out.band > half) {
    out.decides = CanDecide::no;
    out.verdict =
        fmt::format("Cannot decide: the reading leaves \u00B1{}, the limits are \u00B1{} wide ({}).",
                    mm(out.band), mm(half), unit);
    if (clearance > 0) out.verdict += " A pin that fits the hole closer would.";
  } else if (out.band > half / 4) {
    out.decides = CanDecide::partly;
    out.verdict =
        fmt::format("Decides only between {} and {} ({}); nearer a limit it stays open, by \u00B1{}.",
                    mm(out.sure_least), mm(out.sure_most), unit, mm(out.band));
  } else {
    out.decides = CanDecide::yes;
    out.verdict =
        fmt::format("Decides: \u00B1{} against limits of \u00B1{} ({}).", mm(out.band), mm(half), unit);
  }
  out.status = RestateStatus::restated;
  return out;
}

} // namespace datrin::drawing
