#pragma once
// The start of a seat: the least-squares placing of the touches on their surfaces, and which motions they
// leave free.

#include "casting/free_motion.h"
#include "casting/seat_groups.h"

#include <array>

namespace datrin::casting {

struct SeatStart {
  Pose pose;
  Vec3 centre = Vec3::Zero(); ///< mean of the touches at `pose`, drawing frame
  double size = 1;            ///< mm: root mean square distance of the touches from it
  Motions held; ///< orthonormal basis of the motions some margin feels (in travel, turn × size)
  Motions free; ///< and of those none feels
};

/// Gauss–Newton from `start` with damping; each group weighs the same however many touches it has, at most
/// 400 of a group are used. A touch is pulled to where its machined surface has its required stock, or onto
/// its as-cast surface. Motions that no touch feels are not moved. `surfaces` are those of the input the
/// groups came from. `locked` names motions that are not allowed, as SeatOptions does; they are in neither
/// `held` nor `free`.
SeatStart least_squares_start(const SeatInput& input, const std::vector<Group>& groups, const Pose& start,
                              const std::array<bool, 6>& locked = {});

/// Motions at `pose` that raise some margin for ever and lower none, named; where it is not along or about
/// one axis, `way_out`, the motion a programme grew by without limit.
std::vector<FreeMotion> growing_motions(const std::vector<Group>& groups, const Pose& pose,
                                        const SeatStart& start, const Vec6& way_out);

} // namespace datrin::casting
