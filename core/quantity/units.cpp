#include "quantity/units.h"

#include "quantity/unit.h"

#include <array>
#include <utility>

namespace datrin {

std::optional<WrittenUnit> unit_called(std::string_view word) {
  static constexpr std::array<std::pair<std::string_view, WrittenUnit>, 18> units{{
      {"mm", {"mm", 1.0}},
      {"cm", {"cm", 10.0}},
      {"m", {"m", 1000.0}},
      {"um", {"\u00B5m", 0.001}},
      {"in", {"in", mm_per_inch}},
      {"inch", {"in", mm_per_inch}},
      {"inches", {"in", mm_per_inch}},
      {"ft", {"ft", 12 * mm_per_inch}},
      {"foot", {"ft", 12 * mm_per_inch}},
      {"feet", {"ft", 12 * mm_per_inch}},
      {"yd", {"yd", 36 * mm_per_inch}},
      {"yard", {"yd", 36 * mm_per_inch}},
      {"yards", {"yd", 36 * mm_per_inch}},
      {"thou", {"thou", mm_per_thou}},
      {"mil", {"thou", mm_per_thou}},
      {"mils", {"thou", mm_per_thou}},
      {"tenth", {"tenths of a thou", mm_per_thou / 10}},
      {"tenths", {"tenths of a thou", mm_per_thou / 10}},
  }};
  for (const auto& [name, unit] : units)
    if (word == name) return unit;
  return std::nullopt;
}

} // namespace datrin
