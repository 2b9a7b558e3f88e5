#pragma once
// How thick the walls of a casting really are where it was touched, once the part is seated: from a touch on
// a face that stays as cast, square to it through the metal, to the face behind as the drawing has it.

#include "solid/solid.h"

#include <vector>

namespace datrin::solid {

/// A touch on a face that stays as cast, drawing frame.
struct CastTouch {
  Vec3 at = Vec3::Zero();
  Vec3 out = Vec3::UnitZ(); ///< unit, out of the metal there
};

struct SeatedWall {
  int touch = -1;         ///< index of the touch; −1: none has a wall behind it
  double thick = 0;       ///< mm: from the touch to the face behind; below 0: the face behind comes through
  double drawn = 0;       ///< mm: the same as drawn
  double over = 0;        ///< mm the touch lies outside the drawn face; thick = drawn + over
  std::size_t behind = 0; ///< index into Solid::faces
};

struct SeatedWallOptions {
  double reach = 12;    ///< mm: a touch further from the drawn face than this is of something else
  double askew = 0.5;   ///< cosine: meeting the face behind flatter than that it is a corner, no wall
  double thickest = 60; ///< mm: more than that is no wall
};

/// The thinnest wall behind any of the touches. Which face is behind is found by the triangles of the solid;
/// how far off it is is exact where it is a plane, a round or a taper: the nearest place of it, as walls to
/// keep are measured.
SeatedWall thinnest_seated(const Solid& solid, const std::vector<CastTouch>& touches,
                           const SeatedWallOptions& options = {});

} // namespace datrin::solid
