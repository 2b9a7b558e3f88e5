#include "quantity/column_text.h"

#include "quantity/length_text.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace datrin {

namespace {

/// Half away from zero, a tie typed in decimals too (as number_text).
double to_steps(double value) {
  constexpr double nudge = 1e-9;
  return std::round(value + std::copysign(nudge, value));
}

struct Steps {
  std::vector<double> parts;
  double total = 0, left = 0; ///< of the last figure: the parts lack so many of the total
};

Steps steps_of(const std::vector<double>& values, double scale) {
  Steps out;
  double sum = 0;
  for (const double value : values) {
    out.parts.push_back(to_steps(value * scale));
    sum += value;
  }
  out.total = to_steps(sum * scale);
  out.left = out.total - std::accumulate(out.parts.begin(), out.parts.end(), 0.0);
  return out;
}

} // namespace

ColumnText column_text(const std::vector<double>& lengths, Unit unit, int decimals, bool show_plus) {
  std::vector<double> values;
  for (const double mm : lengths) values.push_back(from_mm(mm, unit));
  auto steps = steps_of(values, std::pow(10.0, decimals));
  if (steps.left != 0) steps = steps_of(values, std::pow(10.0, ++decimals));
  const double scale = std::pow(10.0, decimals);
  if (std::isfinite(steps.left) && std::abs(steps.left) <= static_cast<double>(values.size())) {
    // Those first whose own rounding went furthest the other way.
    std::vector<std::size_t> order(values.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    const double way = steps.left > 0 ? 1 : -1;
    const auto short_by = [&](std::size_t k) { return way * (values[k] * scale - steps.parts[k]); };
    std::stable_sort(order.begin(), order.end(), [&](auto a, auto b) { return short_by(a) > short_by(b); });
    for (std::size_t k = 0; k < static_cast<std::size_t>(std::abs(steps.left)); ++k)
      steps.parts[order[k]] += way;
  }
  ColumnText out;
  for (const double part : steps.parts) out.figures.push_back(number_text(part / scale, decimals, show_plus));
  out.total = number_text(steps.total / scale, decimals, show_plus);
  return out;
}

} // namespace datrin
