#pragma once
// What a read-out or an instrument that reads by itself sends: a line of text a reading, "X +12.345 Y
// -3.200", "X=0.4921in", or a bare number. mm.

#include "quantity/unit.h"

#include <string_view>
#include <vector>

namespace datrin::readings {

struct ReadOutPlace {
  char axis = 0; ///< 'X', 'Y', 'Z', as it is named there; 0: a bare number
  double mm = 0;
};

struct ReadOutLine {
  std::vector<ReadOutPlace> places;
  bool understood = false; ///< every word of it was; a line cut in half is not
};

/// Letters name what follows; between them and the figure stand blanks, ':' or '='. "mm" or "in" after a
/// figure is its unit, a single one at the end of the line that of all; else `bare`. A comma between digits
/// is a decimal mark where the line has no point.
ReadOutLine read_out_line(std::string_view line, Unit bare);

} // namespace datrin::readings
