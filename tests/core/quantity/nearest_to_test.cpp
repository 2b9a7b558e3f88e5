#include "quantity/nearest_to.h"

#include <gtest/gtest.h>

using namespace datrin;

// A rule's sixty-fourths; drills of ASME B94.11M and the usual metric drawer (from memory).
TEST(Nearest, SixtyFourthsDrillsAndDialLines) {
  EXPECT_EQ(nearest_sixty_fourth(15).name, "19/32 in"); // 0.5906 in; 37/64 is 0.578, 19/32 0.594
  EXPECT_EQ(nearest_sixty_fourth(1.375 * 25.4).name, "1 3/8 in");
  EXPECT_EQ(nearest_sixty_fourth(50.8).name, "2 in");
  EXPECT_EQ(nearest_sixty_fourth(0.01).name, "0 in");
  EXPECT_EQ(nearest_sixty_fourth(-0.5 * 25.4).name, "\u22121/2 in");
  EXPECT_EQ(nearest_drill(0.2575 * 25.4, Unit::inch).name, "F"); // 0.2570
  EXPECT_NEAR(nearest_drill(8.52, Unit::mm).mm, 8.5, 1e-12);
  EXPECT_EQ(nearest_drill(400, Unit::mm).name, "");
  EXPECT_NEAR(nearest_line(12.347, 0.02), 12.34, 1e-12);
  EXPECT_NEAR(nearest_line(-12.347, 0.05), -12.35, 1e-12);
}

TEST(Nearest, SaysHowFarOff) {
  EXPECT_EQ(nearest_words(15, Unit::mm, 0.02),
            "nearest 19/32 in (+0.081\u202Fmm), drill 15.00 mm exactly, dial 15.000\u202Fmm exactly");
  EXPECT_EQ(
      nearest_words(0.259 * 25.4, Unit::inch, 0.0254),
      "nearest 17/64 in (+0.0066\u202Fin), drill F (\u22120.0020\u202Fin), dial 0.2590\u202Fin exactly");
}
