#pragma once
// Truing a pressed-up crank, turned on its ends: from how far its shafts run out beside the webs, what to do
// to which, how much it should do, and when to stop.
//
// Each shaft is straight and runs true at its outer end, `shaft` mm from its web. With l and r the
// displacements of the two beside the webs (vectors across the axis, the first component towards the crank
// pin, the second across it), the shafts make a kink of (l + r) / shaft, and stand r − l beside each other.
// Of these
//   – a kink in the plane of the crank is webs that are not parallel: opened with a wedge or closed in a
//   vice,
//     opposite the pin;
//   – standing beside each other across that plane is a web twisted on the pin: struck round it;
//   – a kink across the plane, or beside each other in it (unequal throws), is in the pressing itself: no
//   blow
//     mends it.
// Lengths mm. Derived from the geometry above; what a fitter does to each is common practice.

#include "build/route_records.h"
#include "geometry/surface.h"

#include <string>
#include <vector>

namespace datrin::truing {

/// Where the shafts lie beside the webs: half of what an indicator shows there, towards the pin and across
/// it.
struct CrankState {
  Vec2 left = Vec2::Zero(), right = Vec2::Zero();
  /// The larger of the two runouts an indicator shows, mm.
  double whole() const;
};

struct CrankInput {
  CrankState now;
  double shaft = 0;    ///< from web to outer end
  double rim = 0;      ///< from the pin to where the webs are opened or closed; 0: not said
  double limit = 0.02; ///< mm of whole runout at which one stops (common practice)
};

using build::CrankMove;

/// What was done, and what came of it.
struct CrankBlow {
  CrankMove move = CrankMove::none;
  double wanted = 0; ///< mm it should have done
  CrankState before, after;
};

struct CrankAdvice {
  bool ok = false;
  std::string message; ///< what is wrong with what was given
  CrankMove move = CrankMove::none;
  double amount =
      0; ///< mm: of open and close how much less l + r becomes, of a twist how far the shaft moves
  double at_rim = 0;   ///< mm the webs open or close where the wedge is; 0: no such move, or `rim` not said
  double strength = 1; ///< of the blow that did last as much as it should, by what this crank has shown
  CrankState expected; ///< after it
  double unmended = 0; ///< mm of whole runout that no blow takes away
  std::string text;
};

/// The one thing to do next. `history`: blows so far, oldest first; how much of what was wanted each did
/// tells how this crank answers.
CrankAdvice true_crank(const CrankInput& input, const std::vector<CrankBlow>& history = {});

/// The state after a move that does so much of what is wanted: for showing, and for trying it out.
CrankState after_move(const CrankInput& input, CrankMove move, double amount);

/// How much of what was wanted the last blows of that kind did, on the mean; 1 where there were none.
double learnt(const std::vector<CrankBlow>& history, CrankMove move);

} // namespace datrin::truing
