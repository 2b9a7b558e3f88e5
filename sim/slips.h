#pragma once
// Surveys with a mistake put in: what a tired person does at the height gauge.

#include "casting/mistakes.h"
#include "sim/pedestal.h"

namespace datrin::sim {

/// The pedestal's touches as they would be booked: centre of a ball of `tip_radius`, and the way it
/// travelled.
casting::MistakesInput booked(const Pedestal& pedestal, double tip_radius = 1.5);

struct Slip {
  int touch = -1; ///< −1: this survey offers no place for such a slip
  casting::MistakeKind kind = casting::MistakeKind::unexplained;
};

/// Puts one slip of `kind` into a touch chosen by `seed`, in the coordinate that says where the surface is (a
/// slip along a surface changes nothing that could be seen, nor does it do harm). A sign or a unit is slipped
/// only where that moves the touch by a millimetre or more.
Slip put_in_slip(casting::MistakesInput& input, casting::MistakeKind kind, std::uint64_t seed);

} // namespace datrin::sim
