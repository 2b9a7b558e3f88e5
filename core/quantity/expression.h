#pragma once
// What a person works out while typing a length: sums, products, quotients, brackets, powers, roots and sines
// of lengths as people write them (quantity/length.h).
//
//   sum      = product { ("+" | "-") product }
//   product  = power { ("*" | "x" | "/" | ":" | "per") power }
//   power    = ["-" | "+"] atom ["^" power]
//   atom     = number [unit] | unit (after a division) | drill | gauge | hole | name | pi
//            | function atom | "(" sum ")" [unit]
//   function = sqrt | cbrt | sin | cos | tan | asin | acos | atan        (angles in degrees)
//   number   = decimal | fraction | whole (" " | "-") fraction           (the "-" with no space either side)
//   unit     = (mm | cm | m | µm | um | in | inch | " | ft | thou | mil | tenths) ["^" whole] | deg
//
// Whole numbers with a stroke between and no blank are a fraction, "13/16"; anything else with a stroke is a
// division. "1 in/3/8" could be either, and is refused. A number without a unit is a factor beside a length
// (2 × 3 mm), and a length where it is added to one or stands alone: a fraction in inches, any other in the
// unit of the dial. What comes of a division of lengths, a sine or pi stays a bare number, and so does what
// is added to one.

#include "quantity/length.h"

namespace datrin {

struct Expression {
  LengthStatus status = LengthStatus::empty;
  std::string message;
  std::size_t column = 0;
  double value = 0;              ///< mm to the power of `power`, or the number
  double power = 0;              ///< 1: a length; 2: an area; 0: a bare number
  std::vector<LengthTerm> terms; ///< addends of the whole, when it is a length
  std::string understood;
  bool fraction_as_inches = false;

  bool ok() const { return status == LengthStatus::ok; }
};

/// Reads and reckons `text`. A number alone, or a sum of such, is a length where the dial has a unit.
Expression reckon(std::string_view text, const LengthOptions& options = {});

/// Reads and reckons `text` where a number is wanted, not a length: "360/7" is 51.43; nothing for anything
/// that has a unit, and for what cannot be read.
std::optional<double> reckon_number(std::string_view text, const LengthOptions& options = {});

/// "an area", "a bare number"
std::string power_words(double power);

} // namespace datrin
