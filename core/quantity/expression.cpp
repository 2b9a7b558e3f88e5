#include "quantity/expression.h"

#include "quantity/drills.h"
#include "quantity/expression_value.h"
#include "quantity/plain_text.h"
#include "quantity/text.h"
#include "quantity/units.h"

#include <fmt/format.h>

#include <charconv>
#include <cmath>
#include <utility>

namespace datrin {

namespace {

class Parser {
public:
  Parser(std::string_view typed, const LengthOptions& options, bool wants_number)
      : plain_(plain_text(typed)), options_(options), wants_number_(wants_number) {}

  Expression run() {
    skip_blanks();
    if (at_end())
      return fail(LengthStatus::empty, "nothing was typed; write a length such as 12.5 mm or 1 3/8 in");
    Value whole;
    if (!read_sum(whole, &addends_)) return std::move(result_);
    if (!at_end())
      return fail(LengthStatus::unfinished,
                  here() == ')'
                      ? "there is a bracket too many here"
                      : fmt::format("\"{}\" was not expected here; write + or \u2212 between two lengths",
                                    word_here()));
    return finish(whole);
  }

private:
  using Value = ExpressionValue;
  struct Addend {
    Value value;
    bool minus = false;
  };

  /// The whole: addends that are lengths once it is one are told one by one.
  Expression finish(const Value& whole) {
    result_.status = LengthStatus::ok;
    result_.power = whole.power;
    result_.value = whole.value;
    result_.understood = whole.text;
    if (wants_number_ && whole.power == 0) return std::move(result_);
    const bool length =
        whole.power == 1 || whole.kind == ValueKind::fraction || whole.kind == ValueKind::bare;
    if (whole.kind == ValueKind::bare && !options_.bare_unit)
      return fail(LengthStatus::unit_missing,
                  fmt::format("{} has no unit; write mm or in after it", whole.text));
    if (!length) return std::move(result_);
    result_.power = 1;
    result_.value = 0;
    result_.understood.clear();
    for (auto& [value, minus] : addends_) {
      if (value.kind == ValueKind::fraction && options_.bare_unit == Unit::mm)
        result_.fraction_as_inches = true;
      if (value.kind == ValueKind::number) { // a number beside bare ones: "(8°) mm"
        value.kind = whole.kind;
        value.binds = 1;
      }
      const auto term = as_length(value, options_.bare_unit);
      if (!term.ok()) return fail(LengthStatus::not_a_length, term.wrong);
      const auto& v = term.value;
      if (!is_length(v.value)) return fail(LengthStatus::too_large, "the length is over 10 km");
      if (result_.terms.empty())
        result_.understood = (minus ? "\u2212" : "") + v.text;
      else
        result_.understood +=
            (minus ? " \u2212 " : " + ") + (minus && v.binds < 2 ? "(" + v.text + ")" : v.text);
      result_.terms.push_back({v.text, minus ? -v.value : v.value});
      result_.value += result_.terms.back().mm;
    }
    if (!is_length(result_.value)) return fail(LengthStatus::too_large, "the length is over 10 km");
    return std::move(result_);
  }

  // ---- where we are

  bool at_end() const { return at_ >= plain_.text.size(); }
  char here() const { return at_end() ? '\0' : plain_.text[at_]; }
  char ahead(std::size_t n) const { return at_ + n < plain_.text.size() ? plain_.text[at_ + n] : '\0'; }
  void skip_blanks() {
    while (here() == ' ') ++at_;
  }
  static bool digit(char c) { return c >= '0' && c <= '9'; }
  static bool letter(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (static_cast<unsigned char>(c) & 0x80) != 0;
  }

  Expression fail(LengthStatus status, std::string message) {
    result_ = {};
    result_.status = status;
    result_.message = std::move(message);
    result_.column = plain_.columns[std::min(at_, plain_.columns.size() - 1)];
    return std::move(result_);
  }
  bool refuse(LengthStatus status, std::string message) {
    result_ = fail(status, std::move(message));
    return false;
  }
  /// What an operation came to, or its refusal, told where it began.
  bool take(ExpressionOutcome outcome, Value& into, std::size_t began) {
    if (outcome.ok()) {
      into = std::move(outcome.value);
      return true;
    }
    at_ = outcome.unit_missing ? at_ : began;
    return refuse(outcome.unit_missing ? LengthStatus::unit_missing : LengthStatus::not_a_length,
                  std::move(outcome.wrong));
  }

  std::string word_here() const {
    std::size_t end = at_;
    while (end < plain_.text.size() && plain_.text[end] != ' ' && end - at_ < 24) ++end;
    return plain_.text.substr(at_, end - at_);
  }

  std::string take_letters() {
    std::string word;
    while (letter(here()) && word.size() < 24) word += plain_.text[at_++];
    return word;
  }
  /// The word at `at`, in small letters, not taken.
  std::string letters_at(std::size_t at) const {
    std::string word;
    while (at < plain_.text.size() && letter(plain_.text[at]) && word.size() < 24) word += plain_.text[at++];
    return lower_case(word);
  }

  std::string take_digits() {
    std::string digits;
    while (digit(here())) digits += plain_.text[at_++];
    return digits;
  }

  // ---- signs and brackets

  std::optional<bool> take_plus_or_minus() {
    if (here() != '+' && here() != '-') return std::nullopt;
    return plain_.text[at_++] == '-';
  }

  enum class Times { none, multiply, divide };

  /// The sign between two factors, with the blanks after it; "x" and "per" are signs where a factor has
  /// ended.
  Times take_times() {
    Times sign = here() == '*'                    ? Times::multiply
                 : here() == '/' || here() == ':' ? Times::divide
                                                  : Times::none;
    std::size_t length = sign == Times::none ? 0 : 1;
    if (const auto word = letters_at(at_); word == "x" || word == "per") {
      sign = word == "x" ? Times::multiply : Times::divide;
      length = word.size();
    }
    at_ += length;
    if (sign != Times::none) skip_blanks();
    return sign;
  }

  bool missing(const char* after) {
    return refuse(LengthStatus::unfinished,
                  fmt::format("the sum ends with {}; a length is missing after it", after));
  }

  bool read_sum(Value& sum, std::vector<Addend>* addends = nullptr) {
    if (++depth_ > deepest) return refuse(LengthStatus::too_large, "there are too many brackets");
    bool minus = take_plus_or_minus().value_or(false);
    for (bool first = true;; first = false) {
      skip_blanks();
      if (at_end()) return missing("a sign");
      const auto began = at_;
      Value term;
      if (!read_product(term)) return false;
      if (addends != nullptr) addends->push_back({term, minus});
      if (first && minus) {
        term.value = -term.value;
        term.text = "\u2212" + (term.binds < 2 ? "(" + term.text + ")" : term.text);
      }
      if (first)
        sum = std::move(term);
      else if (!take(add(sum, term, minus, options_.bare_unit), sum, began))
        return false;
      skip_blanks();
      const auto next = take_plus_or_minus();
      if (!next) break;
      minus = *next;
    }
    --depth_;
    return true;
  }

  bool read_product(Value& product) {
    if (!read_power(product)) return false;
    for (;;) {
      skip_blanks();
      const auto began = at_;
      const auto sign = take_times();
      if (sign == Times::none) return true;
      if (at_end()) return missing(sign == Times::multiply ? "\u00D7" : "\u00F7");
      Value factor;
      divided_ = sign == Times::divide;
      if (!read_power(factor)) return false;
      if (!take(sign == Times::multiply ? multiply(product, factor)
                                        : divide(product, factor, options_.bare_unit),
                product, began))
        return false;
    }
  }

  bool read_power(Value& power) {
    if (here() == '-' || here() == '+') { // 3 × −2
      const bool minus = *take_plus_or_minus();
      skip_blanks();
      if (++depth_ > deepest) return refuse(LengthStatus::too_large, "there are too many signs");
      if (!read_power(power)) return false;
      --depth_;
      if (minus) {
        power.value = -power.value;
        power.text = "\u2212" + power.text;
        power.binds = 1;
      }
      return true;
    }
    const auto began = at_;
    if (!read_atom(power)) return false;
    const auto blanks = at_;
    skip_blanks();
    if (here() != '^') {
      at_ = blanks;
      return true;
    }
    ++at_;
    skip_blanks();
    Value exponent;
    return read_exponent(exponent) && take(raise(power, exponent), power, began) && read_unit_behind(power);
  }

  bool read_bracket(Value& value) {
    ++at_;
    skip_blanks();
    if (!read_sum(value)) return false;
    skip_blanks();
    if (here() != ')') return refuse(LengthStatus::unfinished, "a bracket is not closed; write )");
    ++at_;
    if (value.binds < 3) {
      value.text = "(" + value.text + ")";
      value.binds = 4;
    }
    return true;
  }

  /// A unit behind what has none: "(2 + 3) mm", "sqrt(2) in".
  bool read_unit_behind(Value& value) {
    if (value.kind == ValueKind::dimensioned) return true;
    const auto blanks = at_;
    skip_blanks();
    if (unit_called(letters_at(at_)) || here() == '"') return read_unit(value);
    at_ = blanks;
    return true;
  }

  /// 2, −1, 0.5 or a bracket: what stands behind it is not part of it.
  bool read_exponent(Value& exponent) {
    const bool minus = take_plus_or_minus().value_or(false);
    skip_blanks();
    if (at_end()) return missing("^");
    if (here() == '(') {
      if (!read_bracket(exponent)) return false;
    } else {
      std::string digits;
      if (!read_decimal(digits)) return false;
      const auto number = value_of(digits.front() == '.' ? "0" + digits : digits);
      if (!number) return refuse(LengthStatus::bad_number, fmt::format("\"{}\" is not a number", digits));
      exponent = bare(digits, *number);
    }
    if (here() == '^') {
      const auto began = at_++;
      Value higher;
      if (++depth_ > deepest) return refuse(LengthStatus::too_large, "there are too many powers");
      if (!read_exponent(higher) || !take(raise(exponent, higher), exponent, began)) return false;
      --depth_;
    }
    if (!minus) return true;
    exponent.value = -exponent.value;
    exponent.text = "\u2212" + exponent.text; // as a whole: 2^−1
    exponent.binds = std::max(exponent.binds, 3) == 3 ? 1 : 4;
    return true;
  }

  // ---- what stands alone

  bool read_atom(Value& value) {
    const bool after_division = std::exchange(divided_, false);
    if (here() == '(') return read_bracket(value) && read_unit_behind(value);
    if (read_thread_hole(value) || read_name(value)) return true;
    if (here() == '#') {
      ++at_;
      skip_blanks();
      return read_number_drill(value);
    }
    if (letter(here())) return read_word(value, after_division);
    return read_number(value);
  }

  static Value length(std::string text, double mm) {
    return {ValueKind::dimensioned, mm, 1, true, std::move(text), 4};
  }
  static Value bare(std::string text, double number, ValueKind kind = ValueKind::bare) {
    return {kind, number, 0, true, std::move(text), 4};
  }

  /// "5/16-18 tap", "M6 clear": up to the word, when what stands before it is a thread.
  bool read_thread_hole(Value& value) {
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

  /// A size that has a name where the person is: the longest that begins here and ends with a word.
  bool read_name(Value& value) {
    if (!options_.named || !letter(here())) return false;
    const auto found = options_.named(std::string_view(plain_.text).substr(at_));
    if (!found || found->bytes == 0 || found->bytes > plain_.text.size() - at_) return false;
    value = length(plain_.text.substr(at_, found->bytes), found->mm);
    at_ += found->bytes;
    return true;
  }

  bool read_number_drill(Value& value) {
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

  bool read_gauge(Value& value, const std::string& gauge, const std::string& number) {
    const auto diameter = wire_gauge(gauge, number);
    if (!diameter)
      return refuse(LengthStatus::bad_drill,
                    gauge == "swg" ? fmt::format("there is no gauge {} SWG; they run from 0 to 50", number)
                                   : fmt::format("there is no gauge {} AWG; they run from 0 to 40", number));
    value = length(fmt::format("{} {}", number, gauge == "swg" ? "SWG" : "AWG"), *diameter);
    return true;
  }

  bool read_word(Value& value, bool after_division) {
    const auto start = at_;
    auto word = lower_case(take_letters());
    if (is_function(word)) return read_function(value, word) && read_unit_behind(value);
    if (word == "pi") {
      value = bare("\u03C0", pi, ValueKind::number);
      return true;
    }
    if (const auto unit = unit_called(word); unit && after_division) { // 0.125 in/ft
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

  bool read_function(Value& value, const std::string& name) {
    const auto began = at_;
    skip_blanks();
    if (at_end()) return missing(name.c_str());
    Value of;
    if (++depth_ > deepest) return refuse(LengthStatus::too_large, "there are too many brackets");
    if (!(here() == '(' ? read_bracket(of) : read_atom(of))) return false;
    --depth_;
    if (of.binds == 4 && of.text.starts_with("(")) of.text = of.text.substr(1, of.text.size() - 2);
    return take(*apply_function(name, of), value, began);
  }

  // ---- numbers and their units

  static std::optional<double> value_of(const std::string& digits) {
    double value = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (error != std::errc{} || end != digits.data() + digits.size() || !std::isfinite(value))
      return std::nullopt;
    return value;
  }

  /// Digits with at most one decimal mark; the mark is normalised to a point.
  bool read_decimal(std::string& digits) {
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

  /// Whether the stroke here divides by something that is not a whole number: a unit, a name, a bracket.
  bool stroke_divides() const {
    const char next = ahead(1);
    if (next == '(' || next == '.' || next == ' ' || next == '\0' || next == '-') return true;
    const auto word = letters_at(at_ + 1);
    return unit_called(word) || is_function(word) || word == "pi" ||
           (options_.named && letter(next) && options_.named(std::string_view(plain_.text).substr(at_ + 1)));
  }

  /// After a whole number: the "/7" of 13/7, or the " 3/8" or "-3/8" of a mixed number.
  bool read_fraction_part(const std::string& whole, double& value, std::string& text, bool& is_fraction) {
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

  bool read_number(Value& value) {
    std::string digits;
    if (!read_decimal(digits)) return false;
    const auto parsed = value_of(digits.front() == '.' ? "0" + digits : digits);
    if (!parsed) return refuse(LengthStatus::bad_number, fmt::format("\"{}\" is not a number", digits));
    double number = *parsed;
    std::string text = digits.front() == '.' ? "0" + digits : digits;
    bool fraction = false;
    if (digits.find('.') == std::string::npos && !read_fraction_part(digits, number, text, fraction))
      return false;
    value = bare(std::move(text), number, fraction ? ValueKind::fraction : ValueKind::bare);
    if (fraction) value.binds = 3;
    const auto blanks = at_;
    skip_blanks();
    const auto word = letters_at(at_);
    if (here() == '"' || (!word.empty() && word != "x" && word != "per")) return read_unit(value);
    if (!at_end()) at_ = blanks;
    return true;
  }

  bool read_unit(Value& value) {
    const auto start = at_;
    std::string word;
    if (here() == '"') {
      ++at_;
      word = "in";
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
      return refuse(LengthStatus::bad_unit,
                    fmt::format("\"{}\" is not a unit; write mm, cm, m, \u00B5m, in, \", ft, thou or tenths",
                                word_here()));
    }
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
    return true;
  }

  PlainText plain_;
  const LengthOptions& options_;
  bool wants_number_ = false;
  std::size_t at_ = 0;
  int depth_ = 0;
  static constexpr int deepest = 60; ///< brackets in brackets
  bool divided_ = false;             ///< what comes next stands under a stroke
  std::vector<Addend> addends_;
  Expression result_;
};

} // namespace

namespace {

Expression read(std::string_view text, const LengthOptions& options, bool wants_number) {
  constexpr std::size_t longest = 400; // bytes
  Expression refused;
  refused.column = 1;
  if (!is_utf8(text)) {
    refused.status = LengthStatus::not_utf8;
    refused.message = "the text is not UTF-8";
    return refused;
  }
  if (text.size() > longest) {
    refused.status = LengthStatus::too_large;
    refused.message = "the text is over 400 characters long; a length is shorter";
    refused.column = longest;
    return refused;
  }
  return Parser(text, options, wants_number).run();
}

} // namespace

Expression reckon(std::string_view text, const LengthOptions& options) {
  return read(text, options, false);
}

std::optional<double> reckon_number(std::string_view text, const LengthOptions& options) {
  const auto number = read(text, options, true);
  return number.ok() && number.power == 0 ? std::optional(number.value) : std::nullopt;
}

} // namespace datrin
