#pragma once
// What was typed, in plain spelling, and where each byte of that stood: vulgar fractions, other minus signs,
// quotes, micro signs, × · ÷ √ π ² ³ °. Each is one character for the person.

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace datrin {

struct PlainText {
  std::string text;
  std::vector<std::size_t> columns; ///< per byte of `text`, and one past it: the column typed, from 1
};

/// ":" stands for ÷, which never makes a fraction of two numbers.
PlainText plain_text(std::string_view typed);

} // namespace datrin
