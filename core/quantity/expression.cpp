#include "quantity/expression.h"

#include "quantity/expression_atoms.h"
#include "quantity/text.h"
#include "quantity/units.h"

#include <fmt/format.h>

#include <utility>
#include <vector>

namespace datrin {

namespace {

/// The grammar; what stands alone is read by the atoms.
class Parser : ExpressionAtoms {
public:
  Parser(std::string_view typed, const LengthOptions& options, bool wants_number)
      : ExpressionAtoms(typed, options), wants_number_(wants_number) {}

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

  // ---- signs and brackets

  std::optional<bool> take_plus_or_minus() {
    if (here() != '+' && here() != '-') return std::nullopt;
    return plain_.text[at_++] == '-';
  }

  enum class Times { none, multiply, divide, stroke };

  /// The sign between two factors, with the blanks after it; "x" and "per" are signs where a factor has
  /// ended.
  Times take_times() {
    Times sign = here() == '*'   ? Times::multiply
                 : here() == ':' ? Times::divide
                 : here() == '/' ? Times::stroke
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
        term.binds = 1;
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
      before_ = sign;
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
    if (unit_called(letters_at(at_)) || here() == '"' || here() == '\'') return read_unit(value);
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
    const auto before = std::exchange(before_, Times::none);
    if (here() == '(') return read_bracket(value) && read_unit_behind(value);
    if (read_thread_hole(value) || read_name(value)) return true;
    if (here() == '#') {
      ++at_;
      skip_blanks();
      return read_number_drill(value);
    }
    if (const auto word = letters_at(at_); is_function(word)) {
      at_ += word.size();
      return read_function(value, word) && read_unit_behind(value);
    }
    if (letter(here())) return read_word(value, before == Times::divide || before == Times::stroke);
    return read_number(value, before == Times::stroke);
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

  bool wants_number_ = false;
  int depth_ = 0;
  static constexpr int deepest = 60; ///< brackets in brackets
  Times before_ = Times::none;       ///< the sign that what is read next stands behind
  std::vector<Addend> addends_;
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
