#pragma once
// The small sums of the bench, each as a description: what it is for, what goes in, and a function from the
// values to its answer with the way it was reached. One list for the window, the tests and any other program.

#include "quantity/angle.h"
#include "quantity/unit.h"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::bench {

enum class Quantity {
  length,  ///< mm
  angle,   ///< radians
  count,   ///< a whole number, 1 or more
  number,  ///< no unit (rpm; per cent)
  lengths, ///< as text: several lengths parted by +, or a name ("M6")
  choice   ///< one of SumField::choices, as text
};

struct SumField {
  std::string name;
  Quantity quantity = Quantity::length;
  bool may_be_empty = false;
  std::string hint{};                 ///< shown in the empty field
  std::string key{};                  ///< on the command line; empty: made of the name, key_of
  std::vector<std::string> choices{}; ///< the first is taken when nothing is said
  TaperOf taper = TaperOf::slope;     ///< of an angle: what "1 in 12" is of
  bool either_side = false; ///< of a length: a place or a reading, on either side of its zero; else a size
};

/// A length that lies on either side of its zero: a place, a reading.
inline SumField place(SumField field) {
  field.either_side = true;
  return field;
}

/// What stands in a field.
struct SumValue {
  bool given = false;
  double value = 0; ///< mm, radians, or the number
  std::string text; ///< lengths
};

struct SumLine {
  std::string label;
  Quantity quantity = Quantity::length;
  double value = 0;
  std::string how;   ///< the way it was reached: "(1.2500 − 0.8125) · 12"
  std::string key{}; ///< on the command line; empty: made of the label
};

struct SumAnswer {
  bool ok = false;
  std::string message; ///< which field, what is wrong, what to do
  std::vector<SumLine> lines;
  std::string words; ///< a verdict, where there is one
};

/// The values of a sum, asked for by the names of its fields. A name that is none of them is a mistake in the
/// sum itself: std::logic_error.
class SumValues {
public:
  SumValues(const std::vector<SumField>& fields, std::vector<SumValue> values);

  double operator()(std::string_view field) const { return at(field).value; } ///< 0 where nothing is given
  bool given(std::string_view field) const { return at(field).given; }
  const std::string& text(std::string_view field) const { return at(field).text; }

private:
  const SumValue& at(std::string_view field) const;
  const std::vector<SumField>& fields_;
  std::vector<SumValue> values_;
};

/// "Length of the bar" as a key: "length_of_the_bar".
std::string key_of(std::string_view name);
inline std::string key_of(const SumField& field) {
  return field.key.empty() ? key_of(field.name) : field.key;
}

struct Sum {
  std::string id, group, title, words;
  std::vector<SumField> fields;
  std::function<SumAnswer(const SumValues&, Unit)>
      reckon;          ///< given values that are there; unit of bare numbers in text
  std::string trade{}; ///< other words a person may look for it by
};

/// Whether `sum` is looked for by `words`: each stands in its title, group, words, fields or trade words.
bool is_called(const Sum& sum, std::string_view words);

/// All of them, by group.
const std::vector<Sum>& sums();
const Sum* sum_called(std::string_view id);

/// Checks the values against the fields, in their order, then reckons.
SumAnswer answer(const Sum& sum, const std::vector<SumValue>& values, Unit unit = Unit::mm);

} // namespace datrin::bench
