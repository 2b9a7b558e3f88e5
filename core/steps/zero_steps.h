#pragma once
// The steps that find a datum on the read-out of a machine: a face touched twice, the two sides of what has a
// middle, places round something round, two faces of a part that lies askew; and, a day later, that it holds.

#include "steps/zeros.h"

#include <vector>

namespace datrin::steps {

/// Found along `axis`; empty where nothing locates the part along it, or the other axis's touches find it
/// too.
std::vector<BenchStep> zero_steps(const build::Build& build, const BenchInput& input,
                                  const BenchOptions& options, const Places& places, std::size_t axis,
                                  double finder);

/// One touch, where the zero was found long ago: whether it still holds. Empty where none is due.
std::vector<BenchStep> still_steps(const build::Build& build, const BenchInput& input,
                                   const BenchOptions& options, const Places& places, std::size_t axis,
                                   double finder);

/// Whether X and Y are found together, by two faces of a part that lies askew.
bool lies_askew(const build::Build& build, const BenchInput& input, const Places& places);

} // namespace datrin::steps
