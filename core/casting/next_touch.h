#pragma once
// Where to touch next: the places whose reading would narrow the least margin most, and when more touching no
// longer pays.
//
// From the drawn surfaces of casting/certainty: the least margin over all is worked out for every draw; a
// place is as good as its own height explains that least margin. The variance of the least margin within
// classes of equal height at the place, averaged, is what would be left after touching there. Further places
// are chosen for what the first leave unexplained. The seat is taken to stay where it is.

#include "casting/certainty.h"
#include "quantity/unit.h"

namespace datrin::casting {

struct TouchAdvice {
  int group = -1;         ///< index into SeatMargins::groups
  int surface = -1;       ///< to touch
  Vec3 at = Vec3::Zero(); ///< drawing frame, on the finished surface
  double narrows = 0;     ///< part of the spread of the least margin this touch takes away, 0 to 1
};

struct NextTouchOptions {
  int count = 3;
  double worth = 0.1;        ///< touches that together take away less than this part no longer pay
  Unit unit = Unit::mm;      ///< of the message
  double fine_enough = 0.02; ///< mm: nor when the least margin is known to this already (±, 95 %)
};

struct NextTouchResult {
  bool known = false;
  std::string message;
  std::vector<TouchAdvice> touches;
  double spread = 0;       ///< mm: ± of the least margin now, 95 %
  double spread_after = 0; ///< mm: with these touches taken
  bool pays = false;
};

NextTouchResult next_touches(const SeatMargins& margins, const CertaintyResult& drawn,
                             const NextTouchOptions& options = {});

} // namespace datrin::casting
