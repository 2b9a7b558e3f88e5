#include "bench/sum_values.h"

#include "quantity/expression.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <map>

namespace datrin::bench {

namespace {

bool is_digit(char c) {
  return c >= '0' && c <= '9';
}

/// Commas between figures as points: "0:0,05 90:0" is read by its parts, which know of no comma.
std::string with_points(std::string text) {
  for (std::size_t k = 1; k + 1 < text.size(); ++k)
    if (text[k] == ',' && is_digit(text[k - 1]) && is_digit(text[k + 1])) text[k] = '.';
  return text;
}

} // namespace

TypedValue read_value(const SumField& field, const std::string& typed, const LengthOptions& lengths) {
  TypedValue out;
  const std::string text(trimmed(typed));
  out.value.given = !text.empty();
  if (!out.value.given) return out;
  switch (field.quantity) {
  case Quantity::length: {
    auto read = parse_length(text, lengths);
    out.value.value = read.mm;
    out.wrong = std::move(read.message);
    out.understood = std::move(read.understood);
    break;
  }
  case Quantity::angle: {
    auto read = parse_angle(text, {lengths.decimal_comma, field.taper});
    out.value.value = read.radian;
    if (!read.ok) out.wrong = std::move(read.message);
    out.understood = read.understood.empty() && read.ok ? angle_text(read.radian) : read.understood;
    break;
  }
  case Quantity::count:
  case Quantity::number: {
    auto number = number_from(text, lengths.decimal_comma);
    if (!number) number = reckon_number(text, lengths);
    out.value.value = number.value_or(0);
    if (!number) out.wrong = fmt::format("\"{}\" is not a number", text);
    break;
  }
  case Quantity::lengths:
    out.value.text = lengths.decimal_comma ? with_points(text) : text;
    break;
  case Quantity::choice:
    out.value.text = lower_case(text);
    break;
  }
  return out;
}

std::vector<std::string> keys_of(const SumAnswer& answer) {
  std::vector<std::string> keys;
  std::map<std::string, int> seen;
  for (const auto& line : answer.lines) {
    auto key = line.key.empty() ? key_of(line.label) : line.key;
    if (const int n = ++seen[key]; n > 1) key += fmt::format("_{}", n);
    keys.push_back(std::move(key));
  }
  return keys;
}

} // namespace datrin::bench
