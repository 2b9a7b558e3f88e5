#pragma once
// Which pieces of a joint meet.

#include "build/build.h"

#include <string>
#include <utility>
#include <vector>

namespace datrin::chains {

/// (Piece of the hole, piece of the shaft): those that were paired, else in order, the shorter list over
/// again. Over a thread the shaft's piece is 0.
std::vector<build::PiecePair> joint_pairs(const build::Build& build, const build::Joint& joint);

/// The joint with other pairs, or why it cannot be.
struct Paired {
  build::Joint joint;
  std::string wrong;
  bool ok() const { return wrong.empty(); }
};

/// These two go together. Where there are several of a piece's kind, the mate each had before is free: it
/// goes with the other's, where both lost theirs.
Paired pair_them(const build::Build& build, const build::Joint& joint, const build::PiecePair& pair);

/// The joint is of this pair alone: of two boxes on one axle the left is one joint, the right another.
Paired pair_only(const build::Build& build, const build::Joint& joint, const build::PiecePair& pair);

} // namespace datrin::chains
