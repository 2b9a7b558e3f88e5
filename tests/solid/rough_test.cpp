// The part before it is cut, against sums by hand; files out of it read back by general-purpose readers.

#include "bodies.h"

#include "solid/flat_outline.h"
#include "solid/follow.h"
#include "solid/quick_start.h"
#include "solid/rough.h"
#include "solid/step_file.h"
#include "solid/stl_file.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstring>

namespace datrin::solid_test {
namespace {

Build drawn(QuickShape shape, Id& part) {
  std::vector<double> sizes;
  for (const auto& size : quick_starts()[static_cast<std::size_t>(shape)].sizes) sizes.push_back(size.mm);
  Build build;
  const auto made = add_quick_part(build, "Part", quick_drawing(shape, sizes));
  part = made.id;
  EXPECT_TRUE(build.apply(made.edit));
  return build;
}

TEST(Rough, ABlockStandsOutBySoMuchOnEveryFace) {
  Id part = 0;
  const auto build = drawn(QuickShape::plain_block, part);
  const auto rough = make_solid(rough_bodies(build, part), {.mesh = false});
  ASSERT_EQ(rough.message, "");
  EXPECT_NEAR(rough.volume, 61.6 * 41.6 * 31.6, 1e-6); // 0.8 on each of six faces
  EXPECT_NEAR(rough.box.low.z(), -0.8, 1e-6);
}

TEST(Rough, AFlangeHasNoBoltHolesYetAndASmallerBore) {
  Id part = 0;
  const auto build = drawn(QuickShape::flange, part);
  const auto rough = make_solid(rough_bodies(build, part), {.mesh = false});
  ASSERT_EQ(rough.message, "");
  // 50 across as cast, 8 thick with 0.8 on both faces, the bore 20 less 1 a side.
  EXPECT_NEAR(rough.volume, pi / 4 * (50 * 50 - 18 * 18) * 9.6, 1e-6);
}

TEST(Rough, ASmallCoredHoleIsNotCored) {
  Id part = 0;
  auto build = drawn(QuickShape::flange, part);
  for (const auto& [id, d] : build.dimensions_of(part))
    if (d.name == "bore") {
      auto changed = d;
      changed.nominal = 1.5;
      ASSERT_TRUE(build.apply(followed(build, replace(build, id, changed, "Bore"))));
      break;
    }
  const auto rough = make_solid(rough_bodies(build, part), {.mesh = false});
  EXPECT_NEAR(rough.volume, pi / 4 * 50 * 50 * 9.6, 1e-6);
}

/// Layout of a binary STL: 80 bytes, a count, 50 bytes a triangle.
TEST(Stl, ThePatternIsLargerByTheShrinkage) {
  Id part = 0;
  const auto build = drawn(QuickShape::plain_block, part);
  const auto solid = make_solid(place_bodies(build, part));
  const auto bytes = stl_bytes(solid, 1.01);
  std::uint32_t count = 0;
  std::memcpy(&count, bytes.data() + 80, 4);
  ASSERT_EQ(count, 12U);
  ASSERT_EQ(bytes.size(), 84U + 50U * 12U);
  double volume = 0;
  for (std::size_t t = 0; t < count; ++t) {
    float v[12];
    std::memcpy(v, bytes.data() + 84 + 50 * t, sizeof(v));
    const Vec3 a(v[3], v[4], v[5]), b(v[6], v[7], v[8]), c(v[9], v[10], v[11]);
    volume += a.dot(b.cross(c)) / 6;
  }
  EXPECT_NEAR(volume, 60 * 40 * 30 * std::pow(1.01, 3), 0.5);
}

TEST(Outline, OfAFlangeIsThreeKindsOfCircle) {
  Id part = 0;
  const auto build = drawn(QuickShape::flange, part);
  const auto solid = make_solid(place_bodies(build, part));
  for (std::size_t k = 0; k < solid.faces.size(); ++k) {
    const auto& face = solid.faces[k];
    const auto outline = flat_outline(solid, k);
    if (face.kind != FaceKind::plane) {
      EXPECT_EQ(outline.message, "only a flat face has an outline of its own");
      continue;
    }
    ASSERT_EQ(outline.curves.size(), 8U);
    double area = 0;
    for (const auto& curve : outline.curves) {
      ASSERT_EQ(curve.kind, FlatCurve::Kind::circle);
      const double disc = pi * curve.radius * curve.radius;
      area += curve.radius > 20 ? disc : -disc;
    }
    EXPECT_NEAR(area, face.area, 1e-6);
  }
}

TEST(Outline, OfARoundedPlateHasItsArcsTheRightWayRound) {
  Bodies b;
  b.add("plate", BodyShape::block,
        {{BodyRole::length, 60}, {BodyRole::width, 40}, {BodyRole::height, 5}, {BodyRole::corner, 8}});
  const auto solid = b.made();
  for (std::size_t k = 0; k < solid.faces.size(); ++k) {
    if (solid.faces[k].kind != FaceKind::plane || std::abs(solid.faces[k].shape.direction.z()) < 0.5)
      continue;
    const auto outline = flat_outline(solid, k);
    int arcs = 0;
    for (const auto& curve : outline.curves) {
      if (curve.kind != FlatCurve::Kind::arc) continue;
      ++arcs;
      double sweep = curve.to - curve.from;
      if (sweep < 0) sweep += 2 * pi;
      EXPECT_NEAR(sweep, pi / 2, 1e-9);
      // Its middle is further from the plate's middle than its centre: the corner is rounded outwards.
      const double middle = curve.from + sweep / 2;
      const Vec2 at = curve.centre + curve.radius * Vec2(std::cos(middle), std::sin(middle));
      EXPECT_GT(at.norm(), curve.centre.norm());
    }
    EXPECT_EQ(arcs, 4);
  }
}

TEST(StepFiles, SeveralPartsAreSeveralProductsAndOneCanBeTaken) {
  Id part = 0;
  const auto build = drawn(QuickShape::plain_block, part);
  const auto block = make_solid(place_bodies(build, part), {.mesh = false});
  const auto flange_build = drawn(QuickShape::flange, part);
  const auto flange = make_solid(place_bodies(flange_build, part), {.mesh = false});
  const auto path = testing::TempDir() + "/datrin-two.step";
  ASSERT_EQ(write_step({{"Block", &block}, {"Flange", &flange}}, path), "");
  const auto both = read_step(path, {.solid = {.mesh = false}});
  ASSERT_TRUE(both.ok()) << both.message;
  EXPECT_EQ(both.solids, 2);
  EXPECT_NEAR(both.solid.volume, 72000 + flange.volume, 1e-6);
  EXPECT_NEAR(read_step(path, {.only = 2, .solid = {.mesh = false}}).solid.volume, flange.volume, 1e-6);
  EXPECT_EQ(read_step(path, {.only = 3}).message, path + ": there are 2 solids in it, no number 3");
}

TEST(StepFiles, WhatIsImportedIsABodyLikeAnother) {
  Id part = 0;
  const auto build = drawn(QuickShape::plain_block, part);
  const auto block = make_solid(place_bodies(build, part), {.mesh = false});
  Bodies b;
  b.add("imported", BodyShape::imported, {{BodyRole::length, 60}}).step = step_text(block, "Block");
  auto& hole = b.add("hole", BodyShape::hole, {{BodyRole::diameter, 10}, {BodyRole::off, 30}});
  hole.through = true;
  const auto solid = b.made();
  ASSERT_EQ(solid.message, "");
  EXPECT_NEAR(solid.volume, 72000 - pi * 25 * 30, 1e-6);
  b.add("rubbish", BodyShape::imported, {}).step = "no STEP file at all";
  const auto without = b.made();
  EXPECT_EQ(without.status, SolidStatus::partly);
  EXPECT_NEAR(without.volume, solid.volume, 1e-9);
}

} // namespace
} // namespace datrin::solid_test
