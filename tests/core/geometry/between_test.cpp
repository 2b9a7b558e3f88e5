// Distances, facing and extents, each against what is seen from a drawing.

#include "geometry/between.h"
#include "geometry/patch.h"
#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;

namespace {

Surface plane(const Vec3& at, const Vec3& faces) {
  return {SurfaceKind::plane, at, faces.normalized(), 0};
}
Surface bore(const Vec3& at, const Vec3& axis, double diameter) {
  return {SurfaceKind::bore, at, axis.normalized(), diameter};
}

/// A block 60 × 40 × 30 standing on z = 0 with an upright hole, no extents stated.
std::vector<Patch> block() {
  return {{plane({0, 0, 0}, -Vec3::UnitZ())},    {plane({0, 0, 30}, Vec3::UnitZ())},
          {plane({-30, 0, 15}, -Vec3::UnitX())}, {plane({30, 0, 15}, Vec3::UnitX())},
          {plane({0, -20, 15}, -Vec3::UnitY())}, {plane({0, 20, 15}, Vec3::UnitY())},
          {bore({0, 0, 15}, Vec3::UnitZ(), 16)}};
}

} // namespace

TEST(Between, PlanesAxesAndPlanesWithAxes) {
  const auto left = plane({0, 5, 0}, -Vec3::UnitX()), right = plane({30, -2, 7}, Vec3::UnitX());
  ASSERT_TRUE(between(left, right));
  EXPECT_NEAR(between(left, right)->signed_distance, 30, 1e-12);
  EXPECT_NEAR(between(right, left)->signed_distance, -30, 1e-12);
  EXPECT_FALSE(between(left, plane({0, 0, 0}, Vec3::UnitY())));
  const auto a = bore({0, 0, 0}, Vec3::UnitZ(), 8), c = bore({30, 40, 5}, Vec3::UnitZ(), 6);
  ASSERT_TRUE(between(a, c));
  EXPECT_NEAR(std::abs(between(a, c)->signed_distance), 50, 1e-12); // 3, 4, 5
  EXPECT_FALSE(between(a, bore({0, 0, 9}, Vec3::UnitZ(), 6)));      // one axis
  EXPECT_FALSE(between(a, bore({30, 0, 9}, Vec3::UnitX(), 6)));
  ASSERT_TRUE(between(left, a)); // the axis runs along the plane
  EXPECT_NEAR(std::abs(between(left, c)->signed_distance), 30, 1e-12);
  EXPECT_FALSE(between(plane({0, 0, 0}, Vec3::UnitZ()), a));
}

// By hand: holes 50 apart at (30, 40): 1 mm of their distance is 0.6 along x.
TEST(Between, WhatADistanceIsAlongAWay) {
  const auto a = bore({0, 0, 0}, Vec3::UnitZ(), 8), c = bore({30, 40, 0}, Vec3::UnitZ(), 6);
  EXPECT_NEAR(along_per_distance(a, c, Vec3::UnitX()), 0.6, 1e-12);
  EXPECT_NEAR(along_per_distance(a, c, Vec3::UnitY()), 0.8, 1e-12);
  EXPECT_EQ(along_per_distance(a, c, Vec3::UnitZ()), 0);
}

TEST(Between, FacingAndLying) {
  const auto top = plane({0, 0, 30}, Vec3::UnitZ());
  EXPECT_TRUE(faces(top, Vec3::UnitZ(), 0.9));
  EXPECT_FALSE(faces(top, -Vec3::UnitZ(), 0.9));
  EXPECT_FALSE(faces(bore({0, 0, 0}, Vec3::UnitZ(), 8), Vec3::UnitZ(), 0.1));
  EXPECT_TRUE(lies_level(top, -Vec3::UnitZ(), 1e-6));
  EXPECT_FALSE(lies_level(top, Vec3::UnitX(), 1e-6));
  const auto across_hole = bore({0, 0, 15}, Vec3::UnitY(), 8);
  EXPECT_TRUE(lies_level(across_hole, Vec3::UnitZ(), 1e-6));
  EXPECT_FALSE(lies_level(across_hole, Vec3::UnitY(), 1e-6));
  EXPECT_TRUE(places_along(across_hole, Vec3::UnitZ()));
  EXPECT_TRUE(places_along(across_hole, -Vec3::UnitZ()));
  EXPECT_TRUE(places_along(top, Vec3::UnitZ()) != places_along(top, -Vec3::UnitZ()));
  EXPECT_FALSE(has_centre_line(SurfaceKind::plane));
  for (const auto kind :
       {SurfaceKind::bore, SurfaceKind::boss, SurfaceKind::taper_bore, SurfaceKind::taper_shank})
    EXPECT_TRUE(has_centre_line(kind));
}

// Six planes without sizes cut each other off to a block, the hole goes from face to face.
TEST(Patch, ExtentsAreFilledInFromWhatCrosses) {
  const auto whole = with_extents(block());
  ASSERT_EQ(whole.size(), 7U);
  EXPECT_NEAR(whole[0].width * whole[0].height, 60 * 40, 1e-6);
  EXPECT_NEAR(whole[2].width * whole[2].height, 40 * 30, 1e-6);
  EXPECT_NEAR(whole[4].width * whole[4].height, 60 * 30, 1e-6);
  EXPECT_NEAR(whole[6].height, 30, 1e-6);
  const auto box = box_of(whole);
  EXPECT_NEAR((box.low - Vec3(-30, -20, 0)).norm(), 0, 1e-6);
  EXPECT_NEAR((box.high - Vec3(30, 20, 30)).norm(), 0, 1e-6);
  EXPECT_EQ(Box().size(), Vec3::Zero());
  EXPECT_NEAR(seen_area(whole[6]), 16 * 30, 1e-6);
}

TEST(Patch, StatedExtentsStay) {
  auto some = block();
  some[1].width = 20;
  some[1].height = 10;
  const auto whole = with_extents(some);
  EXPECT_EQ(whole[1].width, 20);
  EXPECT_EQ(whole[1].height, 10);
}

TEST(Patch, CornersGoRoundAndReachTellsInside) {
  const auto whole = with_extents(block());
  const auto four = corners(whole[1]);
  ASSERT_EQ(four.size(), 4U);
  for (std::size_t k = 0; k < 4; ++k) {
    const double side = (four[(k + 1) % 4] - four[k]).norm();
    EXPECT_TRUE(std::abs(side - 60) < 1e-6 || std::abs(side - 40) < 1e-6) << side;
    EXPECT_NEAR(four[k].z(), 30, 1e-9);
  }
  EXPECT_TRUE(reaches(whole[1], {29, 19, 33}));
  EXPECT_FALSE(reaches(whole[1], {29, 19, 33}, 2));
  EXPECT_FALSE(reaches(whole[1], {31, 0, 30}));
  EXPECT_NEAR(beyond_edge(whole[1], {33, 0, 30}), 3, 1e-9);
  EXPECT_EQ(beyond_edge(whole[1], {3, 0, 30}), 0);
  EXPECT_TRUE(reaches(whole[6], {8, 0, 29}));
  EXPECT_FALSE(reaches(whole[6], {8, 0, 31}));
  EXPECT_EQ(largest_radius(whole[1]), 0);
  EXPECT_EQ(largest_radius(whole[6]), 8);
}

// By hand: a taper of 1 in 10 on a socket 40 long is 2 mm more across at each end than in the middle.
TEST(Patch, ATaperIsWidestAtItsEnd) {
  Patch socket{{SurfaceKind::taper_bore, {0, 0, 20}, Vec3::UnitZ(), 20, std::atan(0.05)}, 0, 40};
  EXPECT_NEAR(largest_radius(socket), 10 + 20 * 0.05, 1e-12);
}

// What is worked out once for many places says what the surface unrolled says of each.
TEST(Patch, EdgesAgreeWithTheSurfaceUnrolled) {
  const Patch patches[] = {
      {plane({1, 2, 3}, {1, 2, 2}), 30, 20},
      {bore({1, 2, 3}, {0, 1, 1}, 12), 0, 25},
      {{SurfaceKind::taper_shank, {1, 2, 3}, Vec3(1, 1, 0).normalized(), 12, 0.2}, 0, 25},
      {plane({0, 0, 0}, Vec3::UnitZ()), 0, 0}};
  for (const auto& patch : patches) {
    const Chart chart(patch.shape);
    const Edges edges(patch);
    for (int k = 0; k < 60; ++k) {
      const Vec3 at(20 * std::sin(1.3 * k), 25 * std::cos(2.1 * k), 18 * std::sin(0.7 * k + 1));
      const Vec2 c = chart.coordinates(at);
      const double tall = patch.height > 0 ? std::abs(c.y()) - patch.height / 2 : 0;
      const double wide = patch.width > 0 ? std::abs(c.x()) - patch.width / 2 : 0;
      EXPECT_NEAR(edges.beyond(at), std::max({0.0, tall, wide}), 1e-9) << surface_kind_name(patch.shape.kind);
    }
  }
}
