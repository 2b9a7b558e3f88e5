#pragma once
// What a survey still lacks before a seat can be found, in words that say what to touch.

#include "casting/seat_input.h"

#include <string>
#include <vector>

namespace datrin::casting {

struct SurveyGap {
  int surface = -1; ///< −1: about the whole
  int touches = 0;  ///< there now
  int wanted = 0;   ///< at least this many
  std::string text; ///< "foot: touch 3 places, well apart (1 so far)"
};

/// One entry for every machined surface with too few touches to say how it lies (a plane 3, a bore or boss 6:
/// three around at each of two depths), and for every walled as-cast surface without any. Empty: nothing is
/// missing.
std::vector<SurveyGap> survey_gaps(const SeatInput& input);

} // namespace datrin::casting
