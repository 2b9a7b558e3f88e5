#include "bench/places_in.h"

#include "quantity/length.h"
#include "quantity/text.h"

#include <fmt/format.h>

namespace datrin::bench {

std::vector<Vec2> places_in(const std::string& text, Unit unit, std::string& why) {
  std::vector<Vec2> places;
  LengthOptions lengths;
  lengths.bare_unit = unit;
  for (const auto word : words_of(text)) {
    const auto comma = word.find(',');
    if (comma == std::string_view::npos) {
      why = fmt::format("\"{}\" is no place: x and y with a comma between, as 12.5,-3", word);
      return {};
    }
    const auto x = parse_length(std::string(word.substr(0, comma)), lengths);
    const auto y = parse_length(std::string(word.substr(comma + 1)), lengths);
    if (!x.ok() || !y.ok()) {
      why = fmt::format("\"{}\": {}", word, x.ok() ? y.message : x.message);
      return {};
    }
    places.emplace_back(x.mm, y.mm);
  }
  return places;
}

} // namespace datrin::bench
