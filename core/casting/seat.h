#pragma once
// Where in the rough casting the finished part sits.
//
// The finished part is stated in surfaces (drawing frame), the casting in touches (survey frame). A seat is
// the pose that maps survey frame to drawing frame, x_part = R · x_survey + t. At a pose each touch has a
// margin:
//
//   on a machined surface   margin = stock − required − uncertainty         (stock: geometry/surface.h)
//   kept wall from → to     margin = −stock of `to` at a touch on `from` − least − uncertainty
//
// and each surface or wall the least of its touches'. The seat sought has the largest least margin; then,
// with what limits held, the next, surface by surface; what is still free moves as little as possible from
// the start.
//
// Method (docs/seat.md): a least-squares placing for a start, then sequential linear programming with a trust
// region, one level of the order after the other, each programme (margin/least.h) holding only the touches
// that bind; others are added when a step would violate them. The answer is checked by casting/seat_check.h.

#include "casting/free_motion.h"
#include "casting/seat_check.h"
#include "casting/seat_input.h"

#include <array>
#include <functional>
#include <string>
#include <vector>

namespace datrin::casting {

struct SeatOptions {
  Pose start;                    ///< where the part is now: survey frame → drawing frame
  double tolerance = 1e-9;       ///< mm: a level ends when the next step promises less
  int most_steps = 200;          ///< linear programmes per level
  double limiting_within = 1e-6; ///< mm: margins this close to the least are marked as limiting
  std::array<bool, 6> locked{};  ///< motions not allowed from `start`: moving along x, y, z, turning about
                                 ///< x, y, z of the drawing, the turn being about the middle of the touches
  std::function<bool()> should_stop; ///< asked between steps; may be empty
};

enum class SeatStatus {
  not_run,
  seated,       ///< the answer below is the best seat (motions in `undetermined` were left as they were)
  undetermined, ///< nothing limits the least margin: no number can be given, the pose is the start
  refused,      ///< the input breaks a rule; the message names it
  stopped,      ///< should_stop said so; the pose is the best so far
  failed        ///< no convergence; the message says where
};

/// A touch that holds the seat where it is.
struct HeldBy {
  int point = -1;   ///< index into SeatInput::points
  int surface = -1; ///< the surface it was touched on
  int wall_to = -1; ///< the finished surface its wall is measured to; −1: it holds by its stock
  double share =
      0; ///< shadow price: mm of least margin gained per mm eased at this touch; the shares sum to 1
};

struct SeatResult {
  SeatStatus status = SeatStatus::not_run;
  std::string message;
  Pose pose;
  Vec3 centre = Vec3::Zero();  ///< middle of the touches, drawing frame: what locked motions refer to
  SeatMargins margins;         ///< at `pose`
  std::vector<HeldBy> held_by; ///< largest share first
  std::vector<FreeMotion> undetermined;
  SeatCheck check;
  int programmes = 0; ///< linear programmes solved
  int rows = 0;       ///< touches the last programme held

  bool usable() const { return status == SeatStatus::seated; }
  bool cleans_up() const { return usable() && margins.least >= 0; }
};

/// Seats the part. Never throws for what is in `input`.
SeatResult seat(const SeatInput& input, const SeatOptions& options = {});

} // namespace datrin::casting
