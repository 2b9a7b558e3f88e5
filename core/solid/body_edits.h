#pragma once
// The edits of bodies: drawn, changed, given names for their faces. Each comes with all that follows from it
// (solid/follow.h). mm, radians.

#include "build/edits.h"
#include "solid/body_form.h"
#include "solid/solid.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::solid {

/// How a body is begun.
struct NewBody {
  BodyShape shape = BodyShape::block;
  bool cut = false;
  build::Id on = 0;            ///< 0: the drawing's frame
  FaceOf face = BodyFace::top; ///< of `on`
  std::string name{};          ///< empty: what its shape is called
  build::Id surface = 0;       ///< a surface that is no face of a body to put it on; before `on`
};

/// A body with usual sizes, round in the build's unit; each is a dimension of its own name ("foot, length").
/// A hole's wall is a surface, from solid.
build::Added add_body(const build::Build& build, build::Id part, const NewBody& begun);

/// The same, on a face of the solid that is no face of a body with sizes (drawn elsewhere): the face is made
/// a surface where it is none yet.
build::Added add_on_face(const build::Build& build, build::Id part, const SolidFace& face, NewBody begun);

/// The dimension a size of `body` is to be, under its name ("foot, length"; of a hole or round just "bore").
/// `profile_place`: of which place of a profile; 0: of the body.
build::Dimension dimension_for(const build::Body& body, BodyRole role, double value, int profile_place = 0);

/// Replaces the body: sizes its shape needs now and does not have are begun, dimensions of sizes it has no
/// longer go with them.
build::Edit set_body(const build::Build& build, build::Id body, const build::Body& changed,
                     const std::string& what);

/// The thread of a tapped hole or a round, by its name in the table; empty: none. The hole gets the size of
/// its tapping drill, the round the outside of the thread.
build::Edit set_thread(const build::Build& build, build::Id body, const std::string& thread,
                       const std::string& at);

/// One size of it. What has no dimension yet gets one, but for a place of 0.
build::Edit set_body_size(const build::Build& build, build::Id body, BodyRole role, double value,
                          const std::string& at);

/// Another profile of what is turned. Sizes, surfaces and what stands on it go with their places; a new
/// place begins its dimensions. Of a cylinder one end typed makes a cone, unless its diameter is more than a
/// value (has limits, a class, a surface, is fitted): then both ends follow it.
build::Edit set_profile(const build::Build& build, build::Id body,
                        const std::vector<build::ProfilePoint>& profile, const std::string& at);

/// One place earlier (−1) or later (+1) in the order they are added and taken away. Empty when it cannot go
/// there.
build::Edit move_body(const build::Build& build, build::Id body, int by);

/// The body, what stands on it, their dimensions and the surfaces that are their faces.
build::Edit remove_body(const build::Build& build, build::Id body);

/// Cut, never cast: nothing of it is there in the rough.
bool is_cut_only(const build::Body& body);

/// A face of one copy of a body made a surface, under a name that is free; from solid where its body is cut
/// only.
build::Added name_face(const build::Build& build, build::Id body, const FaceOf& face, const std::string& name,
                       bool machined);

/// The surface a face of the part's solid is: by its body, or lying where it lies. 0: it is none yet.
build::Id surface_of_face(const build::Build& build, build::Id part, const SolidFace& face);

/// A face of the solid made a surface, whatever body it is of; of a part drawn elsewhere it is stated as it
/// was read.
build::Added surface_from_face(const build::Build& build, build::Id part, const SolidFace& face,
                               bool machined);

/// The size that lies between two faces, or that one round face has, as it is read off: a distance between
/// parallel planes or axes, or a diameter (`other` null). Kept as a dimension of the part, free, between the
/// surfaces where they are.
build::Added keep_read_off(const build::Build& build, build::Id part, const SolidFace& face,
                           const SolidFace* other);
/// The same as a number, mm; nothing where there is no such size.
std::optional<double> read_off(const SolidFace& face, const SolidFace* other);

/// What a face is called to people: "top of foot", "bore".
std::string face_words(const build::Build& build, build::Id body, const FaceOf& face);

/// What the side of a profile up to that place is called within its body: "shoulder at place 3".
std::string profile_face_words(const build::Body& body, int place);

/// What a size is called within its body: "length", "from the left edge".
std::string role_words(const build::Body& body, BodyRole role, int profile_place = 0);

/// Sizes that say where `body` is put and how it is repeated.
std::vector<BodyRole> place_roles_of(const build::Body& body);

} // namespace datrin::solid
