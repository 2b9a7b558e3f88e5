#pragma once
// The largest least margin; then, with what limits it held, the next; to the end. What is then still free
// stays nearest to where it was wished. With tiers, the groups of a tier are levelled to the end before those
// of the next count at all.
//
// A group that presses (has a positive multiplier) on a level is held from then on: by strong duality no
// answer of that level gives it more, and the rows that press keep their value in every answer. Those rows
// are equations; a variable they settle is put in as a number from then on, and what is left falls apart into
// pieces that no longer see each other, each levelled by itself. Each level holds at least one group, so
// there are at most as many levels as groups.

#include "margin/least.h"

#include <string>
#include <vector>

namespace datrin::margin {

struct LexicographicInput {
  const LinearMargins* margins = nullptr;
  Eigen::VectorXd wished;   ///< where variables that are still free should stay; empty: 0
  std::vector<int> tiers{}; ///< per group, 0 levelled first; empty: all in one
};

struct LexicographicOptions {
  double pressing = 1e-9; ///< a multiplier above this presses
  double give = 1e-9;     ///< floors of held groups are set this much below the level they reached
  /// Groups of any tier but the last are raised to this and no further before the next tier has its say; what
  /// is then still to be had is theirs first, in a last round.
  double enough = infinite;
};

enum class LexicographicStatus { not_run, optimal, unbounded, infeasible, failed };

struct LexicographicResult {
  LexicographicStatus status = LexicographicStatus::not_run;
  std::string message;
  Eigen::VectorXd x;
  std::vector<double> group_margins; ///< least margin of each group at x; infinite for a group without rows
  std::vector<int> group_level; ///< the level at which it was held, from 0, least margin first within its
                                ///< tier; −1: never (nothing limits it)
  double least = infinite;      ///< the least margin of the first tier
  std::vector<double>
      multipliers;    ///< per row: what presses on that least margin, its shadow prices; sum to 1
  int programmes = 0; ///< linear programmes solved

  bool usable() const {
    return status == LexicographicStatus::optimal || status == LexicographicStatus::unbounded;
  }
};

/// `unbounded` means that from some level on nothing limits the groups still free: they keep at least the
/// last level.
LexicographicResult lexicographic(const LexicographicInput& input, const LexicographicOptions& options = {});

} // namespace datrin::margin
