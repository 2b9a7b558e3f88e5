#pragma once
// One part drawn record by record: what tests of drawings, castings, metal and chains stand on. Names and
// sizes that do not matter are given; what does is set on the record by the test.

#include "build/build.h"
#include "build/edits.h"

#include <gtest/gtest.h>

#include <string>
#include <utility>
#include <vector>

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

  /// A distance of `part` held to ± 0.05, kept.
  build::Id limited(const char* name, build::Id from, build::Id to, double nominal) {
    auto d = dimension(build::DimensionKind::distance, from, to, nominal);
    d.name = name;
    d.lower = -0.05, d.upper = 0.05;
    d.tolerance = "typed";
    return make(d);
  }

  /// A setup of `part` that stands on `datums` and cuts `cuts`.
  build::Id setup(const char* name, std::vector<build::Id> datums, std::vector<build::Id> cuts,
                  double order) {
    build::Setup s;
    s.part = part;
    s.name = name;
    s.datums = std::move(datums);
    s.cuts = std::move(cuts);
    s.order = order;
    return make(s);
  }

  /// A solid plate, 10 thick on the plane z = 0, its middle over the origin.
  build::Id plate_solid(double length, double width) {
    build::Body block;
    block.part = part;
    block.name = "plate";
    block.shape = build::BodyShape::block;
    block.sizes = {{build::BodyRole::length, 0, length},
                   {build::BodyRole::width, 0, width},
                   {build::BodyRole::height, 0, 10}};
    return make(block);
  }

  /// Two holes through it, in a row along its length; not kept.
  build::Body two_holes(build::Id plate, double diameter, double pitch) const {
    build::Body hole;
    hole.part = part;
    hole.name = "holes";
    hole.shape = build::BodyShape::hole;
    hole.cut = true;
    hole.on = plate;
    hole.face = build::BodyFace::top;
    hole.through = true;
    hole.pattern = build::BodyPattern::row;
    hole.count = 2;
    hole.sizes = {{build::BodyRole::diameter, 0, diameter}, {build::BodyRole::pitch, 0, pitch}};
    return hole;
  }

  build::Build b;
  build::Id part = 0; ///< what is drawn belongs to
};

} // namespace datrin::test
