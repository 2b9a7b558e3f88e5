#pragma once
// Setups to begin with, in which a machine can reach what they cut.

#include "build/edits.h"

#include <vector>

namespace datrin::route {

/// Setups to begin with: from the as-cast datums given (three targets, two, one; or a round one that is
/// gripped and an end face) everything a tool reaches from the side away from them; then, standing on what
/// was cut, from each way that reaches most of what is left. On a mill a face beside the spindle is reached
/// with the side of the cutter; a bore only along it (common practice).
std::vector<build::Setup> suggest_setups(const build::Build& build, build::Id part,
                                         const std::vector<build::Id>& first_datums);

/// Locates the first setup of a part from `datums`; a part without setups gets those suggested.
build::Edit take_datums(const build::Build& build, build::Id part, const std::vector<build::Id>& datums);

} // namespace datrin::route
