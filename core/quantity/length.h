#pragma once
// Lengths as people write them: `13/16`, `1 3/8"`, `1-3/8 in`, `.315`, `8 mm`, `12 thou`, `#30`, `letter F`,
// `5/16-18 tap`, sums of them, units mixed: `3 mm + 9/16 in + 3.5 mm`, and whatever else comes to a length:
// `bore/2 + 3 mm`, `0.125 in/ft x 5 in`. The grammar stands in quantity/expression.h.
//
//   drill = # digits | no[.] digits | [letter] A..Z
//   gauge = whole ("swg" | "awg") | ("swg" | "awg") whole
//   hole  = thread ("tap" | "clear")           (where LengthOptions::thread_hole knows threads)
//
// Tenths are tenths of a thousandth of an inch. A vulgar fraction without a unit is inches: nobody writes
// thirteen sixteenths of a millimetre. Any other number without one takes the unit of the dial in front of
// the person (LengthOptions::bare_unit).

#include "quantity/unit.h"

#include <cstddef>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin {

enum class ThreadHole { tapping, clearance };

/// A size found by its name: how many bytes of the text name it, and what it is.
struct NamedSize {
  std::size_t bytes = 0;
  double mm = 0;
};

struct LengthOptions {
  std::optional<Unit> bare_unit; ///< unit of a number written without one; none: such a number is refused
  /// Diameter in mm of a hole for a thread by the thread's name; none: no threads are read.
  std::optional<double> (*thread_hole)(std::string_view thread, ThreadHole hole) = nullptr;
  /// The size whose name the text begins with, the longest; none: no names are read.
  std::function<std::optional<NamedSize>(std::string_view text)> named{};
  bool decimal_comma = false; ///< also read 12,5 as twelve and a half (never a thousands mark)
};

enum class LengthStatus {
  ok,
  empty,
  not_utf8,
  bad_number,
  bad_unit,
  bad_drill,
  unit_missing,
  unfinished,
  too_large,
  not_a_length ///< an area, a bare number
};

/// One addend of a sum, for showing how the total came about.
struct LengthTerm {
  std::string text; ///< as understood, e.g. "9/16 in"
  double mm = 0;    ///< signed
};

struct LengthResult {
  LengthStatus status = LengthStatus::empty;
  std::string message;    ///< what is wrong and what is expected; empty when ok
  std::size_t column = 0; ///< where, counted from 1 in characters; 0 when ok
  double mm = 0;
  std::vector<LengthTerm> terms;
  std::string understood;          ///< the whole, as understood: "3 mm + 9/16 in"
  bool fraction_as_inches = false; ///< a fraction had no unit and was read as inches on a dial in mm

  bool ok() const { return status == LengthStatus::ok; }
};

/// Reads `text` as a length. Anything not understood is refused with its column; nothing is guessed.
LengthResult parse_length(std::string_view text, const LengthOptions& options = {});

} // namespace datrin
