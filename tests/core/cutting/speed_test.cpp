// Speeds of the workshop. Common practice: 3 in at 210 and 660 rev/min are 165 and 518 ft/min.

#include "cutting/speed.h"

#include <gtest/gtest.h>

using namespace datrin::cutting;

TEST(CuttingSpeed, RevolutionsAndSpeedAreOneAnother) {
  constexpr double foot = 0.3048;
  EXPECT_NEAR(revolutions(165 * foot, 3 * 25.4), 210, 0.2);
  EXPECT_NEAR(revolutions(518 * foot, 3 * 25.4), 660, 0.8);
  EXPECT_EQ(revolutions(30, 0), 0);
}

TEST(CuttingSpeed, OfAMetalByWhateverItIsCalled) {
  EXPECT_EQ(cutting_speed("cast iron", ToolMetal::high_speed),
            cutting_speed("grey iron", ToolMetal::high_speed));
  EXPECT_EQ(cutting_speed("Bright mild steel EN1A", ToolMetal::high_speed),
            cutting_speed("mild steel", ToolMetal::high_speed));
  // A longer word tells more than a shorter one in the same name.
  EXPECT_EQ(cutting_speed("phosphor bronze bar", ToolMetal::high_speed), 24);
  EXPECT_EQ(cutting_speed("stainless steel", ToolMetal::high_speed), 14);
  EXPECT_EQ(cutting_speed("unobtainium", ToolMetal::high_speed), 0);
  EXPECT_EQ(cutting_speed("", ToolMetal::carbide), 0);
  // Harder metals go slower, carbide faster: the order of every handbook.
  for (const auto& metal : metals_with_speeds())
    EXPECT_GT(cutting_speed(metal, ToolMetal::carbide), 1.5 * cutting_speed(metal, ToolMetal::high_speed))
        << metal;
  EXPECT_GT(cutting_speed("brass", ToolMetal::high_speed),
            cutting_speed("mild steel", ToolMetal::high_speed));
  EXPECT_GT(cutting_speed("mild steel", ToolMetal::high_speed),
            cutting_speed("stainless", ToolMetal::high_speed));
}

TEST(CuttingSpeed, TheMachineHasTheSpeedsItHas) {
  const auto speeds = speeds_of("60 105 170 320 540 900 1400");
  ASSERT_EQ(speeds.size(), 7U);
  EXPECT_EQ(speed_below(speeds, 600), 540);
  EXPECT_EQ(speed_below(speeds, 540), 540);
  EXPECT_EQ(speed_below(speeds, 30), 60); // its slowest, faster than wanted
  EXPECT_EQ(speed_below({}, 100), 0);
  EXPECT_TRUE(speeds_of("fast slow -3").empty());
}
