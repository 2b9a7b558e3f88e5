#pragma once
// The thinnest metal of a solid.

#include "solid/solid.h"

#include <functional>

namespace datrin::solid {

enum class ThicknessStatus { not_run, found, none, stopped };

struct Thickness {
  ThicknessStatus status = ThicknessStatus::not_run;
  std::string message;
  double least = 0;                            ///< mm
  Vec3 from = Vec3::Zero(), to = Vec3::Zero(); ///< the two ends of it, on the solid
  std::size_t face_from = 0, face_to = 0;      ///< indices into Solid::faces
};

struct ThicknessOptions {
  double step = 0;            ///< mm between places that are tried; 0: a sixtieth of its size
  int refined = 24;           ///< the thinnest that many places are followed to where it is least
  std::function<bool()> stop; ///< asked now and then
};

/// The least length of a straight line through metal, square to the face it starts from (where it ends it may
/// meet the other face at any angle up to 60° off square: nearer an edge than that it is a corner, not a
/// wall).
Thickness thinnest(const Solid& solid, const ThicknessOptions& options = {});

} // namespace datrin::solid
