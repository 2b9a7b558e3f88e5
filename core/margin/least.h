#pragma once
// One linear programme: make the least of the free margins as large as it can be, while held margins keep a
// floor.
//
//   maximise t   subject to   margin_i(x) ≥ t         for every row of a free group
//                             margin_i(x) ≥ floor_g   for every row of a held group g   (multiplier capped:
//                             see below) lower ≤ x ≤ upper
//
// It is solved through its dual, which has one row per variable instead of one per margin:
//
//   minimise Σ λ_i offset_i + Σ μ_i (offset_i − floor_g) + Σ_j (upper_j p_j − lower_j q_j)
//   subject to  Σ λ_i = 1,   Σ_i (λ_i + μ_i) a_ij = p_j − q_j,   λ, μ, p, q ≥ 0,   μ ≤ cap
//
// A finite cap lets a held margin fall below its floor at that price a unit, so that a linearised floor that
// is slightly out of reach does not make the programme infeasible. x and t are read from the dual's own
// multipliers.

#include "margin/linear_margins.h"

#include <memory>
#include <string>
#include <vector>

namespace datrin::margin {

enum class LeastStatus {
  not_run,
  optimal,
  unbounded,    ///< the least free margin can be made as large as one likes (some bound is infinite)
  infeasible,   ///< the floors cannot all be kept (only without a cap), or lower > upper
  nothing_free, ///< no row belongs to a free group
  failed        ///< the solver gave up; the message says how
};

struct LeastInput {
  const LinearMargins* margins = nullptr;
  std::vector<char> held{};     ///< per group: true = keeps its floor; empty: all free
  std::vector<double> floors{}; ///< per group; read for held groups only
  std::vector<char>
      warm{}; ///< per row: LeastResult::basic of a like programme (shorter is fine); empty: cold
};

struct LeastOptions {
  double held_cap = infinite; ///< price per unit of falling below a floor
};

struct LeastResult {
  LeastStatus status = LeastStatus::not_run;
  std::string message;
  Eigen::VectorXd x;
  double least = 0;                  ///< t
  std::vector<double> multipliers;   ///< per row, ≥ 0; those of free rows sum to 1
  Eigen::VectorXd bound_multipliers; ///< per variable: p − q; positive presses on the upper bound
  std::vector<char> basic;           ///< per row: in the final basis; for LeastInput::warm

  bool usable() const { return status == LeastStatus::optimal; }
};

/// Solves the programme above with COIN-OR Clp. Keeping one solver for a sequence of similar programmes saves
/// building Clp's working storage anew, nothing else: each call stands alone.
class LeastSolver {
public:
  LeastSolver();
  ~LeastSolver();
  LeastSolver(LeastSolver&&) noexcept;
  LeastSolver& operator=(LeastSolver&&) noexcept;

  LeastResult solve(const LeastInput& input, const LeastOptions& options = {});

private:
  struct Storage;
  static std::vector<std::unique_ptr<Storage>>& spare(); ///< of this thread
  std::unique_ptr<Storage> storage_;
};

} // namespace datrin::margin
