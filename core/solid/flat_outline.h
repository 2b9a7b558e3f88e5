#pragma once
// The true outline of a flat face, holes and all: straight lines, arcs and circles as such.

#include "solid/solid.h"

#include <string>
#include <vector>

namespace datrin::solid {

struct FlatCurve {
  enum class Kind { path, circle, arc };
  Kind kind = Kind::path;
  std::vector<Vec2> at;       ///< mm: of a path; a straight line has two
  Vec2 centre = Vec2::Zero(); ///< mm
  double radius = 0;          ///< mm
  double from = 0, to = 0;    ///< radians, counter-clockwise
};

struct FlatOutline {
  std::string message; ///< why there is none; empty: there is
  std::vector<FlatCurve>
      curves; ///< seen from outside, x and y as patch_directions of the face has them, from its middle
};

FlatOutline flat_outline(const Solid& solid, std::size_t face);

} // namespace datrin::solid
