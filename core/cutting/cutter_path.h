#pragma once
// Where the middle of an end mill goes to leave a slot, a pocket or a boss: its radius to the side of every
// line, in the order that cuts against the feed (conventional), so that the play of the screws does not pull
// it in. Own frame of what is cut: its middle at 0, its length along the first component; seen against the
// tool, the spindle turning clockwise. mm.

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::cutting {

enum class CutOf {
  slot,   ///< round at both ends
  pocket, ///< corners rounded
  boss    ///< milled all round
};

struct CutterPathInput {
  CutOf of = CutOf::slot;
  double length = 0, width = 0; ///< over all
  double corner = 0;            ///< radius; 0: as the cutter leaves it
  double cutter = 0;            ///< across
};

struct CutterPathOptions {
  double same = 0.01;    ///< a cutter so near the width is as wide as the slot
  double over = 0.75;    ///< of the cutter's width one way round lies beside the next (common practice)
  double proud = 0.05;   ///< mm that may stay between two places round a corner, to be blended
  int most_places = 12;  ///< to a corner
  int most_ways = 20;    ///< round the middle: more want a larger cutter first
  bool climbing = false; ///< the other way round: with the feed
  Unit unit = Unit::mm;  ///< of the words
};

enum class CutterPathStatus { not_run, found, refused };

struct CutterPath {
  CutterPathStatus status = CutterPathStatus::not_run;
  std::string message;
  std::vector<Vec2> clearing; ///< before it, from the middle out: what one way round would leave there
  std::vector<Vec2> middles;  ///< one after another; a way round ends where it began
  double beside = 0;          ///< of the cutter's middle from the line it leaves
  std::string left_over;      ///< what this cutter does not make, in words
  bool usable() const { return status == CutterPathStatus::found; }
};

/// (width − cutter) / 2 to either side of the middle inside, (width + cutter) / 2 outside; round a corner,
/// and the ends of a slot, places on an arc of (corner − cutter / 2).
CutterPath cutter_path(const CutterPathInput& input, const CutterPathOptions& options = {});

} // namespace datrin::cutting
