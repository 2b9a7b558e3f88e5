#pragma once
// First datums of a part of the build: what each of its surfaces is like before it is cut.

#include "casting/first_datum.h"
#include "casting/survey.h"

#include <vector>

namespace datrin::route {

/// One entry per surface of the part, in drawing order; with what was found out about the piece (0: nothing
/// yet).
casting::FirstDatumInput datum_input(const build::Build& build, build::Id part, build::Id piece,
                                     const casting::PieceInput& input, const Pose& pose);

/// The best of them for the part's first piece; of bar and plate none: it is held as it came.
std::vector<build::Id> usual_first_datums(const build::Build& build, build::Id part);

} // namespace datrin::route
