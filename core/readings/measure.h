#pragma once
// From what a person typed beside an instrument to the reading a build keeps: one way for every place of the
// window that takes readings. Lengths mm. (readings uses fits here: zero error, gauges, pins and form are
// worked out there.)

#include "build/edits.h"
#include "build/made.h"
#include "quantity/angle.h"
#include "quantity/length.h"
#include "quantity/reckoning.h"

#include <optional>
#include <string>
#include <string_view>

namespace datrin::readings {

using build::Build;
using build::Id;
using build::Made;

/// A place on a bore or shaft, for a reading that is one of several.
struct Place {
  double depth = 0;     ///< mm
  double direction = 0; ///< radians
};

struct MeasureInput {
  Made made;
  Made mate;                  ///< what a comparison is zeroed on; dimension 0: none
  std::string_view text;      ///< as fits/reading_text.h has it: "10.021", "27.11 over 8.32 in 8.33"
  Id instrument = 0;          ///< of the shop; 0: none, ± as typed
  std::optional<Place> place; ///< one of several readings of it; none: the whole of it
  std::string at;             ///< when, UTC, ISO 8601
  AngleOptions angles;        ///< for a dimension that is an angle
};

struct Measured {
  bool ok = false;
  std::string message; ///< what is wrong and what is expected; empty when ok
  build::Measurement measurement;
  Reckoning sum; ///< how the size comes from what was typed
};

/// Zero error and temperature of the instrument are taken off, gauges, pins, sides and differences turned
/// into the size of the dimension, a size far from the nominal refused. A reading of a place is added to
/// those there are; a plain reading taken before is kept as one of them.
Measured measure(const Build& build, const MeasureInput& input, const LengthOptions& options);

/// How the size that is kept of `made` came about: worked out again from what was typed, with the instrument
/// of that name. Of what was typed without more, or can no longer be followed (the instrument's zero is
/// another now), the size itself; of what a logged cut left, the nominal and that. No lines when nothing was
/// read.
Reckoning reading_sum(const Build& build, const Made& made);

/// The edit that takes the reading of it away; empty when there is none.
build::Edit take_back_reading(const Build& build, const Made& made);

/// The edit that keeps it, in place of the reading there was; its line in the log says both.
build::Edit keep_measurement(const Build& build, const build::Measurement& measurement);

/// A reading as the log and lists say it: "24.013 mm", "below 24.000 mm", "22.950 mm (27.11 over 8.32 in
/// 8.33)"; an angle in degrees.
std::string reading_text(const Build& build, const build::Measurement& measurement);

} // namespace datrin::readings
