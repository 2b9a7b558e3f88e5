#pragma once
// After a slip: what can still be done with a piece whose surface was cut too deep, each with what it costs
// in room, minutes and other parts; and the edit that takes it, with the operations it adds to the route.
// Judged by the person: nothing here is taken by itself.

#include "allowance/plan.h"
#include "build/edits.h"

#include <string>
#include <vector>

namespace datrin::route {

enum class Recovery {
  other_face,  ///< the whole part is moved into the metal after the cut
  mate,        ///< the mate is made to suit
  bush,        ///< a hole bored out and bushed
  sleeve,      ///< a round turned down and sleeved
  liner,       ///< a shim or pad under a face
  build_up,    ///< metal put on again, and cut to size
  leave,       ///< as it is, with a reason
  scrap,       ///< the piece is not made further
  open_out,    ///< of holes: larger, over where it should be and where it is
  next_thread, ///< a larger thread in its place
  plug,        ///< plugged, and drilled anew
  turned,      ///< the whole pattern at other places, here and in the mate
  left_out,    ///< one hole of a pattern is not used
  drive_out,   ///< of a broken tap
  dissolve,    ///< in hot alum, where the metal stands it
  erode        ///< sent out to be spark eroded
};

struct RecoveryWay {
  Recovery way = Recovery::leave;
  bool works = false;
  double room =
      0; ///< mm: metal that stays where it is thinnest afterwards, or room of the limits; 0: not known
  double minutes = 0;              ///< of more work; of scrap: of the work that is lost
  std::vector<std::string> others; ///< parts it touches
  std::string text;                ///< one sentence
  build::Edit edit;                ///< takes it; empty where it does not work
};

struct RecoveryOptions {
  double least_wall = 1.5; ///< mm: of a bush or sleeve (common practice), at least a tenth of its diameter
  double left_wall = 2;    ///< mm that must stay round a bored hole
};

/// The ways for one surface of a piece that is too deep (its plan is spoilt), cheapest that work first. `at`:
/// UTC, ISO 8601. Empty when it is not too deep.
std::vector<RecoveryWay> recoveries(const build::Build& build, build::Id piece,
                                    const casting::PieceInput& input, const Pose& pose,
                                    const std::vector<allowance::SurfacePlan>& plans, build::Id surface,
                                    const std::string& at, const RecoveryOptions& options = {});

const char* recovery_name(Recovery way);

/// What works before what does not, cheapest first; scrap at the end.
void cheapest_first(std::vector<RecoveryWay>& ways);

/// Making another piece: what was done on this one is lost. `cut`: why, as it is kept.
RecoveryWay scrap_way(const build::Build& build, build::Id piece, const std::string& reason);

} // namespace datrin::route
