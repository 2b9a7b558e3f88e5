#pragma once
// An optimum of margin/least.h checked without the solver that found it: every figure is recomputed from the
// problem's own rows.

#include "margin/least.h"

namespace datrin::margin {

struct CertificateOptions {
  double tolerance = 1e-7; ///< for every figure below
};

struct Certificate {
  bool holds = false;
  double worst_shortfall =
      0; ///< how far any free margin is below t, or a held one below its floor, or x past a bound
  double least_multiplier = 0; ///< the most negative multiplier, 0 when none is negative
  double sum_error = 0;        ///< |Σ λ over free rows − 1|
  double imbalance = 0;        ///< largest |Σ_i λ_i a_ij − (bound multiplier)_j| over the variables
  double gap = 0;              ///< |dual value − t|
};

/// Checks `result` against `input` (no cap on held multipliers is assumed). By linear programming duality,
/// all five figures zero proves that no other x does better.
Certificate check_least(const LeastInput& input, const LeastResult& result,
                        const CertificateOptions& options = {});

} // namespace datrin::margin
