#pragma once
// A solid as it is drawn: edges of a view, visible, hidden and smooth; sections with their area.

#include "solid/solid.h"

#include <vector>

namespace datrin::solid {

enum class LineKind {
  sharp,   ///< an edge that is seen
  outline, ///< where a round face turns away
  smooth,  ///< where two faces run into each other without an edge
  hidden,  ///< an edge or outline behind metal
};

struct DrawnLine {
  LineKind kind = LineKind::sharp;
  std::vector<Vec2> at; ///< mm: to the right, and up, from where the drawing's origin is seen
};

struct ViewDirection {
  Vec3 toward = Vec3::UnitY(); ///< the way one looks; unit
  Vec3 up = Vec3::UnitZ();     ///< unit, square to it
};

struct ViewOptions {
  bool hidden = true;
  double deflection = 0.02; ///< mm a curve may be off
};

/// Hidden lines taken exactly. Empty where there is no solid.
std::vector<DrawnLine> drawn_lines(const Solid& solid, const ViewDirection& view,
                                   const ViewOptions& options = {});

/// A cut through a solid.
struct Section {
  std::string message;                     ///< why there is none; empty: there is
  double area = 0;                         ///< mm²
  std::vector<std::vector<Vec3>> outlines; ///< closed, mm in the drawing frame: outer ones and those of holes
};
Section section(const Solid& solid, const Vec3& on, const Vec3& normal, const ViewOptions& options = {});

} // namespace datrin::solid
