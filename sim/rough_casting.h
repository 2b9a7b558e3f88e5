#pragma once
// A stand-in for a rough casting on the table: surfaces with stock, roughness, draft and drift, lying in a
// pose that is known here and not to the program, touched where one would touch them.

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <cstdint>
#include <vector>

namespace datrin::sim {

/// One rough surface, stated from its finished one (drawing frame, mm).
struct RoughSurface {
  Surface finished;
  double stock = 2;          ///< metal over the finished surface, on the whole
  Vec3 drift = Vec3::Zero(); ///< the rough surface stands off by this much more (a drifted core)
  double draft = 0;          ///< radians: a plane leans by this about the line across its height
  double width = 40,
         height = 40; ///< planes: extents of the touched patch; round surfaces: height = length touched
  double arc_start = 0, arc = 2 * pi; ///< round surfaces: touched from this angle on, over this much
};

struct RoughOptions {
  int touches = 12;        ///< a surface
  double roughness = 0.15; ///< mm, standard deviation of the surface about its mean form
  double misread = 0.0;    ///< mm, standard deviation of reading errors in each coordinate
  std::uint64_t seed = 1;
};

struct RoughTouch {
  int surface = 0;         ///< index into the surfaces given
  Vec3 xyz = Vec3::Zero(); ///< survey frame
};

/// Touches on every surface. `truth` maps survey frame to drawing frame.
std::vector<RoughTouch> touch_all(const std::vector<RoughSurface>& surfaces, const Pose& truth,
                                  const RoughOptions& options = {});

} // namespace datrin::sim
