#pragma once
// What must be true before a piece leaves a setup: its features done, its sizes measured, what
// was seen on its faces dealt with, and the references
// cut or carried over that later setups locate from. The references are worked out from the datums of the
// later setups. Uses allowance/: whether a surface is done is read from its cuts.

#include "allowance/plan.h"
#include "build/edits.h"

#include <string>
#include <vector>

namespace datrin::route {

enum class GateKind { feature, operation, size, reference, spot };

struct GateItem {
  GateKind kind = GateKind::feature;
  bool done = false;
  std::string text;      ///< "bore finished: 0.32 left" or "column face wanted by turned over"
  build::Id surface = 0; ///< to go to
  build::Id dimension = 0;
  build::Id operation = 0; ///< to be ticked off
  build::Id spot = 0;      ///< seen on the rough piece, and something to be done about it
};

struct GateResult {
  std::vector<GateItem> items;
  int open = 0; ///< not done
  std::string verdict;
};

GateResult unclamp_gate(const build::Build& build, build::Id piece, build::Id setup,
                        const std::vector<allowance::SurfacePlan>& plans);

/// What is wrong with the setups of a part as they stand: an as-cast datum used twice, a datum cut only
/// later, a surface to be machined that no setup cuts, a setup that nothing machined locates.
struct RouteRemark {
  bool wrong = false; ///< else worth a look
  build::Id setup = 0;
  std::string text;
};
std::vector<RouteRemark> route_remarks(const build::Build& build, build::Id part);

/// What the gate still wants, in words: "bore; 46 measured". Empty when nothing.
std::string still_missing(const GateResult& gate);

} // namespace datrin::route
