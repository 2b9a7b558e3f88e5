#pragma once
// A body by itself: its shape and sizes in its own frame (mm, radians), the faces it has there and how each
// is seen from outside. What is added stands on z = 0 and goes up; what is taken away starts at z = 0 and
// goes down. No library of solids is needed for any of this: faces follow from sizes in closed form.

#include "build/records.h"
#include "geometry/pose.h"
#include "geometry/surface.h"

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace datrin::solid {

using build::BodyFace;
using build::BodyRole;
using build::BodyShape;
using build::FaceOf;

inline constexpr std::size_t role_count = static_cast<std::size_t>(BodyRole::circle) + 1;

struct BodyForm {
  BodyShape shape = BodyShape::block;
  bool cut = false;     ///< taken away
  bool through = false; ///< as deep as `reach` says
  build::HoleMouth mouth = build::HoleMouth::plain;
  int sides = 6;
  std::shared_ptr<const std::string> step; ///< of what is imported
  double reach = 0;                        ///< mm: how deep a cut must go to be through
  double metal = 0; ///< mm of metal there is behind where it starts, of the body it is put on; 0: not known
  std::array<double, role_count> sizes{};
  std::vector<build::ProfilePoint> profile; ///< of what is turned
  double thread_line = 0; ///< mm: diameter its thread is drawn at beside its own: of a tapped hole the
                          ///< outside of the thread, of a threaded round the bottom of it; 0: no thread

  double operator[](BodyRole role) const { return sizes[static_cast<std::size_t>(role)]; }
  double& operator[](BodyRole role) { return sizes[static_cast<std::size_t>(role)]; }
};

/// The form `body` has by the sizes it holds; `reach` 0.
BodyForm form_of(const build::Body& body);

/// Whether the shape goes into metal by its nature: holes, slots, pockets, grooves.
bool always_cuts(BodyShape shape);
/// Whether it works on the edges of a face rather than being metal of its own: chamfers, fillets.
bool works_edges(BodyShape shape);

/// Whether it is only marked on a face: scribed lines, centre pops.
bool is_mark(BodyShape shape);

/// The sizes a shape is stated by, in the order they are asked for; with what `form` says of its mouth and
/// whether it goes through. Not those of its place.
std::vector<BodyRole> roles_of(const BodyForm& form);
bool is_angle(BodyRole role); ///< radians; else mm
/// Whether 0 is as good as any: a corner that is left sharp.
bool may_be_zero(BodyRole role);

/// The diameter of a cone at its far end: as stated, or by its taper; mm.
double top_diameter(const BodyForm& form);

/// What is wrong with the sizes ("needs a diameter above 0"); empty when nothing.
std::string form_wrong(const BodyForm& form);

/// Where it begins and ends along its own z, mm.
struct ZSpan {
  double low = 0, high = 0;
};
ZSpan z_span(const BodyForm& form);

/// Half its extents along its own x and y, mm.
Vec2 half_across(const BodyForm& form);

/// A face as it lies in the body's own frame.
struct FormFace {
  BodyFace face = BodyFace::middle;
  Pose frame; ///< of the face → of the body: x to the right, y up as seen from outside, z out of the metal
              ///< added
  Surface shape;                ///< its side of the metal as the body is added or taken away
  double width = 0, height = 0; ///< mm along x and y of `frame`; of a round one its length and diameter
  double stands = 0;            ///< mm: how far the body goes on behind the face, square to it
  int profile_place = 0;        ///< as in FaceOf
  FaceOf face_of() const { return {face, profile_place, 0}; }
};

/// Whether there is no metal at that face: the middle, and where what is taken away starts.
bool is_open(const BodyForm& form, BodyFace face);

/// Its faces; none for what works on edges. The first is always its middle.
std::vector<FormFace> faces_of(const BodyForm& form);

} // namespace datrin::solid
