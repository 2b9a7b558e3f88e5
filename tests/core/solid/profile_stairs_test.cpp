// A turned profile in stairs. Common practice: stairs of 0.010 in, rounded off after. A ball and a taper by
// plain geometry.

#include "solid/profile_stairs.h"

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::solid;

// A spindle: 20 across for 30, a shoulder, 12 for 25, then a taper of 1 in 10 a side to 8 at the end.
TEST(ProfileStairs, LengthsAndTapersAreOneStairEach) {
  ProfileStairsInput in;
  in.profile = {{0, 20}, {30, 20}, {30, 12}, {55, 12}, {75, 8}};
  const auto out = profile_stairs(in);
  ASSERT_TRUE(out.usable()) << out.message;
  ASSERT_EQ(out.stairs.size(), 3U);
  EXPECT_NEAR(out.length, 75, 1e-12);
  EXPECT_NEAR(out.stairs[0].diameter, 20, 1e-12); // the deepest first
  EXPECT_NEAR(out.stairs[0].from, 45, 1e-12);
  EXPECT_NEAR(out.stairs[0].to, 75, 1e-12);
  EXPECT_NEAR(out.stairs[1].to, 45, 1e-12);
  EXPECT_NEAR(std::tan(out.stairs[2].half_angle), 0.1, 1e-12);
  EXPECT_NEAR(out.stairs[2].diameter_from, 8, 1e-12);
  EXPECT_NEAR(out.stairs[2].diameter, 12, 1e-12);
  in.from_last = false; // from the other end it narrows with depth
  EXPECT_NEAR(std::tan(profile_stairs(in).stairs[0].half_angle), -0.1, 1e-12);
}

// A ball of 30 on a stem, and a hollow of 8: none of the stairs cuts into the arc, none stands more over it
// than it may.
TEST(ProfileStairs, ArcsAreNeverCutInto) {
  struct Tried {
    std::vector<ProfilePoint> profile;
    Vec2 centre;
    double r;
    bool hollow;
  };
  const double at = std::sqrt(15.0 * 15 - 5 * 5);
  for (const auto& t : {Tried{{{0, 10}, {20, 10}, {20 + 2 * at, 10, 15}}, {0, 20 + at}, 15, false},
                        Tried{{{0, 30}, {10, 30}, {18, 14, -8}, {30, 14}}, {15, 18}, 8, true}}) {
    ProfileStairsInput in;
    in.profile = t.profile;
    const auto out = profile_stairs(in);
    ASSERT_TRUE(out.usable()) << out.message;
    int of_arc = 0;
    for (const auto& stair : out.stairs) {
      if (!stair.of_arc) continue;
      ++of_arc;
      for (int k = 0; k <= 20; ++k) {
        const double z = out.length - (stair.from + (stair.to - stair.from) * k / 20);
        const double across = std::sqrt(std::max(0.0, t.r * t.r - (z - t.centre.y()) * (z - t.centre.y())));
        const double radius = t.hollow ? t.centre.x() - across : t.centre.x() + across;
        EXPECT_GE(stair.diameter / 2, radius - 1e-9);
        EXPECT_LE(stair.diameter / 2, radius + 0.25 + 1e-9);
      }
    }
    EXPECT_GT(of_arc, 10);
    EXPECT_LE(out.proud, 0.25 + 1e-9);
  }
}

TEST(ProfileStairs, WhatIsNoProfileIsRefused) {
  EXPECT_EQ(profile_stairs({}).status, ProfileStairsStatus::refused);
  ProfileStairsInput in;
  in.profile = {{0, 20}, {30, 20}};
  ProfileStairsOptions none;
  none.proud = 0;
  EXPECT_EQ(profile_stairs(in, none).status, ProfileStairsStatus::refused);
}
