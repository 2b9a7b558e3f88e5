#pragma once
// Where the bodies of a part lie: each is put on a face of another, so far from its middle or its edges,
// turned and tilted there, and repeated in a pattern. Everything comes out in the drawing frame (mm).

#include "build/build.h"
#include "solid/body_form.h"

#include <string>
#include <vector>

namespace datrin::solid {

/// A body where it is.
struct PlacedBody {
  build::Id id = 0;
  std::string name;
  BodyForm form;
  std::vector<Pose>
      copies;        ///< body → drawing frame, one a copy; none where it works edges or something is wrong
  build::Id on = 0;  ///< of what works edges: whose
  FaceOf face;       ///< the face of it
  std::string wrong; ///< why it cannot be made, in words; empty: it can
};

struct PlaceOptions {
  std::size_t most_copies = 1000; ///< of one body, also through what it stands on
};

/// The bodies of `part` in the order they are added and taken away.
std::vector<PlacedBody> place_bodies(const build::Build& build, build::Id part,
                                     const PlaceOptions& options = {});

/// A face in the drawing frame.
struct PlacedFace {
  BodyFace face = BodyFace::middle;
  int copy = 0;
  Pose frame; ///< of the face → drawing
  Surface shape;
  double width = 0, height = 0, stands = 0; ///< as in FormFace
  int profile_place = 0;
  FaceOf face_of() const { return {face, profile_place, copy}; }
};
std::vector<PlacedFace> faces_of(const PlacedBody& body);

/// The frame, level and upright, of a surface a body may be put on that is no face of a body; of a round one
/// its axis, at its middle.
FormFace ground_on(const build::PartSurface& surface);

/// Radius about the drawing's origin that holds all that is added, mm.
double reach_of(const std::vector<PlacedBody>& bodies);

} // namespace datrin::solid
