#pragma once
// One part drawn record by record: what tests of drawings, castings, metal and chains stand on. Names and
// sizes that do not matter are given; what does is set on the record by the test.

#include "build/build.h"
#include "build/edits.h"

#include <gtest/gtest.h>

#include <string>
#include <utility>

namespace datrin::test {

class DrawnPart : public testing::Test {
protected:
  build::Id make(build::Record record) {
    const build::Id id = b.next_id();
    EXPECT_TRUE(b.apply(build::add(b, std::move(record), "x")));
    return id;
  }

  /// A machined plane of `part`, 40 by 40.
  build::PartSurface plane(const std::string& name, const Vec3& at, const Vec3& faces) const {
    build::PartSurface s;
    s.part = part;
    s.name = name;
    s.point = at;
    s.direction = faces.normalized();
    s.width = s.height = 40;
    return s;
  }

  /// The same with extents, kept.
  build::Id face(const std::string& name, const Vec3& at, const Vec3& faces, double width, double height) {
    auto s = plane(name, at, faces);
    s.width = width;
    s.height = height;
    return make(s);
  }

  /// A machined round surface of `part`, 20 long.
  build::PartSurface round(const std::string& name, SurfaceKind kind, const Vec3& at, const Vec3& axis,
                           double diameter) const {
    build::PartSurface s;
    s.part = part;
    s.name = name;
    s.kind = kind;
    s.point = at;
    s.direction = axis.normalized();
    s.diameter = diameter;
    s.height = 20;
    return s;
  }

  /// A dimension of `part` without limits, under a name of its own.
  build::Dimension dimension(build::DimensionKind kind, build::Id surface, build::Id other,
                             double nominal) const {
    build::Dimension d;
    d.part = part;
    d.name = "d" + std::to_string(b.next_id());
    d.kind = kind;
    d.surface = surface;
    d.other = other;
    d.nominal = nominal;
    return d;
  }

  build::Build b;
  build::Id part = 0; ///< what is drawn belongs to
};

} // namespace datrin::test
