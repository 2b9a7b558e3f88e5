#pragma once
// What the setups of a part, as they stand, leave of the limits of its dimensions: each datum of a setup is a
// place it is located at (route/spread.h), three on the first, two on the second, one on the third; a round
// one is gripped or stood on a plug. What no datum locates is taken as found by touching off.

#include "build/build.h"
#include "quantity/reckoning.h"
#include "route/spread.h"

#include <string>
#include <vector>

namespace datrin::route {

/// Standard deviations, mm; common practice in a model engineer's shop, until something else is known.
struct PartSpreadOptions {
  double seating = 0.01;      ///< at a locator: dirt, burrs, the last tap of the hammer
  double cutting = 0.01;      ///< where a cut comes to lie in its setup
  double touching_off = 0.02; ///< finding an edge that nothing locates
  double raw_cast = 0.3;      ///< a face of a casting
  double raw_stock = 0.05;    ///< of bar, plate, block
};

struct DimensionSpread {
  build::Id dimension = 0;
  double sigma = 0;                ///< mm
  double allowed = 0;              ///< mm: half of what its limits leave
  std::vector<SpreadShare> shares; ///< per setup
  double raw = 0;                  ///< share of faces that are never cut
  double together = 0; ///< mm: its sigma if both its faces were cut in one setup; 0: one is not cut

  /// Three standard deviations: what nearly all pieces keep.
  double expected() const { return 3 * sigma; }
  bool fits() const { return expected() <= allowed; }
};

struct PartSpread {
  std::vector<build::Id> setups; ///< in their order
  std::vector<DimensionSpread> dimensions;
  std::vector<std::string> remarks; ///< "turned over: nothing locates it along y; …"
};

/// Distances with limits between surfaces of the part, those worst off first.
PartSpread part_spread(const build::Build& build, build::Id part, const PartSpreadOptions& options = {});

/// How three standard deviations of a distance come about: the root of the sum of squares, cause by cause.
Reckoning spread_sum(const build::Build& build, const PartSpread& spread, const DimensionSpread& dimension,
                     const PartSpreadOptions& options = {});

/// Where most of it comes from, in words: "81 % from turned over, standing on raw foot". Empty: nothing.
std::string spread_from(const build::Build& build, const PartSpread& spread,
                        const DimensionSpread& dimension);

} // namespace datrin::route
