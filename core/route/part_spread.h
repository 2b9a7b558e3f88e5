#pragma once
// What the setups of a part, as they stand, leave of the limits of its dimensions: each datum of a setup is a
// place it is located at (route/spread.h), three on the first, two on the second, one on the third; a round
// one is gripped or stood on a plug. What no datum locates is taken as found by touching off.

#include "build/build.h"
#include "quantity/reckoning.h"
#include "route/spread.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::route {

/// Standard deviations, mm; common practice in a model engineer's shop. Where the setup's machine says its
/// own of seating and cutting, those stand above them.
struct PartSpreadOptions {
  double seating = 0.01;      ///< at a locator: dirt, burrs, the last tap of the hammer
  double cutting = 0.01;      ///< where a cut comes to lie in its setup
  double touching_off = 0.02; ///< finding an edge that nothing locates
  double stop = 0.01;         ///< the same against a stop
  double raw_cast = 0.3;      ///< a face of a casting
  double raw_stock = 0.05;    ///< of bar, plate, block
};

enum class SpreadOf {
  distance, ///< of a dimension with limits
  coaxial,  ///< how far two rounds drawn about one axis come to lie apart
  square,   ///< how far a face drawn square to another leans over its extent
  parallel, ///< the same of one drawn parallel to it
  position  ///< how far a hole, or a face, comes to lie off its place from its datums, the worse of its ways
};

struct DimensionSpread {
  SpreadOf of = SpreadOf::distance;
  build::Id dimension = 0;    ///< of a distance
  build::Id tolerance = 0;    ///< the geometrical tolerance it is held to; 0: none
  double over = 0;            ///< mm: of a face its extent
  build::Id from = 0, to = 0; ///< surfaces
  double sigma = 0;           ///< mm
  double allowed = 0;         ///< mm: half of what its limits leave; of a zone round an axis or place its
                              ///< radius, of a lean the width of the zone; 0: nothing is asked
  std::vector<SpreadShare> shares; ///< per setup
  double raw = 0;                  ///< share of faces that are never cut
  double together = 0;  ///< mm: its sigma if both its faces were cut in one setup; 0: one is not cut
  double with_stop = 0; ///< mm: its sigma if every setup had a stop where nothing locates
  std::optional<double> measured; ///< mm: as it was read on the piece: nothing is expected any more

  /// Three standard deviations: what nearly all pieces keep.
  double expected() const { return 3 * sigma; }
  /// Of two rounds: what an indicator on the one shows when the other runs true, twice the distance.
  double tir() const { return of == SpreadOf::coaxial ? 2 * expected() : 0; }
  bool fits() const { return allowed <= 0 || measured || expected() <= allowed; }
};

struct PartSpread {
  std::vector<build::Id> setups; ///< in their order
  std::vector<DimensionSpread> dimensions;
  std::vector<std::string> remarks; ///< "turned over: nothing locates it along y; …"
};

/// Distances with limits between surfaces of the part and what has a geometrical tolerance, those worst off
/// first; then rounds drawn about one axis, and faces square to what a setup is located from, where different
/// setups cut them. Where a fixture holds the part, its locators' play counts (route/fixture.h). What was
/// read on `piece` (0: none) counts as it was read.
PartSpread part_spread(const build::Build& build, build::Id part, const PartSpreadOptions& options = {},
                       build::Id piece = 0);

/// What a row is of: the name of the dimension, "journal A to journal B, about one axis".
std::string spread_name(const build::Build& build, const DimensionSpread& dimension);

/// How three standard deviations of a distance come about: the root of the sum of squares, cause by cause.
Reckoning spread_sum(const build::Build& build, const PartSpread& spread, const DimensionSpread& dimension,
                     const PartSpreadOptions& options = {});

/// Where most of it comes from, in words: "81 % from turned over, standing on raw foot". Empty: nothing.
std::string spread_from(const build::Build& build, const PartSpread& spread,
                        const DimensionSpread& dimension);

} // namespace datrin::route
