#pragma once
// The marking-out lines as DXF, for a plotter or another program: one elevation, heights above the plate as
// y.

#include "sheets/marking_sheet.h"

#include <string>

namespace datrin::sheets {

/// Text of a DXF file (AC1015), millimetres: layer PLATE the plate, PART the finished part, LINES one line
/// and its height as text per scribed line, JACKS a point per jack.
std::string marking_dxf(const MarkingPicture& picture);

} // namespace datrin::sheets
