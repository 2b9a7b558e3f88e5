#pragma once
// The points of a PLY file (PLY 1.0 as published by its authors, 1994): text or binary of either order of
// bytes. Read here, for a library that believes any head was led astray by notes and odd names in it.

#include <array>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::store {

struct PlyPoints {
  std::string wrong; ///< why it was refused, of the file: "has points without x, y and z"; empty: it was not
  std::vector<std::array<double, 3>> at; ///< as they stand in the file
  bool faces = false;                    ///< it has some
};

/// Refused: a head that is not one or promises more than the file holds, points without x, y and z as floats.
PlyPoints read_ply(std::string_view bytes);

} // namespace datrin::store
