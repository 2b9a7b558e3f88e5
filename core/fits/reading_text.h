#pragma once
// A reading as people write it, whatever it was taken with, and the size it comes to. Lengths mm.
//
//   10.021 | 10.021 ±0.002           the size itself
//   go 10.00 no-go 10.02             gauges: both did as they should (of a shaft go is the larger)
//   go 10.00 stops | no-go 10.02 goes    one that did not: the size is beyond it
//   mate -0.021                      the instrument was zeroed on the mate, and shows the difference
//   27.11 over 8.32 in 8.33          over a pin or ball of 8.32 in a hole of 8.33, to the hole's axis
//   18.79 inside 8.32                to the near side of the pin
//   60.10 over 8.32 and 10.0         across two pins, to the distance of their axes
//   41.78 inside 8.32 and 10.0       between them
//   3.68 and 3.74                    one width from two sides: its mean, and how far off the centre
//   dial 0.35 a side | dial 0.7 on diameter   what came off since the last reading, by a dial left on
//
// "a", "an", "the", "pin", "pins", "ball", "balls", "hole" may stand where they read well.

#include "build/made.h"
#include "quantity/length.h"

#include <optional>
#include <string>
#include <string_view>

namespace datrin::fits {

using build::Bound;
using build::Side;

enum class ReadingKind { size, gauges, comparison, over_pins, two_sides, dial };

struct ReadingText {
  bool ok = false;
  std::string message; ///< what is wrong and what is expected
  ReadingKind kind = ReadingKind::size;
  double shown = 0;                  ///< what the instrument shows; of gauges the size they leave, of two
                                     ///< sides the mean, of a comparison or dial the difference (a dial's:
                                     ///< what came off, above 0, as it is on a diameter when `on_diameter`)
  double pins = 0;                   ///< to be added to `shown` for the size: half the pins, with its sign
  double play = 0;                   ///< ±, what the pins leave unsaid by their clearance in their holes
  double off_centre = 0;             ///< of two sides: half their difference
  std::optional<bool> on_diameter{}; ///< of a dial: said, and which
  Bound bound = Bound::exact;
  std::optional<double> uncertainty; ///< ±, when it was written, or what gauges leave
};

/// Reads `text`. `side`: of what; of something unknown two gauges may stand in either order, one is refused.
ReadingText parse_reading(std::string_view text, const LengthOptions& options, Side side = Side::unknown);

/// What may be written where a reading is asked for, for a tool tip.
inline constexpr const char* reading_examples =
    "10.021 \u00B7 10.021 \u00B10.002 \u00B7 go 10.00 no-go 10.02 \u00B7 go 10.00 stops \u00B7 mate -0.021 "
    "(zeroed on its mate) \u00B7 27.11 over 8.32 pin in 8.33 \u00B7 60.1 inside 8 and 8 pins \u00B7 3.68 and "
    "3.74 (two sides) \u00B7 dial 0.35 a side";

} // namespace datrin::fits
