#pragma once
// The edits of the drawing: the build's own settings, parts and how many there are of each, surfaces, walls,
// dimensions, how a part is cast. Lengths mm.

#include "build/edits.h"

#include <string>

namespace datrin::build {

Edit name_build(const Build& build, const std::string& name);
Edit work_in(const Build& build, Unit unit);              ///< the unit of the dial
Edit lay_out_views(const Build& build, bool third_angle); ///< else first angle

/// A part and its first piece. With `free_name` a name that is taken gets a number.
Added add_part(const Build& build, const std::string& name, bool free_name = false);

/// Changes how many of the part there are: pieces are added, or those without touches removed from the end.
/// Pieces with touches stay.
Edit set_quantity(const Build& build, Id part, int quantity);

/// A surface of that kind to begin with, under a name that is not taken: what it measures is for the person
/// to say.
Added add_surface(const Build& build, Id part, SurfaceKind kind);

/// The surface as one of another kind: sizes the kind needs and did not have get a beginning, round in
/// `unit`.
PartSurface of_kind(PartSurface surface, SurfaceKind kind, Unit unit);

/// A wall to keep, at first of 5 mm or 0.2 in. Empty when it is kept already, or one of the two is no
/// surface.
Edit keep_wall(const Build& build, Id part, Id from, Id to);
Edit set_wall(const Build& build, Id wall, double least);

/// How the part is cast.
Edit set_foundry(const Build& build, const Foundry& foundry, const std::string& what);

/// A dimension to begin with, "dimension 3".
Added add_dimension(const Build& build, Id part);

/// A length that was reckoned, kept as a free dimension of its own: `mm`, and how it came about as its
/// reason.
Added keep_reckoned(const Build& build, Id part, const std::string& name, double mm, std::string reason);

} // namespace datrin::build
