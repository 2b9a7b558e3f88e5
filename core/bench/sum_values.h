#pragma once
// What is typed for the fields of a sum, read by the one grammar of the fields (quantity/expression.h), and
// an answer's figures.

#include "bench/sums.h"
#include "quantity/angle.h"
#include "quantity/length.h"

#include <string>

namespace datrin::bench {

struct TypedValue {
  SumValue value;         ///< not given where the text is empty
  std::string wrong;      ///< what cannot be, and what is expected; empty: it can
  std::string understood; ///< where that is more than what was typed: "1 3/8 in + 2 mm"
  bool ok() const { return wrong.empty(); }
};

/// Reads `text` for `field`; a decimal comma where lengths have one. Numbers may be reckoned as well: "360 /
/// 7".
TypedValue read_value(const SumField& field, const std::string& text, const LengthOptions& lengths);

/// Keys of the lines of an answer, each once: a second "block" is "block_2".
std::vector<std::string> keys_of(const SumAnswer& answer);

} // namespace datrin::bench
