#include "steps/off_the_face.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::steps {

std::string off_the_face(const std::vector<solid::PlacedBody>& placed, build::Id hole, const Vec3& mouth,
                         double across) {
  const auto find = [&](build::Id id) {
    return std::find_if(placed.begin(), placed.end(), [&](const auto& one) { return one.id == id; });
  };
  const auto body = find(hole);
  if (body == placed.end()) return {};
  const auto under = find(body->on);
  if (under == placed.end()) return {};
  constexpr double in_plane = 1e-3; // mm
  bool any = false, wide = false;
  for (const auto& face : solid::faces_of(*under)) {
    if (face.shape.round() || !(face.face_of() == body->face) || face.width <= 0 || face.height <= 0)
      continue;
    const Vec3 at = face.frame.inverse().apply(mouth);
    if (std::abs(at.z()) > in_plane) continue;
    any = true;
    wide = wide || across > std::min(face.width, face.height);
    if (std::abs(at.x()) <= face.width / 2 && std::abs(at.y()) <= face.height / 2)
      return wide ? fmt::format("it is wider than {}", under->name) : std::string();
  }
  return any ? fmt::format("its centre lies outside of {}", under->name) : std::string();
}

} // namespace datrin::steps
