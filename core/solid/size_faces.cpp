#include "solid/size_faces.h"

#include "solid/profile.h"

namespace datrin::solid {

using build::BodySize;

namespace {

FacesOfSize of_role(BodyRole role, const BodyForm& form) {
  const bool round = form.shape == BodyShape::round || form.shape == BodyShape::tube ||
                     form.shape == BodyShape::hole || form.shape == BodyShape::groove;
  switch (role) {
  case BodyRole::length:
    if (form.shape == BodyShape::rib || form.shape == BodyShape::slot) return {};
    return {BodyFace::left, BodyFace::right};
  case BodyRole::width:
    return form.shape == BodyShape::groove ? FacesOfSize{} : FacesOfSize{BodyFace::front, BodyFace::back};
  case BodyRole::flats:
    return form.sides % 2 == 0 ? FacesOfSize{BodyFace::front, BodyFace::back} : FacesOfSize{};
  case BodyRole::thickness:
    return {BodyFace::front, BodyFace::back};
  case BodyRole::height:
    return form.cut || form.shape == BodyShape::rib || works_edges(form.shape)
               ? FacesOfSize{}
               : FacesOfSize{BodyFace::bottom, BodyFace::top};
  case BodyRole::diameter:
    return round ? FacesOfSize{BodyFace::side, BodyFace::middle} : FacesOfSize{};
  case BodyRole::bore:
    return {BodyFace::inside, BodyFace::middle};
  case BodyRole::mouth_diameter:
    return form.mouth == build::HoleMouth::countersunk ? FacesOfSize{}
                                                       : FacesOfSize{BodyFace::mouth, BodyFace::middle};
  default:
    return {};
  }
}

FacesOfSize of_place(const BodySize& size, const BodyForm& form) {
  const int place = size.profile_place, last = static_cast<int>(form.profile.size());
  const auto step = [&](int k) { return step_to(form.profile, k); };
  const auto wanted = size.role == BodyRole::diameter ? ProfileStep::cylinder : ProfileStep::shoulder;
  const int side = step(place) == wanted ? place : step(place + 1) == wanted ? place + 1 : 0;
  if (size.role == BodyRole::diameter && side > 0) return {{BodyFace::side, side}, {}};
  if (size.role != BodyRole::length || (side == 0 && place != last)) return {};
  const auto start = form.cut ? BodyFace::top : BodyFace::bottom;
  const auto end = form.cut ? BodyFace::floor : BodyFace::top;
  return {{start}, side > 0 ? FaceOf{BodyFace::side, side} : FaceOf{end}};
}

} // namespace

FacesOfSize faces_of_size(const BodySize& size, const BodyForm& form) {
  return size.profile_place > 0 ? of_place(size, form) : of_role(size.role, form);
}

RolesAlong roles_along(BodyFace face, const BodyForm& form) {
  const bool box = form.shape == BodyShape::block || form.shape == BodyShape::pocket;
  const auto deep = role_across(form.cut ? BodyFace::floor : BodyFace::top, form).value_or(BodyRole::height);
  switch (face) {
  case BodyFace::left:
  case BodyFace::right:
    return {box, box && !form.through, BodyRole::width, deep};
  case BodyFace::front:
  case BodyFace::back:
    return {box, box && !form.through, BodyRole::length, deep};
  case BodyFace::top:
  case BodyFace::bottom:
  case BodyFace::floor: {
    const bool flat = box || form.shape == BodyShape::slot;
    return {flat, flat, BodyRole::length, BodyRole::width};
  }
  case BodyFace::side:
  case BodyFace::inside:
    return {form.shape != BodyShape::groove && form.shape != BodyShape::turned && !form.through, false, deep,
            deep};
  default:
    return {};
  }
}

std::optional<BodyRole> role_across(BodyFace face, const BodyForm& form) {
  switch (face) {
  case BodyFace::left:
  case BodyFace::right:
    return BodyRole::length;
  case BodyFace::front:
  case BodyFace::back:
    if (form.shape == BodyShape::prism) return BodyRole::flats;
    return form.shape == BodyShape::rib ? BodyRole::thickness : BodyRole::width;
  case BodyFace::top:
  case BodyFace::bottom:
    return BodyRole::height;
  case BodyFace::floor:
    for (const auto role : roles_of(form))
      if (role == BodyRole::depth || role == BodyRole::height) return role;
    return std::nullopt;
  case BodyFace::seat:
    return BodyRole::mouth_depth;
  default:
    return std::nullopt;
  }
}

} // namespace datrin::solid
