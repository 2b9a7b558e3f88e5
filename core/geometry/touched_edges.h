#pragma once
// Two edges of a part that lies any way round on a table, by touches along each: where they meet and how it
// lies. Frame of the table, mm, radians counter-clockwise.

#include "geometry/surface.h"

#include <array>
#include <string>

namespace datrin {

struct TouchedEdgesInput {
  std::array<Vec2, 2> one, other; ///< where the middle of the finder stood at the touches of either edge
  double finder = 0;              ///< across
};

enum class TouchedEdgesStatus { not_run, found, refused };

struct TouchedEdges {
  TouchedEdgesStatus status = TouchedEdgesStatus::not_run;
  std::string message;
  Vec2 corner = Vec2::Zero(); ///< where the edges meet
  double one_at = 0;          ///< how the first edge lies, from x, above −π/2 to π/2
  double other_at = 0;        ///< the same of the other
  double between = 0;         ///< the angle of the corner between them, through the metal, below π
  bool usable() const { return status == TouchedEdgesStatus::found; }
};

/// Each edge lies half the finder further on than its touches, towards the touches of the other.
TouchedEdges touched_edges(const TouchedEdgesInput& input);

} // namespace datrin
