#include "drawing/restate.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::drawing;

// Common practice: over a pin in a 21/64 in hole, 27.167 − 8.334 / 2 = 23.000 mm; a pin of 8.19 in it leaves
// ±0.072, more than limits of ±0.057.
TEST(Restate, OverAPinBothWaysAndWhetherItDecides) {
  RestateInput in;
  in.nominal = 23;
  in.pin = 8.334;
  const auto tight = restate(in);
  ASSERT_TRUE(tight.usable());
  EXPECT_NEAR(tight.reading, 27.167, 5e-4);
  EXPECT_NEAR(tight.value_of(27.167), 23.000, 5e-4);
  EXPECT_NEAR(tight.sum.total(), tight.reading, 1e-12);

  in.pin = 8.19;
  in.hole = 8.334;
  in.lower = -0.057;
  in.upper = 0.057;
  const auto loose = restate(in);
  EXPECT_NEAR(loose.band, 0.072, 1e-9);
  EXPECT_EQ(loose.decides, CanDecide::no);
  EXPECT_TRUE(
      loose.verdict.starts_with("Cannot decide: the reading leaves \u00B10.072, the limits are \u00B10.057"));
  EXPECT_GT(loose.sure_least, loose.sure_most);

  in.pin = 8.32;
  const auto closer = restate(in);
  EXPECT_EQ(closer.decides, CanDecide::yes) << closer.verdict;
  in.pin = 8.28;
  EXPECT_EQ(restate(in).decides, CanDecide::partly);
}

// Common practice: the stop above a 3/32 pin for a 3/16 width stands at 3/64, 0.046875 in.
TEST(Restate, InsideAPin) {
  RestateInput in;
  in.how = Restated::inside_pin;
  in.nominal = 3.0 / 32 * 25.4;
  in.pin = 3.0 / 32 * 25.4;
  EXPECT_NEAR(restate(in).reading / 25.4, 0.046875, 1e-9);
}

TEST(Restate, TwoPinsAndAWeb) {
  RestateInput in;
  in.how = Restated::over_two_pins;
  in.nominal = 30;
  in.pin = 6;
  in.pin_2 = 8;
  EXPECT_DOUBLE_EQ(restate(in).reading, 37);
  in.how = Restated::between_two_pins;
  EXPECT_DOUBLE_EQ(restate(in).reading, 23);
  in.how = Restated::from_edge;
  EXPECT_DOUBLE_EQ(restate(in).reading, 27);
}

// The ball's contact, worked out the other way: the centre is r from the cone's side.
TEST(Restate, ABallInAConeTouchesItsSide) {
  RestateInput in;
  in.how = Restated::ball_in_cone;
  in.nominal = 20;
  in.pin = 16;
  in.half_angle = radians(30);
  const auto r = restate(in);
  ASSERT_TRUE(r.usable()) << r.message;
  const double centre_over_mouth = r.reading - 8, mouth_over_tip = 10 / std::tan(in.half_angle);
  EXPECT_NEAR((centre_over_mouth + mouth_over_tip) * std::sin(in.half_angle), 8, 1e-12);
  EXPECT_NEAR(r.value_of(r.reading), 20, 1e-12);
  in.pin = 60;
  EXPECT_EQ(restate(in).message, "the ball is too large: it rests on the edge of the mouth");
}

TEST(Restate, NonsenseIsRefused) {
  RestateInput in;
  in.nominal = 23;
  EXPECT_EQ(restate(in).message, "the pin's diameter must be above 0");
  in.pin = 9;
  in.hole = 8;
  EXPECT_EQ(restate(in).message, "the pin is larger than the hole it stands in");
  in.hole = 0;
  in.lower = 1;
  EXPECT_EQ(restate(in).message, "the lower limit is above the upper");
  in.lower = std::nan("");
  EXPECT_EQ(restate(in).status, RestateStatus::refused);
}
