#include "casting/jaw_hold.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace datrin::casting {

JawHold jaw_hold(const JawInput& input) {
  const double high = std::max(0.0, input.high), give = std::max(0.0, input.give),
               draft = std::max(0.0, input.draft);
  if (draft >= std::numbers::pi / 2) return {high, 0, true};
  const double lean = std::tan(draft);
  JawHold out;
  out.gap = high * lean;
  out.borne = out.gap <= give ? high : give / lean;
  out.line = out.borne <= 0 && high > 0;
  return out;
}

} // namespace datrin::casting
