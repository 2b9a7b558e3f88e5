#pragma once
// The seat as a general library would be given it: one linear programme with a row for every touch, solved by
// GLPK, linearised anew at each answer until it settles. Used by the benchmark and as a second opinion in the
// tests.

#include "casting/seat_input.h"

namespace datrin::reference {

struct WholeLpResult {
  bool solved = false;
  double least = 0; ///< mm: least margin at `pose`
  Pose pose;
  int programmes = 0;
};

/// One programme at `start`: variables are the six components of a small motion, |each| ≤ reach, and the
/// least margin. Rows: every touch on a machined surface, every touch that has a wall. Repeats with a
/// shrinking reach until the least margin grows by less than 1e-9, at most `most` times.
/// GLPK is stopped after `most_seconds` a programme; `solved` is then false.
WholeLpResult seat_by_whole_lp(const casting::SeatInput& input, const Pose& start, double reach, int most,
                               double most_seconds = 1e6);

/// The same single programme stated as its dual (7 rows, a column for every touch), as one would who knows
/// that it has few variables; GLPK again. The value is the linearised least margin.
WholeLpResult whole_lp_dual(const casting::SeatInput& input, const Pose& at, double reach);

} // namespace datrin::reference
