#include "casting/resting.h"

#include <Eigen/Geometry>
#include <gtest/gtest.h>

#include <algorithm>
#include <random>

using namespace datrin;
using namespace datrin::casting;

// Four legs, one short by 0.3: it stands on the two beside it and on one of the other two, and rocks by a gap
// that follows from the plane through them.
TEST(Resting, ATableWithAShortLegRocks) {
  RestingInput in;
  in.points = {{-50, -30, 0}, {50, -30, 0}, {50, 30, 0.3}, {-50, 30, 0}};
  in.centroid = {-5, -5, 40};
  const auto r = rest_on(in);
  ASSERT_TRUE(r.usable()) << r.message;
  auto on = r.stands_on;
  std::sort(on.begin(), on.end());
  EXPECT_EQ(on, (std::array{0, 1, 3}));
  EXPECT_NEAR(r.rock, 0.3, 1e-3);
  EXPECT_FALSE(r.falls);
  EXPECT_EQ(r.cure, "Soft packing 0.30\u202Fmm thick under touch 3, or an adjustable jack there brought up "
                    "until it just bites; clamp only over "
                    "the three points it stands on and over the packing.");
  // The weight on the other side of the diagonal: it stands on 1, 2, 3.
  in.centroid = {5, 5, 40};
  auto other = rest_on(in).stands_on;
  std::sort(other.begin(), other.end());
  EXPECT_EQ(other, (std::array{1, 2, 3}));
}

TEST(Resting, NothingIsUnderTheThreePointsAndTheCentroidIsOverThem) {
  std::mt19937_64 random(7);
  std::normal_distribution<double> rough(0, 0.2);
  std::uniform_real_distribution<double> even(-50, 50);
  for (int k = 0; k < 300; ++k) {
    RestingInput in;
    in.down = Vec3(0.1, -0.2, -1).normalized();
    const Vec3 u = across(in.down), v = in.down.cross(u);
    for (int i = 0; i < 5 + k % 40; ++i)
      in.points.push_back(even(random) * u + even(random) * v + rough(random) * in.down);
    in.centroid = 5 * u - 3 * v - 30 * in.down;
    const auto r = rest_on(in);
    ASSERT_TRUE(r.usable()) << r.message;
    const Vec3 &a = in.points[static_cast<std::size_t>(r.stands_on[0])],
               &b = in.points[static_cast<std::size_t>(r.stands_on[1])],
               &c = in.points[static_cast<std::size_t>(r.stands_on[2])];
    Vec3 up = (b - a).cross(c - a).normalized();
    if (up.dot(in.down) > 0) up = -up;
    for (const auto& p : in.points) EXPECT_GT(up.dot(p - a), -1e-9);
    if (r.falls) continue;
    // The foot of the centroid is inside: all three turns have one sign.
    const Vec3 foot = in.centroid - up.dot(in.centroid - a) * up;
    const double s1 = up.dot((b - a).cross(foot - a)), s2 = up.dot((c - b).cross(foot - b)),
                 s3 = up.dot((a - c).cross(foot - c));
    EXPECT_TRUE((s1 >= -1e-6 && s2 >= -1e-6 && s3 >= -1e-6) || (s1 <= 1e-6 && s2 <= 1e-6 && s3 <= 1e-6));
    for (const auto& rock : r.rocks)
      if (rock.lands >= 0) {
        EXPECT_NEAR(rock.gap, up.dot(in.points[static_cast<std::size_t>(rock.lands)] - a), 1e-9);
      }
  }
}

TEST(Resting, WhatDoesNotStand) {
  RestingInput in;
  in.points = {{0, 0, 0}, {10, 0, 0}};
  EXPECT_EQ(rest_on(in).message, "touch at least 3 places of the face, near its corners");
  in.points = {{0, 0, 0}, {10, 0, 0}, {20, 0, 0}};
  EXPECT_EQ(rest_on(in).message, "the touches lie on one line; touch near the corners of the face");
  in.points = {{0, 0, 0}, {10, 0, 0}, {0, 10, 0}};
  in.centroid = {40, 40, 20};
  const auto r = rest_on(in);
  ASSERT_TRUE(r.usable());
  EXPECT_TRUE(r.falls);
  EXPECT_TRUE(r.cure.starts_with("Its weight hangs out"));
}
