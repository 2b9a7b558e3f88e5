#pragma once
// A tool that comes to a part along its axis, against the metal that stands: how far up something it would
// run into reaches. The tool is a stack of cylinders about its axis; each sweeps all that is above it, for it
// came from there. Drawing frame, mm. Exact for the triangles of the mesh: each is cut off below the step and
// its distance to the axis taken across the way.

#include "solid/solid.h"

#include <vector>

namespace datrin::solid {

struct SweptStep {
  double from = 0;   ///< mm above the tip
  double radius = 0; ///< mm
};

struct SweptTool {
  Vec3 tip = Vec3::Zero();
  Vec3 way = Vec3::UnitZ(); ///< unit: out of the part, to the spindle
  std::vector<SweptStep> steps;
};

struct SweepOptions {
  double touching = 0.3; ///< mm the sides may come nearer, and the ends lower: the mesh is not round
};

struct SweepHit {
  int step = -1;          ///< the step that hits most deeply; −1: none does
  double into = 0;        ///< mm it would have to stay higher
  Vec3 at = Vec3::Zero(); ///< where
  int face = -1;          ///< of the solid; −1: not known
  bool hits() const { return step >= 0; }
};

SweepHit sweep(const Mesh& mesh, const SweptTool& tool, const SweepOptions& options = {});

} // namespace datrin::solid
