#pragma once
// Which faces of a body its sizes lie between, and which sizes a face is as large by.

#include "solid/body_form.h"

#include <optional>

namespace datrin::solid {

/// The two faces a size lies between; middle: none. A size of a round face is that of `first` alone.
struct FacesOfSize {
  FaceOf first, second;
};
/// Of a profile's places: the cylinder whose diameter it is; where it starts and the shoulder or end so far
/// from it.
FacesOfSize faces_of_size(const build::BodySize& size, const BodyForm& form);

/// The sizes of a body along the right and the up of a face, where there are such.
struct RolesAlong {
  bool has_right = false, has_up = false;
  BodyRole right = BodyRole::length, up = BodyRole::height;
};
RolesAlong roles_along(BodyFace face, const BodyForm& form);

/// The size of a body square to that face.
std::optional<BodyRole> role_across(BodyFace face, const BodyForm& form);

} // namespace datrin::solid
