// Walls of a casting as it lies: a plate with a bore, touched where it stays as cast.

#include "bodies.h"

#include "solid/seated_wall.h"

#include <gtest/gtest.h>

namespace datrin::solid_test {
namespace {

using R = BodyRole;
using S = BodyShape;

/// 60 × 40 × 30, bored 20 along y at mid-height: 5 mm of metal over the bore and under it.
Solid bored() {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  auto& bore = b.add("bore", S::hole, {{R::diameter, 20}}, Bodies::id(0), BodyFace::front);
  bore.through = true;
  return b.made({.deflection = 0.001, .angular_deflection = 0.02});
}

TEST(SeatedWall, IsTheDrawnOneAndWhatTheTouchStandsOut) {
  const auto solid = bored();
  const auto wall = thinnest_seated(solid, {{{0, 0, 30.8}, Vec3::UnitZ()}});
  ASSERT_EQ(wall.touch, 0);
  EXPECT_NEAR(wall.drawn, 5, 1e-6);
  EXPECT_NEAR(wall.over, 0.8, 1e-6);
  EXPECT_NEAR(wall.thick, 5.8, 1e-6);
  EXPECT_EQ(solid.faces[wall.behind].kind, FaceKind::bore);
}

TEST(SeatedWall, ShortOfMetalItIsThinner) {
  const auto wall = thinnest_seated(
      bored(),
      {{{0, 0, 30.8}, Vec3::UnitZ()}, {{0, 5, -1.2}, -Vec3::UnitZ()}, {{0, 5, 1.2}, -Vec3::UnitZ()}});
  EXPECT_EQ(wall.touch, 2);
  EXPECT_NEAR(wall.thick, 3.8, 1e-6);
  EXPECT_NEAR(wall.over, -1.2, 1e-6);
}

TEST(SeatedWall, AwayFromTheBoreItIsTheWholeBlockAndSkewedItIsACorner) {
  const auto whole = thinnest_seated(bored(), {{{25, 0, 31}, Vec3::UnitZ()}});
  EXPECT_NEAR(whole.thick, 31, 1e-6);
  // Meeting the bore at its edge it is no wall: 9.8 off the axis the normal leans 78°.
  EXPECT_EQ(thinnest_seated(bored(), {{{9.8, 0, 30}, Vec3::UnitZ()}}).touch, -1);
  EXPECT_EQ(thinnest_seated(bored(), {{{0, 0, 60}, Vec3::UnitZ()}}).touch, -1); // of something else
  EXPECT_EQ(thinnest_seated(bored(), {}).touch, -1);
}

} // namespace
} // namespace datrin::solid_test
