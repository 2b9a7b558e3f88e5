#pragma once
// A rounded corner made by an end mill in steps: where its middle stands at each, and how proud the metal
// stays between. Both finished sides are 0; the work lies where both places are below 0. mm, radians.

#include "geometry/surface.h"

#include <string>
#include <vector>

namespace datrin::cutting {

struct CornerInput {
  double radius = 0;
  double cutter = 0;
  bool inside = false; ///< the corner of a pocket; else of a plate
  int steps = 0;       ///< over the quarter; 0: as many as `proud` wants
  double proud = 0.02; ///< mm that may stay between two
};

enum class CornerStatus { not_run, found, refused };

struct CornerSteps {
  CornerStatus status = CornerStatus::not_run;
  std::string message;
  std::vector<Vec2> middles;
  double proud = 0; ///< mm that stays between two
  bool usable() const { return status == CornerStatus::found; }
};

/// The middle goes round the corner's own centre at radius ± half the cutter. Between two, an angle apart,
/// metal stays as high as the two circles of the cutter leave it.
CornerSteps corner_steps(const CornerInput& input);

struct Stair {
  double deep = 0; ///< mm from the top
  double in = 0;   ///< mm the edge of the cutter stands inside of the side
};

/// A rounded edge milled in steps of `step` downwards, the cutter square: at each depth so far in as the
/// round lets it. Empty where a number is not above 0, or there would be more than `most`.
std::vector<Stair> rounded_edge_stairs(double radius, double step, std::size_t most = 200);

} // namespace datrin::cutting
