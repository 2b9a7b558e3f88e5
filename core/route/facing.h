#pragma once
// The faces of a part in the order of squaring (route/squaring.h): of a block all six; of a casting those
// that are machined, with its raw sides to the jaws, packed where they slope by their draft.

#include "build/build.h"
#include "route/squaring.h"

#include <array>
#include <string>
#include <vector>

namespace datrin::route {

/// The outermost plane of each of six ways square to each other; 0: there is none. Of squaring 1 is the
/// largest that is machined, 2 beside it, 3 opposite 2, 4 opposite 1, 5 and 6 the ends.
struct FacesToSquare {
  std::array<build::Id, block_faces> faces{};
  bool casting = false;
  bool usable() const { return faces[0] != 0; }
};

/// A block must have all six, each nearly as large as the box about it; a casting at least two that are
/// machined, square or opposite to each other. Not usable: it is neither.
FacesToSquare faces_to_square(const build::Build& build, build::Id part);

/// What squaring is asked: sizes, which faces are true already, stay raw, are not there, slope by the
/// pattern's draft, have a thread in them.
SquaringInput squaring_input(const build::Build& build, build::Id part, const FacesToSquare& of);

/// Setups that face it, one a face, then what reaches the holes and faces that are left; empty when it has no
/// such faces. `notes`: face by face what goes where, why, and how true it comes out.
std::vector<build::Setup> facing_setups(const build::Build& build, build::Id part,
                                        std::vector<std::string>* notes = nullptr);

} // namespace datrin::route
