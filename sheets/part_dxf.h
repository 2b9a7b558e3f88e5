#pragma once
// A part as DXF: its three views as they are drawn, or the true outline of a flat face, for a plotter, a
// cutter or another program. Millimetres.

#include "sheets/solid_picture.h"
#include "solid/flat_outline.h"

#include <string>

namespace datrin::sheets {

/// The three views laid out as on screen, full size: layers VISIBLE, SMOOTH, HIDDEN, CENTRE. Empty: there is
/// no solid.
std::string views_dxf(const SceneInput& part, bool third_angle);

/// Lines, arcs and circles of the outline and its holes, layer OUTLINE; other curves as short lines.
std::string outline_dxf(const solid::FlatOutline& outline);

} // namespace datrin::sheets
