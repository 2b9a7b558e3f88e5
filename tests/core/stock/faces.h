#pragma once
#include "geometry/patch.h"

namespace datrin::test {

inline Patch flat_face(const Vec3& at, const Vec3& out, double width, double height) {
  return {{SurfaceKind::plane, at, out, 0}, width, height};
}

} // namespace datrin::test
