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

// A circle of 50 about 3, 4 touched inside with a finder of 6: 22 off the middle.
TEST(Zeroing, AMiddleByPlaces) {
  RoundInput in;
  in.inside = true;
  in.finder = 6;
  in.touches = {{25, 4}, {3, 26}};
  EXPECT_EQ(find_middle(in).status, ZeroStatus::not_enough);
  in.touches.emplace_back(-19, 4);
  EXPECT_NEAR((find_middle(in).shows - datrin::Vec2(3, 4)).norm(), 0, 1e-9);
  EXPECT_NEAR(find_middle(in).across, 50, 1e-9);
  in.size = 50;
  EXPECT_NEAR(find_middle(in).uncertainty, 2 * 0.01 / std::sqrt(12), 1e-9);
  in.touches.emplace_back(3, -17.5);
  EXPECT_EQ(find_middle(in).status, ZeroStatus::apart);
  in.inside = false;
  in.finder = 60;
  EXPECT_EQ(find_middle(in).status, ZeroStatus::refused);
  in.finder = -1;
  EXPECT_EQ(find_middle(in).status, ZeroStatus::refused);
}

// Of every turn up to 45 degrees, to either side, for faces that look any of the four ways: found where it
// was put. Put there by plain rotation of the places touched.
TEST(Zeroing, ACornerIsFoundWhereverItLies) {
  const datrin::Vec2 corner(-12.5, 300.25);
  for (double degrees = -44; degrees <= 44; degrees += 4)
    for (const double sx : {-1.0, 1.0})
      for (const double sy : {-1.0, 1.0}) {
        const double turn = degrees * std::acos(-1.0) / 180;
        const auto put = [&](double x, double y) -> datrin::Vec2 {
          return corner + datrin::Vec2(std::cos(turn) * x - std::sin(turn) * y,
                                       std::sin(turn) * x + std::cos(turn) * y);
        };
        AskewInput in;
        in.finder_x = 5, in.finder_y = 8; // another was put in between
        in.sense_x = sx, in.sense_y = sy;
        in.on_x = {put(sx * 2.5, -sy * 10), put(sx * 2.5, -sy * 80)};
        in.on_y = {put(-sx * 70, sy * 4), put(-sx * 5, sy * 4)};
        const auto found = find_corner(in);
        ASSERT_TRUE(found.found()) << found.message;
        EXPECT_NEAR((found.shows - corner).norm(), 0, 1e-9);
        EXPECT_NEAR(found.turn, turn, 1e-12);
        EXPECT_NEAR(found.apart, 0, 1e-9);
      }
  AskewInput same;
  same.on_x = {datrin::Vec2(0, 5), datrin::Vec2(0, 5.5)};
  same.on_y = {datrin::Vec2(5, 0), datrin::Vec2(50, 0)};
  EXPECT_EQ(find_corner(same).status, ZeroStatus::refused);
}
