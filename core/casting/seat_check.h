#pragma once
// A seat checked by code that shares nothing with the search but the formula of stock: margins are recomputed
// from the pose, and what holds the seat must balance like forces on a rigid body.
//
// Easing touch i by δ raises the least margin by λ_i δ; at a best seat no small motion raises all the holding
// touches at once, which by Farkas' lemma is the same as: there are λ ≥ 0, Σ λ = 1, with Σ λ_i g_i = 0, g_i
// being the change of margin i per unit of travel and turn. g is taken here by central differences of the
// margins themselves.

#include "casting/seat_input.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace datrin::casting {

struct HeldBy;

struct SeatCheckOptions {
  double margin_tolerance = 5e-6; ///< mm: a level may lose 1e-6 again for the sake of the next
  double balance_tolerance =
      1e-3; ///< per component; turns are counted at the touches' own size. Where a seat is held by
            ///< the curve of a bore, losing 1e-6 mm moves it some µm, and its forces turn by as much
  std::array<bool, 6> locked{}; ///< components a lock bears: they need not balance
  std::optional<Vec3> centre{}; ///< what turns and locks refer to; nothing: the mean of the touches
};

struct SeatCheck {
  bool holds = false;
  double margin_error = 0; ///< mm: largest |margin of a holding touch − least margin|
  double shortfall = 0;    ///< mm: how far any margin is below the claimed least
  double least_share = 0;  ///< the most negative share; 0 when none is negative
  double sum_error = 0;    ///< |Σ shares − 1|
  double imbalance = 0;    ///< largest of the six |Σ λ g|
  std::string message;     ///< what failed; empty when it holds
};

/// Checks that `least` is the least (weighed) margin of `input` at `pose`, and that `held_by` proves it
/// cannot be bettered by any small motion.
SeatCheck check_seat(const SeatInput& input, const Pose& pose, double least,
                     const std::vector<HeldBy>& held_by, const SeatCheckOptions& options = {});

} // namespace datrin::casting
