#pragma once
// From what a person typed beside an instrument to the reading a build keeps: one way for every place of the
// window that takes readings. Lengths mm. (chains uses fits here: zero error, gauge pins and form are worked
// out there.)

#include "chains/build_targets.h"
#include "fits/solids.h"
#include "quantity/angle.h"
#include "quantity/length.h"

#include <optional>
#include <string>
#include <string_view>

namespace datrin::chains {

/// A place on a bore or shaft, for a reading that is one of several.
struct Place {
  double depth = 0;     ///< mm
  double direction = 0; ///< radians
};

struct MeasureInput {
  Made made;
  Made mate;                  ///< what a comparison is zeroed on; dimension 0: none
  std::string_view text;      ///< "10.021", "10.021 ±0.002", "go 10.00 no-go 10.02", "mate -0.021"
  Id instrument = 0;          ///< of the shop; 0: none, ± as typed
  std::optional<Place> place; ///< one of several readings of it; none: the whole of it
  bool is_hole = true;        ///< of several readings of a hole the smallest counts, of a shaft the largest
  std::string at;             ///< when, UTC, ISO 8601
  AngleOptions angles;        ///< for a dimension that is an angle
};

struct Measured {
  bool ok = false;
  std::string message; ///< what is wrong and what is expected; empty when ok
  build::Measurement measurement;
};

/// Zero error and temperature of the instrument are taken off, pins and comparisons turned into a size, a
/// size far from the nominal refused. A reading of a place is added to those there are; a plain reading taken
/// before is kept as one of them.
Measured measure(const build::Build& build, const MeasureInput& input, const LengthOptions& options);

/// The edit that takes the reading of it away; empty when there is none.
build::Edit take_back_reading(const build::Build& build, const Made& made);

/// The edit that keeps it, in place of the reading there was.
build::Edit keep_measurement(const build::Build& build, const build::Measurement& measurement);

/// Metal of the part a dimension belongs to, by the tables; null when it is not one of theirs.
const fits::Solid* metal_of(const build::Build& build, Id dimension);

} // namespace datrin::chains
