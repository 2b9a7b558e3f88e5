// A jaw on a drafted face: right-angled triangles.

#include "casting/jaw_hold.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::casting;

TEST(JawHold, PackingBearsUntilTheGapIsWiderThanItGives) {
  // 1 in 40, as patterns are often drawn (common practice: 1 to 2 degrees): 30 mm gap 0.75; 0.25 of card
  // bears 10.
  const double draft = std::atan(1.0 / 40);
  const auto hold = jaw_hold({30, draft, 0.25});
  EXPECT_NEAR(hold.gap, 0.75, 1e-12);
  EXPECT_NEAR(hold.borne, 10, 1e-9);
  EXPECT_FALSE(hold.line);
  EXPECT_NEAR(jaw_hold({8, draft, 0.25}).borne, 8, 1e-12); // all of a low face
}

TEST(JawHold, MetalOnMetalTouchesAlongALine) {
  EXPECT_TRUE(jaw_hold({30, radians(1.5), 0}).line);
  EXPECT_EQ(jaw_hold({30, radians(1.5), 0}).borne, 0);
  EXPECT_FALSE(jaw_hold({30, 0, 0}).line); // no draft: square to it
  EXPECT_EQ(jaw_hold({30, 0, 0}).borne, 30);
  EXPECT_EQ(jaw_hold({30, radians(90), 1}).borne, 0);
  EXPECT_EQ(jaw_hold({-3, -1, -1}).borne, 0);
}
