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
/// figure is its unit, in small letters or capitals, a single one at the end of the line that of all; else
/// `bare`. A sign may stand apart from its figure. A comma between digits may part thousands, decimals or two
/// figures: such a line is not understood; nor is one beyond the bound of every length.
ReadOutLine read_out_line(std::string_view line, Unit bare);

} // namespace datrin::readings
