#pragma once
// A stand-in for castings whose whole surface is known: each face a lean, and a rough field over it of its
// own coarseness and depth, seen everywhere here and touched in a few places.

#include "casting/certainty.h"

#include <cstdint>
#include <utility>
#include <vector>

namespace datrin::sim {

struct FieldOptions {
  int faces = 4;             ///< planes to be machined, square to each other
  int touches = 10;          ///< a face
  double uncertainty = 0.03; ///< mm, 95 %, of a touch
  double step = 2.5;         ///< mm between the places the truth is known at
  std::uint64_t seed = 1;
};

struct FieldCasting {
  casting::SeatInput input; ///< in the drawing frame: the seat is the identity
  std::vector<casting::SurfaceReach> reach;
  double least = 0;                           ///< mm: the true least margin over all faces
  std::vector<std::pair<Vec3, double>> truth; ///< place on the finished face, and the true margin there
};

/// One casting: roughness from 0.05 to 0.35 mm and correlation length from 4 to 40 mm, even in the logarithm,
/// a face.
FieldCasting field_casting(const FieldOptions& options);

} // namespace datrin::sim
