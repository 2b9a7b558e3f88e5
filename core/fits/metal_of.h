#pragma once
// Metal of the part a dimension belongs to, and of the two sides of a joint.

#include "build/build.h"
#include "fits/solids.h"

namespace datrin::fits {

/// By the tables; null when it is not one of theirs.
const Solid* metal_of(const build::Build& build, build::Id dimension);

/// Of the hole and of the shaft of a joint; the ring of a rolling bearing is steel, whatever its part says.
const Solid* hole_metal(const build::Build& build, const build::Joint& joint);
const Solid* shaft_metal(const build::Build& build, const build::Joint& joint);

} // namespace datrin::fits
