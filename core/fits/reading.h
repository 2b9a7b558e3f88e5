#pragma once
// From what the instrument shows to a size that may be compared: zero error and temperature taken off; and
// whether a size is in its limits, out, or cannot be told (ISO 14253-1). Lengths mm.

#include "quantity/reckoning.h"

#include <string>

namespace datrin::fits {

struct ReadingInput {
  double shown = 0;
  double zero = 0; ///< what the instrument shows when it should show 0
  double piece_temperature = 20, instrument_temperature = 20; ///< °C
  double piece_expansion = 0;                                 ///< 1/K; 0: temperatures are left out
  double instrument_expansion = 11.5e-6;
};

/// size = shown − zero, then shrunk or grown to 20 °C: size · (1 − α_piece (t_p − 20) + α_instrument (t_i −
/// 20)). The total of the sum is the corrected size.
Reckoning corrected(const ReadingInput& input);

enum class Verdict { in, out, cannot_tell };

struct Acceptance {
  Verdict verdict = Verdict::cannot_tell;
  std::string words; ///< "in", "out", or why it cannot be told and what instrument could
};

/// ISO 14253-1, simple acceptance by the supplier's rule: in when size ± uncertainty lies wholly within the
/// limits, out when wholly beyond one, else it cannot be told. `unit`: of the words.
Acceptance accept(double size, double uncertainty, double lower, double upper, Unit unit);

} // namespace datrin::fits
