#include "margin/certificate.h"

#include <algorithm>
#include <cmath>

namespace datrin::margin {

Certificate check_least(const LeastInput& input, const LeastResult& result,
                        const CertificateOptions& options) {
  Certificate c;
  if (!result.usable()) return c;
  const auto& m = *input.margins;
  Eigen::VectorXd balance = -result.bound_multipliers;
  double sum = 0, dual_value = 0;
  for (int i = 0; i < m.rows(); ++i) {
    const auto group = static_cast<std::size_t>(m.group(i));
    const bool held = !input.held.empty() && input.held[group];
    const double price = result.multipliers[static_cast<std::size_t>(i)];
    const double target = held ? input.floors[group] : result.least;
    c.worst_shortfall = std::max(c.worst_shortfall, target - m.value(i, result.x));
    c.least_multiplier = std::min(c.least_multiplier, price);
    if (!held) sum += price;
    dual_value += price * (m.offset(i) - (held ? target : 0.0));
    for (int k = m.begin(i); k < m.end(i); ++k) balance[m.column(k)] += price * m.coefficient(k);
  }
  for (int j = 0; j < m.columns(); ++j) {
    c.worst_shortfall = std::max({c.worst_shortfall, result.x[j] - m.upper[j], m.lower[j] - result.x[j]});
    const double press = result.bound_multipliers[j];
    if (press != 0) dual_value += press * (press > 0 ? m.upper[j] : m.lower[j]);
  }
  c.sum_error = std::abs(sum - 1);
  c.imbalance = balance.size() > 0 ? balance.cwiseAbs().maxCoeff() : 0;
  c.gap = std::abs(dual_value - result.least);
  c.holds = c.worst_shortfall <= options.tolerance && -c.least_multiplier <= options.tolerance &&
            c.sum_error <= options.tolerance && c.imbalance <= options.tolerance &&
            c.gap <= options.tolerance;
  return c;
}

} // namespace datrin::margin
