#pragma once
// STL, binary, for a printer or another program.

#include "solid/solid.h"

#include <string>

namespace datrin::solid {

/// The bytes of the file: every triangle `scale` times as large, mm. Empty: there are none.
std::string stl_bytes(const Solid& solid, double scale = 1);

} // namespace datrin::solid
