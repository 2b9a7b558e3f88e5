#pragma once
// Units of length as they are written, and how much each is.

#include <optional>
#include <string_view>

namespace datrin {

struct WrittenUnit {
  std::string_view name; ///< as shown: "in", "tenths of a thou"
  double mm = 0;
};

/// "mm", "inches", "thou" in small letters; nothing for what is no unit.
std::optional<WrittenUnit> unit_called(std::string_view word);

} // namespace datrin
