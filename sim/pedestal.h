#pragma once
// Random castings of one simple shape, a bearing pedestal, for trials of the seat and for benchmarks.

#include "casting/seat_input.h"
#include "sim/rough_casting.h"

namespace datrin::sim {

struct PedestalOptions {
  int touches = 12;        ///< a surface; there are seven
  double roughness = 0.2;  ///< mm, standard deviation of a surface about its form
  double tightness = 0;    ///< mm taken off every stock: more makes a casting that may not clean up
  double core_drift = 0.4; ///< mm, standard deviation of the core's drift in each direction
  double most_turn = 0.05; ///< radians, about each axis, of the pose it lies in
  double most_shift = 5;   ///< mm, along each
  std::uint64_t seed = 1;
};

struct Pedestal {
  casting::SeatInput input;
  std::vector<Eigen::Vector2d> extent; ///< per surface: width and height touched, (0, length) of round ones
  Pose truth; ///< survey frame → the frame it was made in (not the best seat, but near it)
};

/// A block 76 × 36 with a 22 bore 34 above the foot in a boss of 36: dimensions of no particular engine.
Pedestal random_pedestal(const PedestalOptions& options);

} // namespace datrin::sim
