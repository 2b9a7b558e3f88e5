#pragma once
// A part in three views as it lies in a machine: the tool from above, or in a lathe from the right.

#include "route/machine_axes.h"
#include "sheets/three_views.h"

namespace datrin::sheets {

using route::AsHeld;

/// The views laid out as `lay_out` does, of the part turned so.
ThreeViews lay_out_held(const Box& box, const AsHeld& held, const PixelRect& area, bool third_angle,
                        double margin, double gap);

/// "From the front", "From the tool", "From the end": of a view, as it is held.
const char* held_view_name(View view, const AsHeld& held);

} // namespace datrin::sheets
