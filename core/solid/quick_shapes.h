#pragma once
// The shapes of the quick starts, drawn body by body.

#include "solid/quick_start.h"

#include <vector>

namespace datrin::solid {

/// Draws `shape` with sizes that are all there and above 0 (mm, in the order of its QuickStart); the message
/// says which do not fit each other.
void draw_quickly(QuickShape shape, const std::vector<double>& sizes, QuickDrawing& drawing);

} // namespace datrin::solid
