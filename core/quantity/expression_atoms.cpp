#include "quantity/expression_atoms.h"

#include "quantity/drills.h"
#include "quantity/text.h"
#include "quantity/units.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <utility>

namespace datrin {

Expression ExpressionAtoms::fail(LengthStatus status, std::string message) {
  result_ = {};
  result_.status = status;
  result_.message = std::move(message);
  result_.column = plain_.columns[std::min(at_, plain_.columns.size() - 1)];
  return std::move(result_);
}

bool ExpressionAtoms::take(ExpressionOutcome outcome, Value& into, std::size_t began) {
  if (outcome.ok()) {
    into = std::move(outcome.value);
    return true;
  }
  at_ = outcome.unit_missing ? at_ : began;
  return refuse(outcome.unit_missing ? LengthStatus::unit_missing : LengthStatus::not_a_length,
                std::move(outcome.wrong));
}

std::string ExpressionAtoms::word_here() const {
  std::size_t end = at_;
  while (end < plain_.text.size() && plain_.text[end] != ' ' && end - at_ < 24) ++end;
  return plain_.text.substr(at_, end - at_);
}

std::string ExpressionAtoms::take_letters() {
  std::string word;
  while (letter(here()) && word.size() < 24) word += plain_.text[at_++];
  return word;
}

std::string ExpressionAtoms::letters_at(std::size_t at) const {
  std::string word;
  while (at < plain_.text.size() && letter(plain_.text[at]) && word.size() < 24) word += plain_.text[at++];
  return lower_case(word);
}

std::string ExpressionAtoms::take_digits() {
  std::string digits;
  while (digit(here())) digits += plain_.text[at_++];
  return digits;
}

bool ExpressionAtoms::read_thread_hole(Value& value) {
  if (options_.thread_hole == nullptr) return false;
  static constexpr std::pair<std::string_view, ThreadHole> words[] = {{" tap", ThreadHole::tapping},
                                                                      {" clear", ThreadHole::clearance}};
  const auto small = lower_case(plain_.text);
  for (const auto& [word, hole] : words) {
    const auto found = small.find(word, at_);
    const auto after = found == std::string::npos ? found : found + word.size();
    if (found == std::string::npos || (after < small.size() && letter(small[after]))) continue;
    const auto name = std::string(trimmed(std::string_view(plain_.text).substr(at_, found - at_)));
    const auto diameter = options_.thread_hole(name, hole);
    if (!diameter) continue;
    value = length(name + std::string(word), *diameter);
    at_ = after;
    return true;
  }
  return false;
}

bool ExpressionAtoms::read_name(Value& value) {
  if (!options_.named || !letter(here())) return false;
  const auto found = options_.named(std::string_view(plain_.text).substr(at_));
  if (!found || found->bytes == 0 || found->bytes > plain_.text.size() - at_) return false;
  value = length(plain_.text.substr(at_, found->bytes), found->mm);
  at_ += found->bytes;
  return true;
}

bool ExpressionAtoms::read_number_drill(Value& value) {
  const auto start = at_;
  const auto digits = take_digits();
  const auto diameter = drill_diameter(digits);
  if (digits.empty() || !diameter) {
    at_ = start;
    return refuse(LengthStatus::bad_drill,
                  fmt::format("there is no number drill \"{}\"; they run from #1 to #97", word_here()));
  }
  value = length("#" + digits, *diameter);
  return true;
}

bool ExpressionAtoms::read_gauge(Value& value, const std::string& gauge, const std::string& number) {
  const auto diameter = wire_gauge(gauge, number);
  if (!diameter)
    return refuse(LengthStatus::bad_drill,
                  gauge == "swg"
                      ? fmt::format("there is no gauge {} SWG; they run from 0000000 to 50", number)
                      : fmt::format("there is no gauge {} AWG; they run from 0000 to 40", number));
  value = length(fmt::format("{} {}", number, gauge == "swg" ? "SWG" : "AWG"), *diameter);
  return true;
}

bool ExpressionAtoms::read_word(Value& value, bool under_a_stroke) {
  const auto start = at_;
  auto word = lower_case(take_letters());
  if (word == "pi") {
    value = bare("\u03C0", pi, ValueKind::number);
    return true;
  }
  if (const auto unit = unit_called(word); unit && under_a_stroke) {
    value = length(std::string(unit->name), unit->mm);
    return true;
  }
  if (word == "no" || word == "number") {
    if (here() == '.') ++at_;
    skip_blanks();
    return read_number_drill(value);
  }
  if (word == "swg" || word == "awg") {
    skip_blanks();
    return read_gauge(value, word, take_digits());
  }
  if (word == "letter") {
    skip_blanks();
    word = lower_case(take_letters());
  }
  const auto diameter = word.size() == 1 ? drill_diameter(word) : std::nullopt;
  if (!diameter) {
    at_ = start;
    return refuse(
        LengthStatus::bad_number,
        fmt::format("\"{}\" is not a length; write a number, a fraction, or a drill such as #30 or F",
                    word_here()));
  }
  value = length(fmt::format("letter {}", static_cast<char>(word[0] - 'a' + 'A')), *diameter);
  return true;
}

std::optional<double> ExpressionAtoms::value_of(const std::string& digits) {
  double value = 0;
  const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
  if (error != std::errc{} || end != digits.data() + digits.size() || !std::isfinite(value))
    return std::nullopt;
  return value;
}

bool ExpressionAtoms::read_decimal(std::string& digits) {
  const auto start = at_;
  digits = take_digits();
  if (here() == ',' && !options_.decimal_comma)
    return refuse(LengthStatus::bad_number, "a comma is not read as a decimal mark here; write a point");
  if (here() == '.' || here() == ',') {
    ++at_;
    digits += '.' + take_digits();
  }
  if (here() == '.' || here() == ',')
    return refuse(LengthStatus::bad_number, "a number has one decimal mark only");
  if (digits.empty() || digits == ".") {
    at_ = start;
    return refuse(LengthStatus::bad_number, fmt::format("\"{}\" is not a number", word_here()));
  }
  return true;
}

bool ExpressionAtoms::stroke_divides() const {
  const char next = ahead(1);
  if (next == '(' || next == '.' || next == ' ' || next == '\0' || next == '-') return true;
  std::size_t digits = 1;
  while (digit(ahead(digits))) ++digits;
  if (digits > 1 && (ahead(digits) == '.' || (ahead(digits) == ',' && options_.decimal_comma)))
    return true; // 100/25.4
  const auto word = letters_at(at_ + 1);
  return unit_called(word) || is_function(word) || word == "pi" ||
         (options_.named && letter(next) && options_.named(std::string_view(plain_.text).substr(at_ + 1)));
}

bool ExpressionAtoms::read_fraction_part(const std::string& whole, double& value, std::string& text,
                                         bool& is_fraction, bool under_a_stroke) {
  std::size_t look = 0;
  const bool joined = here() == '-' && digit(ahead(1));
  if (joined)
    look = 1;
  else
    while (ahead(look) == ' ') ++look;
  const auto mixed_at = look;
  std::size_t digits = 0;
  while (digit(ahead(look))) {
    ++look;
    ++digits;
  }
  const bool mixed = digits > 0 && (mixed_at > 0) && ahead(look) == '/';
  if (here() != '/' && !mixed) return true;
  if (!mixed && stroke_divides()) return true;
  if (!mixed && under_a_stroke)
    return refuse(LengthStatus::bad_number,
                  "two strokes can be taken two ways; write brackets, as in 1 in/(3/8), or \u00F7");

  std::string numerator = whole;
  double base = 0;
  if (mixed) {
    base = value;
    at_ += mixed_at;
    numerator = take_digits();
  }
  ++at_; // the stroke
  const auto start = at_;
  const auto denominator = take_digits();
  const auto top = value_of(numerator);
  const auto bottom = value_of(denominator);
  if (!top || !bottom) {
    at_ = start;
    return refuse(LengthStatus::bad_number, "a fraction needs a whole number below the stroke, as in 7/32");
  }
  if (*bottom == 0) {
    at_ = start;
    return refuse(LengthStatus::bad_number, "a fraction cannot have 0 below the stroke");
  }
  value = base + *top / *bottom;
  text = mixed ? fmt::format("{} {}/{}", whole, numerator, denominator)
               : fmt::format("{}/{}", numerator, denominator);
  is_fraction = true;
  return true;
}

bool ExpressionAtoms::read_number(Value& value, bool under_a_stroke) {
  std::string digits;
  if (!read_decimal(digits)) return false;
  const auto parsed = value_of(digits.front() == '.' ? "0" + digits : digits);
  if (!parsed) return refuse(LengthStatus::bad_number, fmt::format("\"{}\" is not a number", digits));
  double number = *parsed;
  std::string text = digits.front() == '.' ? "0" + digits : digits;
  bool fraction = false;
  if (digits.find('.') == std::string::npos &&
      !read_fraction_part(digits, number, text, fraction, under_a_stroke))
    return false;
  value = bare(std::move(text), number, fraction ? ValueKind::fraction : ValueKind::bare);
  if (fraction) value.binds = 3;
  const auto blanks = at_;
  skip_blanks();
  const auto word = letters_at(at_);
  if (here() == '"' || here() == '\'' || (!word.empty() && word != "x" && word != "per"))
    return read_unit(value);
  if (!at_end()) at_ = blanks;
  return true;
}

bool ExpressionAtoms::read_unit(Value& value) {
  const auto start = at_;
  std::string word;
  const bool foot_mark = here() == '\'';
  if (here() == '"' || foot_mark) {
    ++at_;
    word = foot_mark ? "ft" : "in";
  } else {
    word = lower_case(take_letters());
  }
  if (word == "swg" || word == "awg") return read_gauge(value, word, value.text);
  if (word == "deg" || word == "degrees") {
    value = bare(value.text + "\u00B0", value.value, ValueKind::number);
    return true;
  }
  const auto unit = unit_called(word);
  if (!unit) {
    at_ = start;
    return refuse(
        LengthStatus::bad_unit,
        fmt::format("\"{}\" is not a unit; write mm, cm, m, \u00B5m, in, \", ft, yd, thou or tenths",
                    word_here()));
  }
  // As it is written out: "3 tenths of a thou".
  constexpr std::string_view rest_of_it = " of a thou";
  if (unit->name.ends_with(rest_of_it) && std::string_view(plain_.text).substr(at_).starts_with(rest_of_it))
    at_ += rest_of_it.size();
  double power = 1;
  std::string text = fmt::format("{} {}", value.text, unit->name);
  if (here() == '^' && digit(ahead(1)) && !digit(ahead(2))) { // 2 in², a power of the unit
    power = ahead(1) - '0';
    at_ += 2;
    text += fmt::format("^{:.0f}", power);
  }
  const double number = value.value;
  value = length(std::move(text), number * std::pow(unit->mm, power));
  value.power = power;
  value.binds = 3;
  if (power == 0) value.kind = ValueKind::number;
  return !foot_mark || read_inches_behind(value);
}

bool ExpressionAtoms::read_inches_behind(Value& feet) {
  const auto start = at_;
  skip_blanks();
  if (here() == '-' && digit(ahead(1))) ++at_;
  if (!digit(here()) && here() != '.') {
    at_ = start;
    return true;
  }
  Value inches;
  if (!read_number(inches, false)) return false;
  if (!inches.text.ends_with(" in")) {
    at_ = start;
    return refuse(LengthStatus::bad_unit, "after feet come inches, with their mark: 1' 6\"");
  }
  feet = length(feet.text + " " + inches.text, feet.value + inches.value);
  return true;
}

} // namespace datrin
