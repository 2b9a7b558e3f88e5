#include "readings/read_out_line.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <optional>
#include <string>

namespace datrin::readings {

namespace {

bool is_digit(char c) {
  return c >= '0' && c <= '9';
}

bool is_letter(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
}

bool parts_words(char c) {
  return c == ' ' || c == '\t' || c == ';' || c == ':' || c == '=' || c == '\r' || c == '\n';
}

/// One blank between words, a point for a decimal comma.
std::string in_words(std::string_view line) {
  std::string text;
  const bool points = line.find('.') != std::string_view::npos;
  for (std::size_t k = 0; k < line.size(); ++k) {
    const char c = line[k];
    if (c == ',')
      text += !points && k > 0 && k + 1 < line.size() && is_digit(line[k - 1]) && is_digit(line[k + 1]) ? '.'
                                                                                                        : ' ';
    else
      text += parts_words(c) ? ' ' : c;
  }
  return text;
}

} // namespace

ReadOutLine read_out_line(std::string_view line, Unit bare) {
  ReadOutLine read;
  const auto text = in_words(line);
  const char* at = text.data();
  const char* const end = at + text.size();
  const auto blanks = [&] {
    while (at < end && *at == ' ') ++at;
  };
  std::vector<std::optional<Unit>> units;
  while (blanks(), at < end) {
    ReadOutPlace place;
    if (is_letter(*at)) {
      place.axis = static_cast<char>(*at >= 'a' ? *at - 'a' + 'A' : *at);
      ++at;
      blanks();
    }
    if (at < end && *at == '+') ++at;
    double value = 0;
    const auto [after, wrong] = std::from_chars(at, end, value);
    if (wrong != std::errc() || !std::isfinite(value)) return {};
    if (after < end && *after != ' ' && !is_letter(*after)) return {}; // 1.2.3
    at = after;
    blanks();
    std::optional<Unit> unit;
    if (end - at >= 2 && (end - at == 2 || !is_letter(at[2]))) {
      const std::string_view two(at, 2);
      if (two == "mm" || two == "in") {
        unit = two == "mm" ? Unit::mm : Unit::inch;
        at += 2;
      }
    }
    place.mm = value;
    units.push_back(unit);
    read.places.push_back(place);
  }
  // One unit at the end is of all of them.
  const auto last = units.empty() ? std::nullopt : units.back();
  const bool of_all =
      last && std::count_if(units.begin(), units.end(), [](const auto& u) { return u.has_value(); }) == 1;
  for (std::size_t k = 0; k < units.size(); ++k)
    read.places[k].mm = to_mm(read.places[k].mm, units[k].value_or(of_all ? *last : bare));
  read.understood = !read.places.empty();
  return read;
}

} // namespace datrin::readings
