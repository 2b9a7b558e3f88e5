#pragma once
// From a seat and a chosen way up to the surface plate: how high to set three jacks so that the drawing
// direction stands truly vertical, and where to set the height gauge for every line that can be scribed that
// way up.
// A piece of known stock needs no jacks: it stands flat on a face, or on blocks, and its underside takes
// their place.
//
// With u the upward direction (drawing frame, unit), a drawing point p stands at height u·p + c above the
// plate. c follows from the base height: what the reference line (a finished plane, or the lowest jack) is to
// stand at. The jack under touch i then is u·x_i + c high, x_i being the touch in the drawing frame at the
// seat.

#include "casting/seat_input.h"
#include "quantity/reckoning.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace datrin::casting {

struct MarkingInput {
  SeatInput part;          ///< surfaces and touches
  Pose seat;               ///< survey frame → drawing frame
  Vec3 up = Vec3::UnitZ(); ///< drawing direction that is to point up, unit length
  int reference = -1; ///< surface that stands at base_height; −1: the lowest jack, or the underside, does
  double base_height = 25;              ///< mm above the plate
  std::array<int, 3> jacks{-1, -1, -1}; ///< touches the jacks stand under; any −1: chosen here
  std::optional<double> underside; ///< mm along `up`, drawing frame: it stands flat on that, without jacks
  std::optional<double> top;       ///< and reaches up to there
};

struct MarkingOptions {
  double parallel_within = 1e-4; ///< radians: how squarely a plane or axis must lie to be scribed
  double underside = 0.7; ///< a touch is underneath when its outward direction points down by more than this
  int checks = 4;         ///< how many touches to read before scribing
  double flat_triangle = 5; ///< mm: the jacks' triangle must be at least this high
};

enum class MarkingStatus {
  not_run,
  ok,
  too_few_underneath, ///< fewer than three touches on the underside: nowhere to stand a jack
  jacks_in_line,      ///< the three jacks stand (nearly) in one line
  refused             ///< an index or direction is off
};

struct JackSetting {
  int point = -1;         ///< touch it stands under
  double height = 0;      ///< mm above the plate
  Vec3 at = Vec3::Zero(); ///< drawing frame
  Reckoning reckoning;
};

struct LineSetting {
  int surface = -1;
  bool centre_line = false; ///< of a bore or boss; else the line of a plane
  double height = 0;        ///< mm above the plate
  Reckoning reckoning;
};

struct CheckHeight {
  int point = -1;
  double height = 0;      ///< mm the gauge should read there before anything is scribed
  double uncertainty = 0; ///< mm, 95 %, of the touch itself
};

struct NotScribed {
  int surface = -1;
  std::string reason;
};

struct MarkingResult {
  MarkingStatus status = MarkingStatus::not_run;
  std::string message;
  std::vector<JackSetting> jacks; ///< three
  std::vector<LineSetting> lines; ///< lowest first
  std::vector<CheckHeight> checks;
  std::vector<NotScribed> not_scribed;
  double bottom_height = 0;         ///< mm above the plate: the underside of one that stands flat
  std::optional<double> top_height; ///< mm above the plate: where a piece that stands flat ends
  double height_zero = 0;           ///< c: height of the drawing's origin, mm
  bool stands = true;               ///< the touches' centre lies within the jacks' triangle, seen from above
  std::string caution;              ///< a jack below nothing, a negative height and the like; empty when none

  bool usable() const { return status == MarkingStatus::ok; }
};

MarkingResult mark_out(const MarkingInput& input, const MarkingOptions& options = {});

/// The six plain ways up, and for each the name of the machined plane that then faces down ("foot down"), or
/// the direction ("+z up") when none does.
struct WayUp {
  Vec3 up = Vec3::UnitZ();
  int down_surface = -1;
  std::string name;
};
std::vector<WayUp> ways_up(const SeatInput& part);

} // namespace datrin::casting
