#pragma once
// What stands between the signs of an expression (quantity/expression.h): a number with its power of length,
// and how such are added, multiplied and raised.

#include "quantity/unit.h"

#include <optional>
#include <string>

namespace datrin {

enum class ValueKind {
  bare,     ///< written without a unit: a factor, or a length of the dial's unit
  fraction, ///< a vulgar fraction without a unit: a factor, or a length in inches
  number,   ///< of no unit, ever: a ratio of lengths, a sine, pi
  dimensioned
};

struct ExpressionValue {
  ValueKind kind = ValueKind::dimensioned;
  double value = 0;   ///< mm to the power; of the others the number
  double power = 1;   ///< of length; 0 where it has none
  bool linear = true; ///< of one without a unit: no square or root of what the person typed
  std::string text;   ///< as understood
  int binds = 4;      ///< 1: a sum, 2: a product, 3: with a unit or a power, 4: whole; for brackets round it
};

/// The result, or why not.
struct ExpressionOutcome {
  ExpressionValue value;
  std::string wrong;
  bool unit_missing = false;
  bool ok() const { return wrong.empty(); }
};

/// As a length, when it can be one: `dial` is the unit of a bare number.
ExpressionOutcome as_length(ExpressionValue value, std::optional<Unit> dial);

ExpressionOutcome add(ExpressionValue a, ExpressionValue b, bool minus, std::optional<Unit> dial);
ExpressionOutcome multiply(const ExpressionValue& a, const ExpressionValue& b);
ExpressionOutcome divide(const ExpressionValue& a, const ExpressionValue& b, std::optional<Unit> dial);
ExpressionOutcome raise(const ExpressionValue& base, const ExpressionValue& exponent);
/// sqrt, cbrt, sin … atan of `of`; nothing for a name that is none of them.
std::optional<ExpressionOutcome> apply_function(const std::string& name, const ExpressionValue& of);
bool is_function(const std::string& name);

} // namespace datrin
