#include "bench/named_masses.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

namespace datrin::bench {

namespace {

bool of_a_word(char c) {
  return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || static_cast<unsigned char>(c) >= 0x80;
}

} // namespace

std::string with_masses(const std::string& text, const std::vector<std::string>& names,
                        const std::function<std::optional<double>(std::size_t)>& grams) {
  std::vector<std::size_t> longest(names.size());
  std::iota(longest.begin(), longest.end(), std::size_t{0});
  std::stable_sort(longest.begin(), longest.end(),
                   [&](std::size_t a, std::size_t b) { return names[a].size() > names[b].size(); });
  std::string out = text;
  for (const auto k : longest) {
    const auto name = lower_case(names[k]);
    const bool a_name =
        std::any_of(name.begin(), name.end(), [](char c) { return of_a_word(c) && (c < '0' || c > '9'); });
    if (!a_name) continue; // a part called "2" is not meant by a 2
    for (std::size_t at = 0;;) {
      const auto low = lower_case(out);
      at = low.find(name, at);
      if (at == std::string::npos) break;
      const auto end = at + name.size();
      const bool whole = (at == 0 || !of_a_word(low[at - 1])) && (end == low.size() || !of_a_word(low[end]));
      const auto weighs = whole ? grams(k) : std::nullopt;
      if (!weighs) {
        at = end;
        continue;
      }
      const auto figure = fmt::format("{:.3f}", *weighs);
      out.replace(at, name.size(), figure);
      at += figure.size();
    }
  }
  return out;
}

} // namespace datrin::bench
