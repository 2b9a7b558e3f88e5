#pragma once
// Metal of the part a dimension belongs to.

#include "build/build.h"
#include "fits/solids.h"

namespace datrin::fits {

/// By the tables; null when it is not one of theirs.
const Solid* metal_of(const build::Build& build, build::Id dimension);

} // namespace datrin::fits
