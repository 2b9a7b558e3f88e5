#pragma once
// Drawings begun from a few sizes: common shapes of castings, to be edited freely afterwards.

#include "build/edits.h"

#include <string>
#include <vector>

namespace datrin::build {

enum class QuickShape {
  pedestal,
  cylinder_block,
  cover,
  flange,
  wheel,
  bracket,
  angle_plate,
  axlebox,
  plain_block
};

struct QuickSize {
  std::string name; ///< "length of the foot"
  double mm = 0;    ///< what it begins with
};

struct QuickStart {
  QuickShape shape;
  std::string name;  ///< "Pedestal"
  std::string words; ///< what it is, in one line
  std::vector<QuickSize> sizes;
};

/// The shapes on offer, with their sizes.
const std::vector<QuickStart>& quick_starts();

/// A drawing: surfaces in order, and walls between them by index.
struct QuickDrawing {
  std::string message;               ///< which size does not fit; empty when the drawing can be made
  std::vector<PartSurface> surfaces; ///< part is left 0
  struct QuickWall {
    std::size_t from = 0, to = 0;
    double least = 0;
  };
  std::vector<QuickWall> walls;
};

/// The drawing of `shape` with these sizes (mm, in the order of its QuickStart).
QuickDrawing quick_drawing(QuickShape shape, const std::vector<double>& sizes);

/// Adds a part with that drawing and its first piece, in one edit; a name that is taken gets a number.
Added add_quick_part(const Build& build, const std::string& name, const QuickDrawing& drawing);

} // namespace datrin::build
