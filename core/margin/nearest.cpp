#include "margin/nearest.h"

#include <ClpSimplex.hpp>

#include <cmath>

namespace datrin::margin {

NearestResult nearest(const NearestInput& input) {
  NearestResult result;
  const auto& margins = *input.margins;
  if (!margins.workable() || input.wished.hasNaN()) {
    result.status = NearestStatus::failed;
    result.message = not_workable;
    return result;
  }
  const int n = margins.columns();
  // Variables: x_j = x0_j + up_j − down_j, up in columns 0…n−1, down in n…2n−1.
  CoinPackedMatrix rows(false, 0, 0);
  rows.setDimensions(0, 2 * n);
  std::vector<double> row_lower;
  std::vector<int> index;
  std::vector<double> element;
  for (int i = 0; i < margins.rows(); ++i) {
    const double floor = input.floors[static_cast<std::size_t>(margins.group(i))];
    if (!std::isfinite(floor)) continue;
    index.clear();
    element.clear();
    for (int k = margins.begin(i); k < margins.end(i); ++k) {
      index.insert(index.end(), {margins.column(k), margins.column(k) + n});
      element.insert(element.end(), {margins.coefficient(k), -margins.coefficient(k)});
    }
    rows.appendRow(static_cast<int>(index.size()), index.data(), element.data());
    row_lower.push_back(floor - margins.value(i, input.wished));
  }
  std::vector<double> lower(static_cast<std::size_t>(2 * n), 0.0), upper(static_cast<std::size_t>(2 * n)),
      cost(static_cast<std::size_t>(2 * n));
  for (int j = 0; j < n; ++j) {
    const auto up = static_cast<std::size_t>(j), down = static_cast<std::size_t>(j + n);
    const double above = margins.upper[j] - input.wished[j], below = input.wished[j] - margins.lower[j];
    upper[up] = std::isfinite(above) ? std::max(0.0, above) : COIN_DBL_MAX;
    upper[down] = std::isfinite(below) ? std::max(0.0, below) : COIN_DBL_MAX;
    cost[up] = cost[down] = input.weights.size() == n ? input.weights[j] : 1.0;
  }
  const std::vector<double> row_upper(row_lower.size(), COIN_DBL_MAX);

  // Made once a thread: that takes longer than a small programme. Loading one forgets the one before.
  thread_local ClpSimplex clp;
  clp.setLogLevel(0);
  clp.setPerturbation(100);
  clp.scaling(0);
  clp.setPrimalTolerance(1e-10);
  clp.loadProblem(rows, lower.data(), upper.data(), cost.data(), row_lower.data(), row_upper.data());
  clp.createStatus();
  clp.dual();
  if (clp.isProvenPrimalInfeasible()) {
    result.status = NearestStatus::infeasible;
    result.message = "the margins cannot all keep their floors";
    return result;
  }
  if (!clp.isProvenOptimal()) {
    result.status = NearestStatus::failed;
    result.message = "no answer was found: the numbers are too far apart in size, or it took too many steps";
    return result;
  }
  const double* solution = clp.getColSolution();
  result.x = input.wished;
  for (int j = 0; j < n; ++j) result.x[j] += solution[j] - solution[j + n];
  result.status = NearestStatus::optimal;
  return result;
}

} // namespace datrin::margin
