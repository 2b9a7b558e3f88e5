// Solids against closed forms: mensuration of prisms, cylinders, cones and their inertia as in any handbook
// of mechanics (formulas from memory); what a body cannot be is told by its name.

#include "bodies.h"

#include "solid/solid.h"

#include <Eigen/Geometry>
#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <set>
#include <string>

namespace datrin::solid_test {
namespace {

using R = BodyRole;
using S = BodyShape;

TEST(Solid, ABlockHasItsVolumeCentroidAndInertia) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  const auto s = b.made();
  ASSERT_EQ(s.status, SolidStatus::made) << s.message;
  EXPECT_TRUE(s.closed);
  EXPECT_EQ(s.bodies, 1);
  EXPECT_NEAR(s.volume, 72000, 72000 * 1e-12);
  EXPECT_NEAR(s.area, 2 * (60 * 40 + 60 * 30 + 40 * 30), 1e-8);
  EXPECT_LT((s.centroid - Vec3(0, 0, 15)).norm(), 1e-10);
  EXPECT_NEAR(s.inertia(0, 0), 72000.0 / 12 * (40 * 40 + 30 * 30), 1e-3);
  EXPECT_NEAR(s.inertia(2, 2), 72000.0 / 12 * (60 * 60 + 40 * 40), 1e-3);
  EXPECT_EQ(s.faces.size(), 6U);
}

TEST(Solid, ATurnedBlockHasProductsOfInertiaOfTheRightSign) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 20}, {R::height, 10}, {R::turn, pi / 6}});
  const auto s = b.made();
  const double m = 12000, along = m / 12 * (20 * 20 + 10 * 10), across = m / 12 * (60 * 60 + 10 * 10);
  Mat3 own = Vec3(along, across, m / 12 * (60 * 60 + 20 * 20)).asDiagonal();
  const Mat3 turn = Eigen::AngleAxisd(pi / 6, Vec3::UnitZ()).toRotationMatrix();
  EXPECT_LT((s.inertia - turn * own * turn.transpose()).norm(), 1e-6 * m * 3000);
}

struct Alone {
  const char* name;
  S shape;
  std::vector<std::pair<R, double>> sizes;
  double volume;
};

class EachShape : public testing::TestWithParam<Alone> {};

TEST_P(EachShape, HasTheVolumeOfTheHandbook) {
  const auto& one = GetParam();
  Bodies b;
  b.add(one.name, one.shape, one.sizes);
  const auto placed = b.placed();
  const auto s = make_solid(placed);
  ASSERT_EQ(s.status, SolidStatus::made) << s.message;
  EXPECT_TRUE(s.closed);
  EXPECT_NEAR(s.volume, one.volume, one.volume * 1e-9);
}

INSTANTIATE_TEST_SUITE_P(
    Solid, EachShape,
    testing::Values(
        Alone{"round", S::round, {{R::diameter, 20}, {R::height, 50}}, pi * 100 * 50},
        Alone{"cone",
              S::cone,
              {{R::diameter, 20}, {R::top_diameter, 10}, {R::height, 30}},
              pi * 30 / 3 * (100 + 50 + 25)},
        Alone{"pointed",
              S::cone,
              {{R::diameter, 20}, {R::top_diameter, 0}, {R::height, 30}},
              pi * 30 / 3 * 100},
        Alone{"tube", S::tube, {{R::diameter, 30}, {R::bore, 20}, {R::height, 40}}, pi*(225 - 100) * 40},
        // Hexagon: the area is √3/2 of the square of the distance across its flats.
        Alone{"hexagon", S::prism, {{R::flats, 10}, {R::height, 7}}, std::sqrt(3) / 2 * 100 * 7},
        Alone{"rib", S::rib, {{R::length, 30}, {R::height, 20}, {R::thickness, 6}}, 30 * 20 / 2 * 6},
        Alone{"plate",
              S::block,
              {{R::length, 60}, {R::width, 40}, {R::height, 5}, {R::corner, 8}},
              (60 * 40 - (4 - pi) * 64) * 5}),
    [](const auto& instance) { return std::string(instance.param.name); });

struct Cutting {
  const char* name;
  S shape;
  std::vector<std::pair<R, double>> sizes;
  HoleMouth mouth;
  bool through;
  double gone;
};

class EachCut : public testing::TestWithParam<Cutting> {};

/// Out of the top of a block 60 by 40, 20 thick.
TEST_P(EachCut, TakesAwayTheVolumeOfTheHandbook) {
  const auto& one = GetParam();
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 20}});
  auto& cut = b.add(one.name, one.shape, one.sizes, Bodies::id(0));
  cut.mouth = one.mouth;
  cut.through = one.through;
  cut.cut = true;
  const auto s = b.made();
  ASSERT_EQ(s.status, SolidStatus::made) << s.message;
  EXPECT_EQ(s.message, "");
  EXPECT_TRUE(s.closed);
  EXPECT_NEAR(48000 - s.volume, one.gone, one.gone * 1e-8);
}

INSTANTIATE_TEST_SUITE_P(
    Solid, EachCut,
    testing::Values(
        Cutting{"through", S::hole, {{R::diameter, 10}}, HoleMouth::plain, true, pi * 25 * 20},
        // A drill's point of 118° stands d/2 / tan 59° beyond the full diameter (common practice: 0.3 d).
        Cutting{"drilled",
                S::hole,
                {{R::diameter, 10}, {R::depth, 12}, {R::point_angle, 118 * pi / 180}},
                HoleMouth::plain,
                false,
                pi * 25 * 12 + pi * 25 / 3 * 5 / std::tan(59 * pi / 180)},
        Cutting{"flat", S::hole, {{R::diameter, 10}, {R::depth, 12}}, HoleMouth::plain, false, pi * 25 * 12},
        Cutting{"counterbored",
                S::hole,
                {{R::diameter, 6}, {R::mouth_diameter, 11}, {R::mouth_depth, 6}},
                HoleMouth::counterbored,
                true,
                pi * 9 * 14 + pi * 30.25 * 6},
        Cutting{"countersunk",
                S::hole,
                {{R::diameter, 6}, {R::mouth_diameter, 12}, {R::mouth_angle, pi / 2}},
                HoleMouth::countersunk,
                true,
                pi * 9 * 17 + pi * 3 / 3 * (36 + 18 + 9)},
        Cutting{"slot",
                S::slot,
                {{R::length, 30}, {R::width, 8}, {R::depth, 5}},
                HoleMouth::plain,
                false,
                (22 * 8 + pi * 16) * 5},
        Cutting{"pocket",
                S::pocket,
                {{R::length, 30}, {R::width, 20}, {R::depth, 5}, {R::corner, 3}},
                HoleMouth::plain,
                false,
                (600 - (4 - pi) * 9) * 5},
        Cutting{"socket",
                S::cone,
                {{R::diameter, 16}, {R::top_diameter, 12}, {R::height, 10}},
                HoleMouth::plain,
                false,
                pi * 10 / 3 * (64 + 48 + 36)},
        Cutting{"step",
                S::block,
                {{R::length, 60}, {R::width, 10}, {R::height, 4}},
                HoleMouth::plain,
                false,
                60 * 10 * 4}),
    [](const auto& instance) { return std::string(instance.param.name); });

TEST(Solid, FacesKnowTheirBody) {
  Bodies b;
  b.add("foot", S::block, {{R::length, 80}, {R::width, 36}, {R::height, 12}});
  auto& boss = b.add("boss", S::round, {{R::diameter, 34}, {R::height, 40}, {R::off, 28}}, Bodies::id(0));
  boss.lie = BodyLie::across;
  auto& bore = b.add("bore", S::hole, {{R::diameter, 20}}, Bodies::id(1));
  bore.through = true;
  b.add("pillar", S::block, {{R::length, 34}, {R::width, 30}, {R::height, 17}}, Bodies::id(0)).order = 0.5;
  const auto s = b.made();
  ASSERT_EQ(s.status, SolidStatus::made) << s.message;
  EXPECT_EQ(s.bodies, 1);
  std::map<Id, int> of;
  for (const auto& face : s.faces) {
    EXPECT_NE(face.body, 0) << face_kind_name(face.kind);
    EXPECT_FALSE(face.body == Bodies::id(0) && face.face == BodyFace::middle);
    ++of[face.body];
    if (face.body == Bodies::id(2)) {
      EXPECT_EQ(face.kind, FaceKind::bore);
      EXPECT_NEAR(face.shape.diameter, 20, 1e-9);
      EXPECT_LT((face.shape.point - Vec3(0, 0, 40)).norm(), 1e-6); // 12 thick, its axis 28 above that
      EXPECT_NEAR(face.height, 40, 1e-6);
    }
  }
  EXPECT_EQ(of[Bodies::id(2)], 1);
}

TEST(Solid, AnEdgeIsChamferedAndRounded) {
  for (const auto shape : {S::chamfer, S::fillet}) {
    Bodies b;
    b.add("bar", S::round, {{R::diameter, 20}, {R::height, 30}});
    b.add("edge", shape, {{R::height, 2}}, Bodies::id(0));
    const auto s = b.made();
    ASSERT_EQ(s.status, SolidStatus::made) << s.message;
    // Pappus: area of the corner taken off, times the way its centroid goes.
    const double area = shape == S::chamfer ? 2.0 : 4 - pi;
    const double centroid = shape == S::chamfer
                                ? 10 - 2.0 / 3
                                : 8 + (4 * 9.0 - pi * (8 + 8 / (3 * pi)) + pi * 8 - 4 * 8) / (4 - pi);
    EXPECT_NEAR(pi * 100 * 30 - s.volume, 2 * pi * centroid * area, 1e-4);
  }
}

TEST(Solid, WhatCannotBeMadeIsNamedAndTheRestIsThere) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  b.add("nothing", S::round, {{R::diameter, 0}, {R::height, 5}}, Bodies::id(0));
  b.add("away", S::hole, {{R::diameter, 5}, {R::depth, 5}, {R::along, 200}}, Bodies::id(0));
  b.add("apart", S::round, {{R::diameter, 5}, {R::height, 5}, {R::off, 10}}, Bodies::id(0));
  b.add("too round", S::fillet, {{R::height, 40}}, Bodies::id(0));
  auto& row = b.add("row", S::hole, {{R::diameter, 8}, {R::depth, 5}, {R::pitch, 6}}, Bodies::id(0));
  row.pattern = BodyPattern::row;
  row.count = 3;
  const auto s = b.made();
  EXPECT_EQ(s.status, SolidStatus::partly);
  std::multiset<std::string> said;
  for (const auto& p : s.problems) said.insert(p.words);
  EXPECT_EQ(said, (std::multiset<std::string>{
                      "nothing: needs a diameter above 0",
                      "away: it meets no metal: look where it is put, and whether it goes the right way",
                      "apart: it does not touch the rest of the part",
                      "too round: the edges have no room for it: make it smaller",
                      "row: its copies run into each other"}));
  EXPECT_EQ(s.bodies, 2);
  EXPECT_GT(s.volume, 71000);
}

TEST(Solid, CutInTwoAndCutAway) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  auto& slit = b.add("slit", S::block, {{R::length, 2}, {R::width, 60}, {R::height, 40}}, Bodies::id(0));
  slit.cut = true;
  auto& all = b.add("all", S::block, {{R::length, 100}, {R::width, 100}, {R::height, 40}}, Bodies::id(0));
  all.cut = true;
  const auto s = b.made();
  EXPECT_EQ(s.status, SolidStatus::partly);
  EXPECT_EQ(s.bodies, 2);
  ASSERT_EQ(s.problems.size(), 2U);
  EXPECT_EQ(s.problems[0].words, "all: it would take away all there is");
  EXPECT_EQ(s.problems[1].words, "slit: it cuts the part in two");
}

TEST(Solid, ThereIsNoMetalYet) {
  EXPECT_EQ(make_solid({}).status, SolidStatus::empty);
  Bodies b;
  b.add("hole", S::hole, {{R::diameter, 5}, {R::depth, 5}});
  EXPECT_EQ(b.made().message, "hole: there is no metal yet to take it from: put it further down the list");
}

TEST(Solid, TrianglesLieOnTheFacesAndEncloseTheVolume) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 20}});
  auto& hole = b.add("hole", S::hole, {{R::diameter, 20}}, Bodies::id(0));
  hole.through = true;
  const auto s = b.made({.deflection = 0.005, .angular_deflection = 0.05});
  double volume = 0;
  const auto at = [&](std::uint32_t k) { return Vec3(s.mesh.at[k][0], s.mesh.at[k][1], s.mesh.at[k][2]); };
  for (std::size_t t = 0; t < s.mesh.triangles.size(); ++t) {
    const auto& [i, j, k] = s.mesh.triangles[t];
    volume += at(i).dot(at(j).cross(at(k))) / 6; // the divergence theorem
    const auto& face = s.faces[s.mesh.face[t]];
    ASSERT_LT(std::abs(stock_at(face.shape, at(i))), 1e-4);
    const Vec3 normal(s.mesh.normal[i][0], s.mesh.normal[i][1], s.mesh.normal[i][2]);
    ASSERT_GT(normal.dot((at(j) - at(i)).cross(at(k) - at(i)).normalized()), 0.9);
  }
  EXPECT_NEAR(volume, s.volume, s.volume * 2e-4);
}

} // namespace
} // namespace datrin::solid_test
