// Datums from touches, worked by hand. Common practice: a touch is half the finder off, 1.62 wide is halved
// at 0.81, a burr alone is 20 to 30 thou.

#include "steps/zeroing.h"

#include <gtest/gtest.h>

#include <cmath>
#include <limits>

using namespace datrin::steps;

TEST(Zeroing, AFaceIsHalfTheFinderFurtherOn) {
  ZeroInput in;
  in.touches = {10.00};
  in.towards = 1;
  in.finder = 6;
  EXPECT_EQ(find_zero(in).status, ZeroStatus::not_enough);
  in.touches = {10.00, 10.01};
  EXPECT_NEAR(find_zero(in).shows, 13.005, 1e-12);
  in.towards = -1; // came down the scale
  EXPECT_NEAR(find_zero(in).shows, 7.005, 1e-12);
}

TEST(Zeroing, TouchesThatDoNotAgreeAreNoZero) {
  ZeroInput in;
  in.finder = 6;
  in.touches = {0, 25 * 0.0254}; // 25 thou
  EXPECT_EQ(find_zero(in).status, ZeroStatus::apart);
  EXPECT_NEAR(find_zero(in).apart, 0.635, 1e-12);
  in.touches.push_back(0.64);
  EXPECT_TRUE(find_zero(in).found());
  // As far apart as the read-out's last figure lets them be.
  in.touches = {0, 0.05};
  in.resolution = 0.05;
  EXPECT_TRUE(find_zero(in).found());
  in.resolution = 0.01;
  EXPECT_FALSE(find_zero(in).found());
}

// 1.62 in over both touches with the finder taken off: the middle at 0.81; in a gap the finder is put on:
// touches 5.2 apart with 6 across are a gap of 11.2, its middle at 2.6 (common practice).
TEST(Zeroing, AMiddleIsHalfWay) {
  ZeroInput in;
  in.both_sides = true;
  in.touches = {0};
  EXPECT_EQ(find_zero(in).status, ZeroStatus::not_enough);
  in.other = {1.62};
  EXPECT_NEAR(find_zero(in).shows, 0.81, 1e-12);
  in.finder = 6;
  in.other = {5.2};
  in.inside = true;
  EXPECT_NEAR(find_zero(in).shows, 2.6, 1e-12);
  EXPECT_NEAR(find_zero(in).across, 11.2, 1e-12);
  in.inside = false;
  EXPECT_EQ(find_zero(in).status, ZeroStatus::refused); // outside, 5.2 apart cannot be
}

TEST(Zeroing, ItKnowsHowSureItIs) {
  ZeroInput in;
  in.touches = {0, 0.01};
  in.resolution = 0;
  EXPECT_NEAR(find_zero(in).uncertainty, 0.01, 1e-12); // twice half of what they are apart
  in.touches = {0, 0};
  in.resolution = 0.01;
  EXPECT_NEAR(find_zero(in).uncertainty, 2 * 0.01 / std::sqrt(12),
              1e-12); // of a last figure, as for any rounding
}

TEST(Zeroing, WhatIsNoNumberIsRefused) {
  ZeroInput in;
  in.touches = {0, std::numeric_limits<double>::quiet_NaN()};
  EXPECT_EQ(find_zero(in).status, ZeroStatus::refused);
  in.touches = {0, 0};
  in.finder = -1;
  EXPECT_EQ(find_zero(in).status, ZeroStatus::refused);
}
