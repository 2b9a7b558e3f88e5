// Where bodies lie: on a face, from its edges, turned, and in patterns.

#include "bodies.h"

#include <Eigen/LU>
#include <gtest/gtest.h>

#include <cmath>

namespace datrin::solid_test {
namespace {

using R = BodyRole;
using S = BodyShape;

class Place : public testing::Test {
protected:
  Place() { b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}}); }

  Body& hole(BodyFace face, double along = 0, double across = 0) {
    return b.add("hole", S::hole, {{R::diameter, 6}, {R::depth, 5}, {R::along, along}, {R::across, across}},
                 Bodies::id(0), face);
  }
  std::vector<Vec3> mouths(std::size_t body = 1) {
    std::vector<Vec3> at;
    const auto placed = b.placed();
    for (const auto& pose : placed[body].copies) at.push_back(pose.translation);
    return at;
  }
  Bodies b;
};

TEST_F(Place, RightAndUpAreAsOneSeesTheFaceFromOutside) {
  hole(BodyFace::top, 5, 3);
  hole(BodyFace::bottom, 5, 3);
  hole(BodyFace::front, 5, 3);
  hole(BodyFace::back, 5, 3);
  hole(BodyFace::left, 5, 3);
  hole(BodyFace::right, 5, 3);
  const auto placed = b.placed();
  const Vec3 expected[] = {{5, 3, 30}, {5, -3, 0}, {5, -20, 18}, {-5, 20, 18}, {-30, -5, 18}, {30, 5, 18}};
  const Vec3 out[] = {{0, 0, 1}, {0, 0, -1}, {0, -1, 0}, {0, 1, 0}, {-1, 0, 0}, {1, 0, 0}};
  for (std::size_t k = 0; k < 6; ++k) {
    EXPECT_LT((placed[k + 1].copies[0].translation - expected[k]).norm(), 1e-12) << k;
    EXPECT_LT((placed[k + 1].copies[0].turn(Vec3::UnitZ()) - out[k]).norm(), 1e-12) << k;
  }
}

TEST_F(Place, FromAnEdgeToTheMiddleOrFlush) {
  auto& a = hole(BodyFace::top, 10, 8);
  a.from_along = PlaceFrom::low_edge;
  a.from_across = PlaceFrom::high_edge;
  auto& boss =
      b.add("boss", S::block, {{R::length, 12}, {R::width, 8}, {R::height, 5}, {R::along, 0}, {R::across, 2}},
            Bodies::id(0));
  boss.from_along = PlaceFrom::high_to_edge;
  boss.from_across = PlaceFrom::low_to_edge;
  EXPECT_LT((mouths(1)[0] - Vec3(-20, 12, 30)).norm(), 1e-12);
  EXPECT_LT((mouths(2)[0] - Vec3(30 - 6, -20 + 2 + 4, 30)).norm(), 1e-12);
}

TEST_F(Place, ARowBeginsAtItsPlaceWhenThatIsCountedFromAnEdge) {
  auto& row = hole(BodyFace::top, 10);
  row.pattern = BodyPattern::row;
  row.count = 3;
  row.set_size({R::pitch, 0, 12});
  EXPECT_LT((mouths()[0] - Vec3(10 - 12, 0, 30)).norm(), 1e-12);
  row.from_along = PlaceFrom::low_edge;
  EXPECT_LT((mouths()[0] - Vec3(-20, 0, 30)).norm(), 1e-12);
  EXPECT_LT((mouths()[2] - Vec3(4, 0, 30)).norm(), 1e-12);
  row.from_along = PlaceFrom::high_edge;
  EXPECT_LT((mouths()[2] - Vec3(20 - 24, 0, 30)).norm(), 1e-12);
}

TEST_F(Place, AGridAndAPairAndAMirroredOne) {
  auto& grid = hole(BodyFace::top);
  grid.pattern = BodyPattern::grid;
  grid.count = 2;
  grid.count_across = 2;
  grid.set_size({R::pitch, 0, 40});
  grid.set_size({R::pitch_across, 0, 20});
  auto& pair = hole(BodyFace::front, 0, 4);
  pair.pattern = BodyPattern::pair;
  pair.set_size({R::pitch, 0, 30});
  auto& mirror = hole(BodyFace::top, 12, 5);
  mirror.pattern = BodyPattern::mirror;
  mirror.set_size({R::tilt, 0, 0.2});
  mirror.set_size({R::turn, 0, 0.3});
  ASSERT_EQ(mouths(1).size(), 4U);
  EXPECT_LT((mouths(1)[3] - Vec3(20, 10, 30)).norm(), 1e-12);
  EXPECT_LT((mouths(2)[0] - Vec3(-15, -20, 19)).norm(), 1e-12);
  EXPECT_LT((mouths(3)[1] - Vec3(-12, 5, 30)).norm(), 1e-12);
  const auto placed = b.placed()[3];
  const Vec3 one = placed.copies[0].turn(Vec3::UnitZ()), other = placed.copies[1].turn(Vec3::UnitZ());
  EXPECT_LT((other - Vec3(-one.x(), one.y(), one.z())).norm(), 1e-12);
  EXPECT_NEAR(placed.copies[1].rotation.determinant(), 1, 1e-12); // moved, not turned inside out
}

/// Coordinates of six holes on a 50 mm circle: the chord is half the circle's diameter (a hexagon).
TEST_F(Place, ABoltCircleIsEvenAndItsChordsAreThoseOfTheHandbook) {
  auto& circle = hole(BodyFace::top);
  circle.pattern = BodyPattern::circle;
  circle.count = 6;
  circle.set_size({R::circle, 0, 50});
  const auto at = mouths();
  ASSERT_EQ(at.size(), 6U);
  EXPECT_LT((at[0] - Vec3(25, 0, 30)).norm(), 1e-12);
  for (std::size_t k = 0; k < 6; ++k) EXPECT_NEAR((at[k] - at[(k + 1) % 6]).norm(), 25, 1e-12);
}

TEST_F(Place, RoundAShaftTheHolesLookAtItsAxis) {
  Bodies shaft;
  shaft.add("shaft", S::round, {{R::diameter, 20}, {R::height, 80}});
  auto& cross =
      shaft.add("cross", S::hole, {{R::diameter, 4}, {R::along, 15}}, Bodies::id(0), BodyFace::side);
  cross.through = true;
  cross.pattern = BodyPattern::circle;
  cross.count = 3;
  const auto placed = shaft.placed();
  ASSERT_EQ(placed[1].copies.size(), 3U);
  for (int k = 0; k < 3; ++k) {
    const auto& pose = placed[1].copies[static_cast<std::size_t>(k)];
    EXPECT_NEAR(pose.translation.z(), 40 + 15, 1e-12);
    EXPECT_NEAR(pose.translation.head<2>().norm(), 10, 1e-12);
    const Vec3 out = pose.turn(Vec3::UnitZ());
    EXPECT_LT((Vec3(pose.translation.x(), pose.translation.y(), 0) / 10 - out).norm(), 1e-12);
  }
}

/// A hole through a flange, a barrel and another flange is as long as all three.
TEST_F(Place, AThroughHoleIsAsLongAsTheMetalBehindIt) {
  Bodies barrel;
  auto& middle = barrel.add("barrel", S::round, {{R::diameter, 45}, {R::height, 62}, {R::off, 34}});
  middle.lie = BodyLie::along;
  barrel.add("flange A", S::round, {{R::diameter, 58}, {R::height, 10}}, Bodies::id(0), BodyFace::bottom);
  barrel.add("flange B", S::round, {{R::diameter, 58}, {R::height, 10}}, Bodies::id(0), BodyFace::top);
  barrel.add("bore", S::hole, {{R::diameter, 31}}, Bodies::id(1), BodyFace::top).through = true;
  const auto placed = barrel.placed();
  EXPECT_NEAR(placed[3].form.metal, 82, 1e-9);
  for (const auto& face : faces_of(placed[3]))
    if (face.face == BodyFace::side) {
      EXPECT_NEAR(face.width, 82, 1e-9);
      EXPECT_LT((face.shape.point - Vec3(0, 0, 34)).norm(), 1e-9);
    }
}

TEST_F(Place, WhatStandsOnACopyIsThereOnEachOfThem) {
  auto& boss = b.add("boss", S::round, {{R::diameter, 10}, {R::height, 5}, {R::pitch, 30}}, Bodies::id(0));
  boss.pattern = BodyPattern::pair;
  b.add("hole", S::hole, {{R::diameter, 4}, {R::depth, 5}}, Bodies::id(1));
  const auto at = mouths(2);
  ASSERT_EQ(at.size(), 2U);
  EXPECT_LT((at[0] - Vec3(-15, 0, 35)).norm(), 1e-12);
  EXPECT_LT((at[1] - Vec3(15, 0, 35)).norm(), 1e-12);
}

TEST_F(Place, WhatComesLaterCannotBeStoodOn) {
  b.add("early", S::round, {{R::diameter, 5}, {R::height, 5}}, Bodies::id(2));
  b.add("late", S::round, {{R::diameter, 5}, {R::height, 5}}, Bodies::id(0));
  b.add("on early", S::hole, {{R::diameter, 2}, {R::depth, 5}}, Bodies::id(1));
  b.add("no such face", S::hole, {{R::diameter, 2}, {R::depth, 5}}, Bodies::id(2), BodyFace::left);
  const auto placed = b.placed();
  EXPECT_EQ(placed[1].wrong, "what it is put on comes after it: put it further up the list");
  EXPECT_EQ(placed[3].wrong, "early, which it is put on, cannot be made");
  EXPECT_EQ(placed[4].wrong, "late has no such face any more: choose another to put it on");
}

/// The closed form of every face agrees with the face of the solid that was made, all three ways it can lie.
TEST_F(Place, FacesOfTheFormAreFacesOfTheSolid) {
  for (const auto lie : {BodyLie::up, BodyLie::along, BodyLie::across}) {
    Bodies one;
    auto& cone =
        one.add("cone", S::cone,
                {{R::diameter, 30}, {R::top_diameter, 20}, {R::height, 40}, {R::turn, 0.4}, {R::tilt, 0.3}});
    cone.lie = lie;
    const auto placed = one.placed();
    const auto solid = make_solid(placed);
    int matched = 0;
    for (const auto& face : solid.faces) matched += face.body == Bodies::id(0) ? 1 : 0;
    EXPECT_EQ(matched, 3) << static_cast<int>(lie);
    for (const auto& face : solid.faces)
      if (face.kind == FaceKind::taper_shank) {
        EXPECT_NEAR(face.shape.half_angle, std::atan2(5, 40), 1e-9);
        EXPECT_NEAR(face.shape.diameter, 25, 1e-6);
      }
  }
}

} // namespace
} // namespace datrin::solid_test
