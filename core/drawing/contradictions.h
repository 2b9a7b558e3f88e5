#pragma once
// What in a part's drawing cannot be, or was probably not meant: dimensions that do not add up, an edge
// radius that is not half the thickness, a cutter's corner larger than the drawing's, a wall or edge margin
// that vanishes, an angle whose complement was probably meant.

#include "build/build.h"

#include <string>
#include <vector>

namespace datrin::drawing {

enum class Severity { wrong, look };

struct Contradiction {
  Severity severity = Severity::wrong;
  std::string text;                  ///< one sentence, with both numbers
  std::vector<build::Id> dimensions; ///< concerned
  std::vector<build::Id> surfaces;
};

struct ContradictionOptions {
  double tolerance = 0.0005; ///< mm: sums closer than this agree
  Unit unit = Unit::mm;      ///< the texts' first unit
};

/// Every contradiction in the drawing of `part`, the wrong ones first.
std::vector<Contradiction> contradictions(const build::Build& build, build::Id part,
                                          const ContradictionOptions& options = {});

/// Both ways an angle may have been meant, over a length `run` (mm): 7 mm at 30° climbs 4.041, at 60° 12.124.
struct AngleLegs {
  double angle = 0, complement = 0; ///< radians
  double leg = 0, other_leg = 0;    ///< mm: run · tan of each
};
AngleLegs angle_legs(double angle, double run);

/// What the drawing's surfaces say a dimension is, mm (angle: radians); nothing when they do not say.
std::optional<double> drawn_value(const build::Build& build, const build::Dimension& dimension);

} // namespace datrin::drawing
