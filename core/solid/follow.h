#pragma once
// Each size once: what follows when a body, a dimension that sizes one, or a face that is a surface was
// changed. Bodies take the sizes their dimensions say; surfaces lie where the faces of their bodies are; a
// surface that was moved by hand or by a rescue moves the body it is a face of, and with it the dimensions
// that place it.

#include "build/edits.h"
#include "solid/place.h"

namespace datrin::solid {

/// `edit` with all that follows from it, as one edit under the same label. The same edit where nothing does.
/// `at`: UTC, ISO 8601, for the history of dimensions that were moved.
build::Edit followed(const build::Build& build, build::Edit edit, const std::string& at = {});

/// The surface as the face of its body has it: where it lies, its size and extents. What a person says of it
/// (name, machined, stock) stays.
build::PartSurface lying_on(build::PartSurface surface, const PlacedFace& face, const BodyForm& form);

} // namespace datrin::solid
