#pragma once
// A rescue taken: the drawing changed, the reason kept.

#include "casting/rescue.h"
#include "casting/survey.h"

namespace datrin::casting {

/// The changes to the drawing, a decision for each with its reason, and the seat that goes with them, in one
/// edit. `at` is the time, UTC, ISO 8601. A sleeve leaves the drawing as it is: only the decision says so,
/// and the bore is bored larger first; what a bore needs then is no longer what was asked, so its stock
/// needed is lowered.
build::Edit take_rescue(const build::Build& build, build::Id piece, const PieceInput& input,
                        const Rescue& rescue, double short_by, const std::string& at);

} // namespace datrin::casting
