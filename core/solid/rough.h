#pragma once
// The part before anything of it is cut: the casting as drawn. Machined faces stand out by the metal they
// need, cored holes are smaller by it, and what is made from solid is not there yet.

#include "build/build.h"
#include "solid/place.h"

namespace datrin::solid {

/// Its bodies. Empty where the part has none.
std::vector<PlacedBody> rough_bodies(const build::Build& build, build::Id part);

} // namespace datrin::solid
