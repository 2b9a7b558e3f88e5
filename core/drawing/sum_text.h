#pragma once
// What a dimension is said to add up from: `barrel + 2 x flange`, `1/2 x thickness`, `5 in + 2 x 1/8 in`. A
// term is a count (optional, with x, × or *), then the name of another dimension or a length.

#include "quantity/length.h"

#include <string>
#include <string_view>
#include <vector>

namespace datrin::drawing {

struct SumTerm {
  double count = 1;   ///< with its sign
  int dimension = -1; ///< index into the names given; −1: a length
  double mm = 0;      ///< of that length
  std::string text;
};

struct SumText {
  bool ok = false;
  std::string message;
  std::vector<SumTerm> terms;
};

/// Reads `text`; `names` are the dimensions' names, exactly as written (blanks at the ends and case do not
/// matter).
SumText parse_sum(std::string_view text, const std::vector<std::string>& names,
                  const LengthOptions& options = {});

} // namespace datrin::drawing
