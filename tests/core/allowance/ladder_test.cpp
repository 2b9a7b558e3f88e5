#include "allowance/ladder.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::allowance;

// Common practice: 5/64 under a 3/32 in reamer leaves 0.0156 in on the diameter, the most for its size.
TEST(Ladder, ReamedFromTheInchDrawer) {
  LadderInput in;
  in.size = 3.0 / 32 * 25.4;
  in.drills = Unit::inch;
  const auto ladder = drill_ladder(in);
  ASSERT_TRUE(ladder.usable()) << ladder.message;
  EXPECT_LE(ladder.left, (3.0 / 32 - 5.0 / 64) * 25.4 + 1e-9);
  EXPECT_GE(ladder.left, ladder.least_left);
  EXPECT_GE(reaming_allowance(in.size).most, (3.0 / 32 - 5.0 / 64) * 25.4 - 1e-9);
}

TEST(Ladder, PilotsComeFirstAndEveryStepIsLarger) {
  for (const double size : {4.0, 6.35, 10.0, 16.0, 25.0}) {
    LadderInput in;
    in.size = size;
    const auto ladder = drill_ladder(in);
    ASSERT_TRUE(ladder.usable()) << size << " " << ladder.message;
    const auto want = reaming_allowance(size);
    EXPECT_GE(ladder.left, want.least - 1e-9);
    EXPECT_LE(ladder.left, want.most + 1e-9);
    double before = 0, sum = 0;
    for (const auto& d : ladder.drills) {
      EXPECT_GT(d.size, before);
      before = d.size;
      sum += 2 * d.takes;
    }
    EXPECT_NEAR(sum + ladder.left, size, 1e-9);
  }
}

// Common practice: core 1.000, drill 1.250, bore 1.375 in.
TEST(Ladder, ACoredHoleNeedsNoPilot) {
  LadderInput in;
  in.made = HoleMade::bored;
  in.size = 1.375 * 25.4;
  in.cored = 1.000 * 25.4;
  in.drills = Unit::inch;
  const auto ladder = drill_ladder(in);
  ASSERT_TRUE(ladder.usable()) << ladder.message;
  EXPECT_EQ(ladder.drills.size(), 1U);
  EXPECT_GT(ladder.left, 0);
}

TEST(Ladder, NonsenseIsRefused) {
  LadderInput in;
  EXPECT_EQ(drill_ladder(in).message, "the finished diameter must be above 0");
  in.size = 10;
  in.cored = 12;
  EXPECT_EQ(drill_ladder(in).message, "the hole that is there is as large as the finished one");
}
