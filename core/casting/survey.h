#pragma once
// From the build's records to the inputs of the casting computations.

#include "build/build.h"
#include "casting/marking_out.h"
#include "casting/seat_input.h"
#include "casting/settings.h"

#include <optional>
#include <vector>

namespace datrin::casting {

/// The touched point in its setting's frame: the centre plus the radius along the direction of travel.
/// Nothing when there is a radius but no direction: such a touch cannot be corrected.
std::optional<Vec3> touched_point(const build::Touch& touch);

/// What one point of a seat's input stands for.
enum class PointSource {
  touch,  ///< a touch with coordinates
  height, ///< a touch of which only the height is known; where on its surface is taken from the drawing
  size,   ///< set opposite a touch, at the size read across
  scan    ///< a point of a scan
};

/// A piece's seat input with, for each index, the record it came from.
struct PieceInput {
  SeatInput seat;
  std::vector<build::Id> surface_ids; ///< per SeatInput::surfaces
  std::vector<build::Id> touch_ids;   ///< per SeatInput::points: the touch, size reading or scan
  std::vector<PointSource> sources;   ///< per SeatInput::points
  std::vector<build::Id> wall_ids;    ///< per SeatInput::walls
  std::vector<build::Id> uncorrected; ///< touches left out for want of a direction of travel
  std::vector<build::Id> not_joined;  ///< touches left out because their setting is not joined yet
  int set_aside = 0;                  ///< touches the person set aside
  Settings settings;
  std::vector<std::string> remarks; ///< what a size reading says beside points: bounds, contradictions

  int surface_index(build::Id id) const; ///< −1 when not there
  int touch_index(build::Id id) const;   ///< −1 when not there
};

/// Surfaces and walls of the piece's part, and everything read on the piece: touches in all settings that are
/// joined, heights, sizes, scans. Surfaces that cannot be used yet (a round one without a diameter) are left
/// out with their touches and walls. Heights and sizes need to know roughly where the part lies: the kept
/// seat, or where the other touches put it.
PieceInput piece_input(const build::Build& build, build::Id piece);

/// The piece's seat; where there is none yet, the part lying with the middle of its touches on the middle of
/// its touched surfaces and not turned.
Pose seat_or_start(const build::Build& build, build::Id piece, const PieceInput& input);

/// How the piece is marked out, or a beginning: the widest machined plane down, standing at 25 mm.
build::Marking marking_or_start(const build::Build& build, build::Id piece, const PieceInput& input);

/// The marking-out input from those records.
MarkingInput marking_input(const PieceInput& input, const Pose& seat, const build::Marking& marking);

} // namespace datrin::casting
