#pragma once
// Mistakes looked for in a piece's survey, and what becomes of them as edits.

#include "casting/mistakes.h"
#include "casting/survey.h"

#include <optional>
#include <vector>

namespace datrin::casting {

struct FlaggedTouch {
  build::Id touch = 0;
  int number = 0; ///< its row in the list of touches, from 1
  Mistake mistake;
  build::Id surface = 0; ///< the surface the suggestion books it to
};

/// Touches of the piece that look like mistakes, in order; those the person confirmed or set aside are not
/// among them. Heights, sizes and scans are not looked at.
std::vector<FlaggedTouch> flagged_touches(const build::Build& build, build::Id piece, const PieceInput& input,
                                          const Pose& pose, const MistakesOptions& options = {});

/// The touch put right; the old value stays in the record ("x was 12.40 mm: …").
build::Edit accept_suggestion(const build::Build& build, const FlaggedTouch& flagged);

/// The touch confirmed as it is, or set aside, or counted again.
build::Edit set_standing(const build::Build& build, build::Id touch, build::TouchStanding standing);

} // namespace datrin::casting
