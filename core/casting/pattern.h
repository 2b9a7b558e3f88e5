#pragma once
// The pattern for a casting: every raw size made larger by the metal's shrinkage, draft on the sides it is
// drawn out along, holes cored or left solid.
//
//   pattern = raw · (1 + shrinkage); over a draw depth h a side leans out by h · tan(draft).

#include "casting/expect.h"

namespace datrin::casting {

struct PatternSurface {
  build::Id surface = 0;
  build::PartSurface shape; ///< raw and larger by the shrinkage, drawing frame scaled about its origin
  double size = 0;          ///< mm: of a round one its diameter; of a plane its distance to the one opposite
  double draft_adds = 0;    ///< mm at the thick end, a side; 0: not drawn along
  bool cored = false;       ///< a bore made by a core
  bool solid = false;       ///< a bore left out of the pattern
  double print = 0;         ///< mm: length of the core print at each end
  std::string note;
};

struct PatternOptions {
  double least_core = 12; ///< mm: a raw hole smaller than this is cast solid (common practice)
};

struct Pattern {
  ExpectStatus status = ExpectStatus::not_run;
  std::string message;
  double scale = 1; ///< 1 + shrinkage
  std::vector<PatternSurface> surfaces;

  bool usable() const { return status == ExpectStatus::expected; }
};

Pattern make_pattern(const build::Build& build, build::Id part, const build::Foundry& foundry,
                     const PatternOptions& options = {});

} // namespace datrin::casting
