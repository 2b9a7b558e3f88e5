#pragma once
// The order in which the numbers of a build are made, and which of them can be cut now.

#include "chains/build_targets.h"

#include <string>
#include <vector>

namespace datrin::chains {

/// A number that is to be made next, and why now.
struct NextNumber {
  Made made;
  double make = 0, hold = 0, room = 0;
  int waits_for = 0;       ///< unmade mates it could still be fitted to
  std::vector<Made> mates; ///< those, and the made ones
  bool mate_made = false;
  std::string why;

  /// Nothing it fits is still open, or something it fits is made: it can be cut and need never move again.
  bool can_be_cut() const { return waits_for == 0 || mate_made; }
};

/// The order of making that keeps most room: what is hardest to hold first, since what comes later can still
/// follow it; of two alike the hole before the shaft; a number whose mates are all made comes last but can be
/// cut at once.
std::vector<NextNumber> order_of_making(const build::Build& build, const BuildTargets& targets);

/// For the machine: those that can be cut now before the others, each in the order of making.
std::vector<NextNumber> next_to_cut(std::vector<NextNumber> order);

} // namespace datrin::chains
