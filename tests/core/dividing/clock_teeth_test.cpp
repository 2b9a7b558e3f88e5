// Cycloidal teeth: the tip found again on the curve itself, drawn point by point.

#include "dividing/clock_teeth.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>
#include <utility>

using namespace datrin;
using namespace datrin::dividing;

namespace {

/// Where the epicycloid from one flank comes to the middle of the tooth: rolled in small steps, in modules.
double drawn_point(int wheel, int pinion) {
  const double pitch = wheel / 2.0, rolling = pinion / 4.0, half_tooth = pi / (2 * wheel);
  for (double roll = 0; roll < 3; roll += 1e-5) { // angle of the rolling circle
    const double on_pitch = roll * rolling / pitch;
    const double x = (pitch + rolling) * std::cos(on_pitch) - rolling * std::cos(on_pitch + roll);
    const double y = (pitch + rolling) * std::sin(on_pitch) - rolling * std::sin(on_pitch + roll);
    if (std::atan2(y, x) >= half_tooth) return std::hypot(x, y) - pitch;
  }
  return 0;
}

} // namespace

TEST(ClockTeeth, TheTipIsWhereTheCurvesMeet) {
  for (const auto& [wheel, pinion] : {std::pair{60, 8}, std::pair{64, 8}, std::pair{96, 12},
                                      std::pair{75, 10}, std::pair{30, 6}, std::pair{80, 16}}) {
    const auto found = clock_teeth({wheel, pinion, 1});
    ASSERT_TRUE(found.usable());
    EXPECT_NEAR(found.point, drawn_point(wheel, pinion), 1e-3) << wheel << " into " << pinion;
    EXPECT_NEAR(found.addendum, 0.95 * found.point, 1e-12);
    EXPECT_GT(found.addendum, 1.0); // higher than an involute tooth, as clock wheels are (common practice)
    EXPECT_LT(found.addendum, 2.0);
  }
}

TEST(ClockTeeth, BlanksFollowTheModule) {
  const auto one = clock_teeth({60, 8, 1}), half = clock_teeth({60, 8, 0.5});
  EXPECT_NEAR(half.wheel_outside, one.wheel_outside / 2, 1e-12);
  EXPECT_NEAR(one.centres, 34, 1e-12);
  EXPECT_NEAR(one.wheel_outside - one.wheel_root, 2 * one.wheel_depth, 1e-12);
  // Neither tip touches the bottom between the other's.
  EXPECT_GT(one.centres - one.wheel_outside / 2 - one.pinion_root / 2, 0.3);
  EXPECT_GT(one.centres - one.pinion_outside / 2 - one.wheel_root / 2, 0.3);
}

TEST(ClockTeeth, WhatIsNoPairIsRefused) {
  EXPECT_FALSE(clock_teeth({8, 60, 1}).usable());
  EXPECT_FALSE(clock_teeth({60, 3, 1}).usable());
  EXPECT_FALSE(clock_teeth({60, 8, 0}).usable());
  EXPECT_FALSE(clock_teeth({500, 8, 1}).usable());
}
