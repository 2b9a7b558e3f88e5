#pragma once
// Holes drilled one beside the other inside an outline, so that what is within comes out: how many, how far
// apart, where. mm.

#include "geometry/surface.h"

#include <string>
#include <vector>

namespace datrin::cutting {

struct ChainHolesInput {
  std::vector<Vec2> outline; ///< corners, in order, either way round
  double drill = 0;
  double web = 0.127; ///< between two holes: 0.005 in (common practice)
  double leave = 0.5; ///< metal left to the line, for the file or the mill
};

enum class ChainHolesStatus { not_run, found, refused };

struct ChainHoles {
  ChainHolesStatus status = ChainHolesStatus::not_run;
  std::string message;
  std::vector<Vec2> holes;
  double length = 0; ///< of the line their middles lie on
  double web = 0;    ///< between two, at the narrowest
  bool usable() const { return status == ChainHolesStatus::found; }
};

/// The outline moved inwards by half the drill and what is left (Clipper), and holes evenly along it,
/// no nearer along it than drill and web; across a corner two may come nearer, which `web` shows.
ChainHoles chain_holes(const ChainHolesInput& input);

} // namespace datrin::cutting
