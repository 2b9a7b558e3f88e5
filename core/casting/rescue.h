#pragma once
// A part that does not clean up: the least changes that save it, each with its number and what it touches
// elsewhere. The person picks.

#include "casting/seat.h"
#include "quantity/unit.h"

#include <functional>
#include <string>
#include <vector>

namespace datrin::casting {

enum class RescueKind {
  leave_low,  ///< accept less metal off a face: it may show where it does not clean up
  move_face,  ///< move a face into the metal: a dimension changes
  shift_bore, ///< move a bore across its axis
  sleeve,     ///< bore larger and bush back to size
  build_up    ///< put metal on and machine it again
};

/// One change to one surface.
struct RescueChange {
  RescueKind kind = RescueKind::leave_low;
  int surface = -1;
  double amount = 0;         ///< mm: metal given up, moved, added; of a sleeve, on the radius
  Vec3 shift = Vec3::Zero(); ///< of a bore, drawing frame
};

/// Changes that together save the part.
struct Rescue {
  std::vector<RescueChange> changes;
  double cost = 0;       ///< mm, summed: how the list is ordered
  Pose pose;             ///< the seat with them
  SeatMargins margins;   ///< of the changed drawing at it
  std::string what;      ///< "move foot 0.42 mm into the metal"
  std::string elsewhere; ///< "foot to bore becomes 45.58; the wall at boss keeps 0.31"
};

struct RescueOptions {
  Pose start;      ///< where the part is now
  double room = 0; ///< mm: least margin to reach
  double most = 5; ///< mm: no change larger than this is offered
  double resolution = 0.005;
  Unit unit = Unit::mm; ///< of the words
  std::function<bool()> should_stop;
};

enum class RescueStatus { not_run, not_needed, found, none, stopped, refused };

struct RescueResult {
  RescueStatus status = RescueStatus::not_run;
  std::string message;
  double short_by = 0;         ///< mm: what the best seat of the drawing as it is lacks
  std::vector<Rescue> rescues; ///< cheapest first
};

/// Looks for single changes; where none is enough, for pairs.
RescueResult find_rescues(const SeatInput& input, const RescueOptions& options = {});

/// The drawing with the changes made.
SeatInput with_changes(SeatInput input, const std::vector<RescueChange>& changes);

} // namespace datrin::casting
