#pragma once
// Building a chain by walking from feature to feature on the drawings: which dimensions lead from one surface
// of a part to another, with signs and coefficients from geometry. Lengths mm.

#include "build/build.h"

#include <string>
#include <vector>

namespace datrin::chains {

/// Which part of a round surface is meant; of a plane it says nothing.
enum class Flank {
  none, ///< its axis
  far,  ///< its side towards the way the walk looks: half the diameter is walked as well
  near  ///< the side behind
};

/// Where a stretch begins or ends.
struct WalkEnd {
  build::Id surface = 0;
  Flank flank = Flank::none;
  bool operator==(const WalkEnd&) const = default;
};

/// One stretch of the walk inside one part.
struct WalkStep {
  build::Id part = 0;
  WalkEnd from, to;
};

struct WalkInput {
  Vec3 along = Vec3::UnitX(); ///< the way the gap is counted, in the first part's drawing frame
  std::vector<WalkStep> steps;
};

struct WalkResult {
  bool ok = false;
  std::string message;                 ///< where it breaks off, and which dimension is missing
  std::vector<build::ChainTerm> terms; ///< those of one dimension gathered
  double nominal = 0;                  ///< Σ coefficient · nominal
  std::vector<Vec3> along;             ///< per step: the way in that part's own frame
};

/// Between steps the parts touch: at planes face to face, so that the way is carried over by their normals;
/// at round surfaces on one axis, when the way is at a right angle to it, it is taken to be the same in both
/// drawings.
WalkResult walk(const build::Build& build, const WalkInput& input);

} // namespace datrin::chains
