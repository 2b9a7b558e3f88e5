#pragma once
// The largest least margin; then, with what limits it held, the next; to the end. What is then still free
// stays nearest to where it was wished.
//
// A group that presses (has a positive multiplier) on a level is held from then on: by strong duality no
// answer of that level gives it more. Each level holds at least one group, so there are at most as many
// levels as groups.

#include "margin/least.h"

#include <string>
#include <vector>

namespace datrin::margin {

struct LexicographicInput {
  const LinearMargins* margins = nullptr;
  Eigen::VectorXd wished; ///< where variables that are still free should stay; empty: 0
};

struct LexicographicOptions {
  double pressing = 1e-9; ///< a multiplier above this presses
  double give = 1e-9;     ///< floors of held groups are set this much below the level they reached
  int most_levels = 100000;
};

enum class LexicographicStatus { not_run, optimal, unbounded, infeasible, failed };

struct LexicographicResult {
  LexicographicStatus status = LexicographicStatus::not_run;
  std::string message;
  Eigen::VectorXd x;
  std::vector<double> group_margins; ///< least margin of each group at x; infinite for a group without rows
  std::vector<int> group_level; ///< the level at which it was held, from 0; −1: never (nothing limits it)
  LeastResult first;            ///< the first level, with the multipliers that are the shadow prices

  bool usable() const {
    return status == LexicographicStatus::optimal || status == LexicographicStatus::unbounded;
  }
};

/// `unbounded` means that from some level on nothing limits the groups still free: they keep at least the
/// last level.
LexicographicResult lexicographic(const LexicographicInput& input, const LexicographicOptions& options = {});

} // namespace datrin::margin
