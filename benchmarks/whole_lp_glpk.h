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
WholeLpResult seat_by_whole_lp(const casting::SeatInput& input, const Pose& start, double reach, int most);

} // namespace datrin::reference
