#pragma once
// Which piece goes with which, by what was read of them. (readings uses fits here, for the pairing itself.)
// Lengths mm.

#include "build/build.h"
#include "fits/pairing.h"

#include <string>
#include <vector>

namespace datrin::readings {

/// Which piece goes with which, by their readings: pairs nearest to the middle of the limits. What is spare,
/// or not read yet, goes together in order, so that no piece drops out of the joint.
struct PairedPieces {
  build::Joint joint;
  std::string wrong;
  struct Left {
    int number = 0; ///< of the piece that found no mate
    bool hole = false;
    double mate = 0; ///< mm: the size its mate would have
  };
  std::vector<Left> left;
  double worst = 0; ///< mm from the middle
};
PairedPieces pair_pieces(const build::Build& build, const build::Joint& joint, fits::PairingGoal goal);

} // namespace datrin::readings
