#pragma once
// Among all x that keep every margin at its floor, the one nearest a wished-for x0: what is still free stays
// put.
//
//   minimise Σ_j weight_j |x_j − x0_j|   subject to   margin_i(x) ≥ floor_group(i),   lower ≤ x ≤ upper
//
// The sum of absolute values moves as few variables as it can, and those no further than needed.

#include "margin/linear_margins.h"

#include <string>
#include <vector>

namespace datrin::margin {

enum class NearestStatus { not_run, optimal, infeasible, failed };

struct NearestInput {
  const LinearMargins* margins = nullptr;
  std::vector<double> floors; ///< per group; −infinite: no floor
  Eigen::VectorXd wished;     ///< x0
  Eigen::VectorXd weights;    ///< per variable, > 0; empty: all 1
};

struct NearestResult {
  NearestStatus status = NearestStatus::not_run;
  std::string message;
  Eigen::VectorXd x;

  bool usable() const { return status == NearestStatus::optimal; }
};

NearestResult nearest(const NearestInput& input);

} // namespace datrin::margin
