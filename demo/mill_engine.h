#pragma once
// The demo build: an invented mill engine, its castings surveyed by a stand-in. Nothing here is anyone's
// engine.

#include "build/build.h"
#include "geometry/pose.h"

#include <vector>

namespace datrin::demo {

struct DemoPiece {
  build::Id piece = 0;
  Pose truth; ///< survey frame → drawing frame, as the casting was made; the program does not see it
  double roughness = 0;           ///< mm, standard deviation of its surfaces
  Vec3 core_drift = Vec3::Zero(); ///< mm, drawing frame
};

struct DemoBuild {
  build::Build build;
  std::vector<build::Edit> edits; ///< that made it, in order: applied to an empty build they give `build`
  std::vector<DemoPiece> pieces;  ///< those with a survey
};

/// Always the same.
DemoBuild mill_engine();

} // namespace datrin::demo
