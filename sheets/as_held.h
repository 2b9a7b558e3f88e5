#pragma once
// A part in three views as it lies in a machine: the tool from above, or in a lathe from the right.

#include "sheets/three_views.h"

namespace datrin::sheets {

/// How a part stands in a setup. `way`: where the tool comes from, out of the part, drawing frame; zero: as
/// it is drawn. `lathe`: gripped at the left, the tool comes from the right.
struct AsHeld {
  Vec3 way = Vec3::Zero();
  bool lathe = false;
};

/// Rows: what is right, away and up at the machine, in the drawing frame. `right` stays as near to the
/// drawing's as it can.
Mat3 machine_axes(const AsHeld& held);

/// The views laid out as `lay_out` does, of the part turned so.
ThreeViews lay_out_held(const Box& box, const AsHeld& held, const PixelRect& area, bool third_angle,
                        double margin, double gap);

/// "From the front", "From the tool", "From the end": of a view, as it is held.
const char* held_view_name(View view, const AsHeld& held);

} // namespace datrin::sheets
