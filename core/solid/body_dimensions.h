#pragma once
// The dimensions that say the sizes of bodies: begun with them, gone with them. For the edits of this folder.

#include "build/rows.h"
#include "solid/body_form.h"

#include <vector>

namespace datrin::solid {

/// A dimension for a size, under a name that is free; mm or radians.
build::Id begin_dimension(build::Rows& rows, const build::Body& body, BodyRole role, double value,
                          int profile_place = 0);

/// Takes dimensions away that no body of the part is sized by any more.
void take_unused(build::Rows& rows, build::Id part, const std::vector<build::Id>& dimensions);

/// Sizes of a profile that are not held yet are begun; what is the same by nature is one dimension.
void begin_profile_sizes(build::Rows& rows, build::Body& body);

} // namespace datrin::solid
