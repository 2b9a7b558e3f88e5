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

char small(char c) {
  return static_cast<char>(c >= 'A' && c <= 'Z' ? c - 'A' + 'a' : c);
}

bool is_letter(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
}

bool parts_words(char c) {
  return c == ' ' || c == '\t' || c == ';' || c == ':' || c == '=' || c == '\r' || c == '\n';
}

/// One blank between words.
std::string in_words(std::string_view line) {
  std::string text;
  for (const char c : line) text += parts_words(c) || c == ',' ? ' ' : c;
  return text;
}

/// A comma between digits: nobody can know which of three it is.
bool is_doubtful(std::string_view line) {
  for (std::size_t k = 1; k + 1 < line.size(); ++k)
    if (line[k] == ',' && is_digit(line[k - 1]) && (is_digit(line[k + 1]) || line[k + 1] == '.')) return true;
  return false;
}

} // namespace

ReadOutLine read_out_line(std::string_view line, Unit bare) {
  ReadOutLine read;
  if (is_doubtful(line)) return read;
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
    const bool minus = at < end && *at == '-';
    if (at < end && (minus || *at == '+')) {
      ++at;
      blanks();
    }
    if (at < end && !is_digit(*at) && *at != '.') return {}; // a second sign, "inf"
    double value = 0;
    const auto [after, wrong] = std::from_chars(at, end, value);
    if (wrong != std::errc()) return {};
    if (minus) value = -value;
    if (after < end && *after != ' ' && !is_letter(*after)) return {}; // 1.2.3
    at = after;
    blanks();
    std::optional<Unit> unit;
    if (end - at >= 2 && (end - at == 2 || !is_letter(at[2]))) {
      const std::string two{small(at[0]), small(at[1])};
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
  if (std::any_of(read.places.begin(), read.places.end(), [](const auto& p) { return !is_length(p.mm); }))
    return {};
  read.understood = !read.places.empty();
  return read;
}

} // namespace datrin::readings
