#pragma once
// The end of a level of the seat search: Newton's method on the conditions of an optimum, with what presses
// known.
//
// A programme of linear margins ends at a corner; where the true optimum is no corner (a bore touched on two
// opposite sides is centred across them by the curve of the hole alone) it would creep. So the touches that
// press in the last programme are taken as pressing, and the conditions of Karush, Kuhn and Tucker are solved
// with the curvature of the margins:
//
//   margin_i(y) = t (free) or floor_i (held),   Σ ν_i g_i(y) = 0,   Σ ν_i over free = 1
//
// The answer counts only if every ν is at least 0 and no other touch falls below its target; the caller sees
// to the latter.

#include "casting/free_motion.h"
#include "casting/seat_groups.h"

#include <vector>

namespace datrin::casting {

/// One pressing touch and its multiplier.
struct PressingRow {
  RowRef row;
  double price = 0;
};

struct PolishInput {
  const std::vector<Group>* groups = nullptr;
  Pose pose;                  ///< near the optimum
  Vec3 centre = Vec3::Zero(); ///< of turning, drawing frame
  double size = 1;            ///< mm, by which turns are counted
  Motions basis;              ///< motions allowed, orthonormal
  std::vector<PressingRow> pressing;
  std::vector<PressingRow>
      pins; ///< touches pinned earlier, with the prices that balance `pressing` outside the basis
  std::vector<char> held;     ///< per group
  std::vector<double> floors; ///< per group
  double least = 0;           ///< first guess of t
  double most_move = 1;       ///< mm: further than this from `pose` the answer does not count
};

/// What can still move at an optimum: motions within `basis` that keep all pressing margins to first order.
struct FlatMotions {
  Motions motions;      ///< orthonormal
  Eigen::VectorXd bend; ///< second derivative of Σ ν margin along each; negative: pinned by curvature
};

/// `shut` names columns of the basis that may not move either.
FlatMotions find_flat(const PolishInput& at, const std::vector<int>& shut);

struct PolishResult {
  bool converged = false;
  Pose pose;
  double least = 0;
  std::vector<PressingRow> pressing; ///< those with a positive price
};

PolishResult polish(const PolishInput& input);

} // namespace datrin::casting
