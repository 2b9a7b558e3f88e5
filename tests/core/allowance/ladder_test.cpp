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

// A 30 mm bore over a 26 mm core 1.2 off: 2 a side on average, 3.2 thickest, 0.8 thinnest; no drill goes down
// a core that is off (common practice). 2.5 off, the core stands half a millimetre outside the bore.
TEST(DrillLadder, ACoreThatIsOffIsBoredNotDrilled) {
  LadderInput in;
  in.size = 30;
  in.cored = 26;
  in.core_off = 1.2;
  in.made = HoleMade::bored;
  const auto bored = drill_ladder(in);
  ASSERT_TRUE(bored.usable());
  EXPECT_TRUE(bored.drills.empty());
  EXPECT_NE(bored.verdict.find("3.20\u202Fmm a side where the metal is thickest, 0.80\u202Fmm"),
            std::string::npos)
      << bored.verdict;
  in.made = HoleMade::reamed;
  EXPECT_NE(drill_ladder(in).verdict.find("then ream"), std::string::npos);
  in.core_off = 2.5;
  EXPECT_NE(drill_ladder(in).verdict.find("reaches 0.50\u202Fmm beyond"), std::string::npos);
  in.core_off = 0.1; // true enough for a drill
  EXPECT_FALSE(drill_ladder(in).drills.empty());
  in.core_off = -1;
  EXPECT_FALSE(drill_ladder(in).usable());
  in.core_off = 1.2;
  in.drills = Unit::inch;
  EXPECT_NE(drill_ladder(in).verdict.find("0.1260\u202Fin a side"), std::string::npos);
}
