#pragma once
// Where three jacks can stand under a casting, and where they stand best. Drawing frame, mm; `up` is the
// drawing direction that is to point up (unit).

#include "casting/seat_input.h"

#include <array>
#include <string>
#include <vector>

namespace datrin::casting {

/// Touches a jack can stand under: on the outside of the metal, facing down by more than `underside` (the
/// cosine). Holes give none: a jack does not reach into them. Indices into `part.points`, in their order.
std::vector<int> touches_underneath(const SeatInput& part, const Pose& seat, const Vec3& up,
                                    double underside = 0.7);

struct JackInput {
  const SeatInput& part;
  Pose seat; ///< survey frame → drawing frame
  Vec3 up = Vec3::UnitZ();
  std::array<int, 3> wanted{-1, -1, -1}; ///< touches; any −1: chosen here
};

struct JackOptions {
  double underside = 0.7;
  double flat_triangle = 5; ///< mm: the jacks' triangle must be at least this high
};

enum class JackStatus {
  chosen,
  too_few_underneath, ///< fewer than three touches on the underside: nowhere to stand a jack
  in_line             ///< the three stand (nearly) in one line
};

struct JackPlaces {
  JackStatus status = JackStatus::too_few_underneath;
  std::string message;
  std::array<int, 3> touches{-1, -1, -1};
  bool stands = true; ///< the touches' centre lies within the jacks' triangle, seen from above
};

/// The touches wanted, or the largest triangle that has the centre of all touches inside it seen from above;
/// the largest at all when none has.
JackPlaces choose_jacks(const JackInput& input, const JackOptions& options = {});

} // namespace datrin::casting
