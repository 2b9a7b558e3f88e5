#pragma once
// After a slip with a hole: it is out of its place, or a tap broke in it. What can still be done, each with
// what it costs in room, minutes and other parts, and the edit that takes it.

#include "route/features.h"
#include "route/recovery.h"

namespace datrin::route {

enum class HoleSlip { out_of_place, tap_broken };

struct HoleSlipInput {
  build::Id piece = 0;
  HoleSlip slip = HoleSlip::out_of_place;
  double off = 0; ///< mm its axis lies beside where it should
  std::string at; ///< UTC, ISO 8601
};

/// Cheapest that work first; empty when the feature is no hole, or it is not off.
std::vector<RecoveryWay> hole_recoveries(const build::Build& build, const Feature& hole,
                                         const HoleSlipInput& slip, const RecoveryOptions& options = {});

/// Metal between a hole of `across` mm there and the nearest other hole along the same way, or the outside of
/// the part, mm; nothing where neither is known. The hole itself and its copies do not count: `hole`.
std::optional<double> metal_round(const build::Build& build, build::Id part, const Feature& hole,
                                  double across);

} // namespace datrin::route
