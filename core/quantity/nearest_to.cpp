#include "quantity/nearest_to.h"

#include "quantity/drills.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <cmath>
#include <numeric>

namespace datrin {

Nearest nearest_sixty_fourth(double mm) {
  constexpr int parts = 64;
  const auto all = static_cast<long long>(std::llround(std::abs(mm) / mm_per_inch * parts));
  const auto whole = all / parts, rest = all % parts;
  std::string name = mm < 0 && all != 0 ? "\u2212" : "";
  if (whole > 0 || rest == 0) name += std::to_string(whole);
  if (rest > 0) {
    const auto common = std::gcd(rest, static_cast<long long>(parts));
    name += fmt::format("{}{}/{}", whole > 0 ? " " : "", rest / common, parts / common);
  }
  return {name + " in", std::copysign(static_cast<double>(all) / parts * mm_per_inch, mm)};
}

Nearest nearest_drill(double mm, Unit unit) {
  const auto& drawer = drill_drawer(unit);
  Nearest best;
  for (const auto& drill : drawer)
    if (best.name.empty() || std::abs(drill.size - mm) < std::abs(best.mm - mm))
      best = {drill.name, drill.size};
  constexpr double reach = 1; // mm beyond the last of them: no drill any more
  if (drawer.empty() || mm < drawer.front().size - reach || mm > drawer.back().size + reach) return {};
  return best;
}

double nearest_line(double mm, double step) {
  return std::round(mm / step) * step;
}

std::string nearest_words(double mm, Unit unit, double dial_step) {
  const LengthTextOptions figures{.decimals_mm = 3, .decimals_inch = 4, .show_unit = true, .show_plus = true};
  const auto off = [&](double other) {
    constexpr double seen = 0.0005; // mm
    return std::abs(other - mm) < seen ? std::string(" exactly")
                                       : fmt::format(" ({})", length_text(other - mm, unit, figures));
  };
  const auto fraction = nearest_sixty_fourth(mm);
  std::string words = "nearest " + fraction.name + off(fraction.mm);
  if (const auto drill = nearest_drill(mm, unit); !drill.name.empty())
    words += ", drill " + drill.name + off(drill.mm);
  if (dial_step > 0) {
    const double line = nearest_line(mm, dial_step);
    words += fmt::format(", dial {}{}",
                         length_text(line, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true}),
                         off(line));
  }
  return words;
}

} // namespace datrin
