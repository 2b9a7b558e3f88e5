#pragma once
// What stands alone in an expression (quantity/expression.h): numbers with their units, drills, gauges, holes
// of threads, names. Reads from where it is and goes on behind it; the grammar of signs and brackets is built
// on it.

#include "quantity/expression.h"
#include "quantity/expression_value.h"
#include "quantity/plain_text.h"

#include <optional>
#include <string>
#include <string_view>

namespace datrin {

class ExpressionAtoms {
protected:
  using Value = ExpressionValue;

  ExpressionAtoms(std::string_view typed, const LengthOptions& options)
      : plain_(plain_text(typed)), options_(options) {}

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

  Expression fail(LengthStatus status, std::string message);
  bool refuse(LengthStatus status, std::string message) {
    result_ = fail(status, std::move(message));
    return false;
  }
  /// What an operation came to, or its refusal, told where it began.
  bool take(ExpressionOutcome outcome, Value& into, std::size_t began);

  std::string word_here() const;

  std::string take_letters();
  /// The word at `at`, in small letters, not taken.
  std::string letters_at(std::size_t at) const;

  std::string take_digits();

  static Value length(std::string text, double mm) {
    return {ValueKind::dimensioned, mm, 1, true, std::move(text), 4};
  }
  static Value bare(std::string text, double number, ValueKind kind = ValueKind::bare) {
    return {kind, number, 0, true, std::move(text), 4};
  }

  /// 1' 6 1/2": the inches after a foot's mark; none is well too.
  bool read_inches_behind(Value& feet);

  /// "5/16-18 tap", "M6 clear": up to the word, when what stands before it is a thread.
  bool read_thread_hole(Value& value);

  /// A size that has a name where the person is: the longest that begins here and ends with a word.
  bool read_name(Value& value);

  bool read_number_drill(Value& value);

  bool read_gauge(Value& value, const std::string& gauge, const std::string& number);

  /// `under_a_stroke`: then a unit may stand alone, 0.125 in/ft.
  bool read_word(Value& value, bool under_a_stroke);

  // ---- numbers and their units

  static std::optional<double> value_of(const std::string& digits);

  /// Digits with at most one decimal mark; the mark is normalised to a point.
  bool read_decimal(std::string& digits);

  /// Whether the stroke here divides by something that is not a whole number: a unit, a name, a bracket.
  bool stroke_divides() const;

  /// After a whole number: the "/7" of 13/7, or the " 3/8" or "-3/8" of a mixed number.
  /// Under a stroke already, "1 in/3/8" could be either: it is refused.
  bool read_fraction_part(const std::string& whole, double& value, std::string& text, bool& is_fraction,
                          bool under_a_stroke);

  bool read_number(Value& value, bool under_a_stroke);

  bool read_unit(Value& value);

  PlainText plain_;
  const LengthOptions& options_;
  std::size_t at_ = 0;
  Expression result_;
};

} // namespace datrin
