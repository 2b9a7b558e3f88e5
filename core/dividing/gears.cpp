#include "dividing/gears.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <iterator>

namespace datrin::dividing {

namespace {

/// Cutters of the usual set of eight: each cuts from so many teeth up to one below the next. By diametral
/// pitch they count down from the rack (common practice), by module up from the fewest (DIN 3972).
void choose_cutter(int teeth, bool by_module, Gear& out) {
  static constexpr int from[] = {135, 55, 35, 26, 21, 17, 14, 12};
  constexpr int set = 8;
  for (int k = 0; k < set; ++k) {
    if (teeth < from[k]) continue;
    out.cutter = by_module ? set - k : k + 1;
    out.cutter_from = from[k];
    out.cutter_to = k == 0 ? 0 : from[k - 1] - 1;
    return;
  }
}

} // namespace

double involute(double angle) {
  return std::tan(angle) - angle;
}

double angle_of_involute(double value) {
  if (!(value > 0)) return 0;
  // Newton from above, where it cannot overshoot: inv x ≥ x³ / 3, and tan x ≤ inv x + π/2. Derivative tan² x.
  double x = std::min(std::cbrt(3 * value), std::atan(value + pi / 2));
  for (int k = 0; k < 60; ++k) {
    const double slope = std::tan(x) * std::tan(x);
    if (slope < 1e-15) break;
    const double step = (involute(x) - value) / slope;
    x -= step;
    if (std::abs(step) < 1e-15) break;
  }
  return x;
}

Gear gear(const GearInput& in) {
  Gear out;
  out.status = GearStatus::refused;
  constexpr int fewest = 6, most = 1000;
  if (in.teeth < fewest || in.teeth > most) {
    out.message = fmt::format("teeth: from {} to {}", fewest, most);
    return out;
  }
  if (!(in.module > 0) || in.module > 100) {
    out.message = "module or diametral pitch: give one, above 0";
    return out;
  }
  if (!(in.pressure > 5 * pi / 180) || in.pressure > 40 * pi / 180) {
    out.message = "pressure: an angle from 5 to 40\u00B0; 20\u00B0 is usual, 14.5\u00B0 of older gears";
    return out;
  }
  if (in.pin < 0) {
    out.message = "pin: must not be below 0";
    return out;
  }
  out.status = GearStatus::found;
  const double m = in.module, n = in.teeth;
  out.pitch = n * m;
  out.outside = (n + 2) * m;
  constexpr double older = 14.75 * pi / 180; // 14½° by diametral pitch: the older full-depth tooth
  out.depth_factor = !in.by_module && in.pressure < older ? 2.157 : 2.25;
  out.depth = out.depth_factor * m;
  out.root = out.outside - 2 * out.depth;
  out.circular = pi * m;
  choose_cutter(in.teeth, in.by_module, out);
  const double least = 2 / (std::sin(in.pressure) * std::sin(in.pressure));
  if (n < least)
    out.words =
        fmt::format("Fewer than {:.0f} teeth: a generated tooth would be undercut.", std::ceil(least));
  if (in.pin <= 0) return out;
  const double base = out.pitch * std::cos(in.pressure);
  const double inv = involute(in.pressure) + in.pin / base - pi / (2 * n);
  if (inv <= 0) {
    out.words += (out.words.empty() ? "" : " ") + std::string("The pin is too thin: it falls to the root.");
    return out;
  }
  const double phi = angle_of_involute(inv);
  const double centres = base / std::cos(phi);
  const double over = (in.teeth % 2 == 0 ? centres : centres * std::cos(pi / (2 * n))) + in.pin;
  // Where it touches the flanks: the tangent from its centre to the base circle, less its radius.
  const double along = std::sqrt(std::max(0.0, centres * centres - base * base)) - in.pin;
  out.pin_at = along > 0 ? std::hypot(base, along) : 0;
  if (along <= 0 || out.pin_at > out.outside) {
    out.words += (out.words.empty() ? "" : " ") +
                 std::string(along <= 0 ? "The pin is too thin: it does not lie on the flanks."
                                        : "The pin is too thick: it lies on the corners of the teeth.");
    return out;
  }
  out.over_pins = over;
  return out;
}

} // namespace datrin::dividing
