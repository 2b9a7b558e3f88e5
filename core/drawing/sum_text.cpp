#include "drawing/sum_text.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <charconv>

namespace datrin::drawing {

namespace {

/// "2", "0.5", "1/2"; nothing else.
std::optional<double> count_of(std::string_view text) {
  text = trimmed(text);
  double whole = 0, under = 1;
  auto read = std::from_chars(text.data(), text.data() + text.size(), whole);
  if (read.ec != std::errc{}) return std::nullopt;
  std::string_view rest(read.ptr, static_cast<std::size_t>(text.data() + text.size() - read.ptr));
  if (!rest.empty()) {
    if (rest.front() != '/') return std::nullopt;
    rest.remove_prefix(1);
    read = std::from_chars(rest.data(), rest.data() + rest.size(), under);
    if (read.ec != std::errc{} || read.ptr != rest.data() + rest.size() || under == 0) return std::nullopt;
  }
  return whole / under;
}

} // namespace

SumText parse_sum(std::string_view given, const std::vector<std::string>& names,
                  const LengthOptions& options) {
  SumText out;
  std::string text(given);
  const auto swap = [&text](std::string_view from, std::string_view to) {
    for (auto at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size()))
      text.replace(at, from.size(), to);
  };
  swap("\u2212", "-");
  swap("\u00D7", " x ");
  swap("*", " x ");
  std::vector<std::string> keys;
  keys.reserve(names.size());
  for (const auto& name : names) keys.push_back(lower_case(trimmed(name)));

  // A sign parts two terms when a blank stands before it; so "1-3/8 in" and "T-slot" stay whole.
  std::size_t from = 0;
  double sign = 1;
  const auto take = [&](std::string_view term) -> bool {
    term = trimmed(term);
    if (term.empty()) {
      out.message = "a term is missing";
      return false;
    }
    SumTerm found;
    found.count = sign;
    found.text = std::string(term);
    const auto known = [&](std::string_view words) {
      const auto key = lower_case(trimmed(words));
      for (std::size_t k = 0; k < keys.size(); ++k)
        if (keys[k] == key && !key.empty()) return static_cast<int>(k);
      return -1;
    };
    auto words = term;
    found.dimension = known(words);
    if (found.dimension < 0)
      if (const auto times = lower_case(term).find(" x "); times != std::string::npos)
        if (const auto count = count_of(term.substr(0, times))) {
          found.count *= *count;
          words = trimmed(term.substr(times + 3));
          found.dimension = known(words);
        }
    if (found.dimension < 0) {
      const auto length = parse_length(words, options);
      if (!length.ok()) {
        out.message = fmt::format("\"{}\" is no dimension of this part and no length{}", words,
                                  did_you_mean(words, names));
        return false;
      }
      found.mm = length.mm;
    }
    out.terms.push_back(std::move(found));
    return true;
  };
  for (std::size_t k = 0; k <= text.size(); ++k) {
    const bool end = k == text.size();
    const bool parts = !end && (text[k] == '+' || text[k] == '-') && (k == 0 || text[k - 1] == ' ');
    if (!end && !parts) continue;
    if (k > 0 || end)
      if (!(parts && trimmed(text.substr(from, k - from)).empty() && out.terms.empty()))
        if (!take(std::string_view(text).substr(from, k - from))) {
          out.terms.clear();
          return out;
        }
    if (!end) sign = text[k] == '-' ? -1 : 1;
    from = k + 1;
  }
  out.ok = true;
  return out;
}

} // namespace datrin::drawing
