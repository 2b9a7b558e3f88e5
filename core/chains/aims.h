#pragma once
// Where the surfaces of a piece are to be finished: what the allowance step aims at is what the joints and
// chains want made. (chains uses allowance here: an aim is the allowance step's own.)

#include "allowance/plan.h"
#include "chains/build_targets.h"

#include <vector>

namespace datrin::chains {

/// Of each machined surface whose size or distance has a target, or was read and stands: where it is
/// finished. What a distance of two faces is to be more than its nominal is shared between them, or is the
/// one's that is still to be cut.
std::vector<allowance::Aim> aims_of(const build::Build& build, build::Id piece, const BuildTargets& targets);

} // namespace datrin::chains
