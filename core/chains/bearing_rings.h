#pragma once
// What both joints of a rolling bearing do to the clearance inside it: the one of its bore on the shaft and
// the one of its outside in the housing count together. Lengths mm.

#include "chains/build_targets.h"
#include "fits/bearing.h"

#include <optional>
#include <string>

namespace datrin::chains {

struct BearingRings {
  std::string message; ///< which joint is not stated yet; empty: both are
  fits::BearingInput input;
};

/// For a joint that is one ring of a bearing. The inner ring is taken to run hotter by 15 % of the working
/// heat over 20 °C, 5 K at least (common practice).
BearingRings bearing_rings(const build::Build& build, const BuildTargets& targets, const build::Joint& joint);

} // namespace datrin::chains
