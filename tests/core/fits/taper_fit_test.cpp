// A plug in a tapered bore, by the plane geometry of cones.

#include "fits/taper_fit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::fits;

// 1 in 20 on the diameter: a hundredth is 0.20 along; a plug 0.05 over the mouth stops 1.00 proud; 10 to 20
// µm of interference are 0.20 to 0.40 of push (by hand).
TEST(TaperFit, DrawStopAndPush) {
  TaperFitInput in;
  in.hole = 12.00;
  in.shaft = 12.05;
  in.half_angle = std::atan(0.5 / 20);
  in.wanted_least = -0.020;
  in.wanted_most = -0.010;
  const auto fit = taper_fit(in);
  ASSERT_TRUE(fit.usable()) << fit.message;
  EXPECT_NEAR(fit.taper, 0.05, 1e-12);
  EXPECT_NEAR(fit.proud, 1.00, 1e-9);
  EXPECT_NEAR(fit.push_least, 0.20, 1e-9);
  EXPECT_NEAR(fit.push_most, 0.40, 1e-9);
  EXPECT_EQ(fit.words,
            "Taper 1 in 20 on the diameter: 10\u202F\u00B5m of diameter is 0.20\u202Fmm along. As the "
            "sizes are it stops 1.00\u202Fmm proud of the mouth. Pushed 0.20\u202Fmm to 0.40\u202Fmm beyond "
            "touching it has the interference wanted.");
  in.unit = Unit::inch; // 1 thou of diameter is 20 thou along
  EXPECT_TRUE(taper_fit(in).words.starts_with(
      "Taper 1 in 20 on the diameter: 1.0\u202Fthou of diameter is 0.0200\u202Fin along."))
      << taper_fit(in).words;
  in.shaft = 11.95;
  EXPECT_NEAR(taper_fit(in).proud, -1.00, 1e-9);
}

// Of a taper pin of 1 in 48 (ANSI B18.8.2, 1/4 inch per foot) a hammer blow of 1/8 in is 2.6 thou.
TEST(TaperFit, AnInchTaperPin) {
  TaperFitInput in;
  in.hole = in.shaft = 6.35;
  in.half_angle = std::atan(0.5 / 48);
  in.wanted_least = in.wanted_most = -0.125 / 48 * 25.4;
  EXPECT_NEAR(taper_fit(in).push_most, 0.125 * 25.4, 1e-9);
}

TEST(TaperFit, TwoTapersThatDifferBearAtOneEnd) {
  TaperFitInput in;
  in.hole = in.shaft = 20;
  in.half_angle = std::atan(0.5 / 10);
  in.shaft_half_angle = std::atan(0.5 / 10.2);
  in.length = 30;
  const auto fit = taper_fit(in);
  EXPECT_NEAR(fit.mismatch, 30 * (1 / 10.0 - 1 / 10.2), 1e-12);
  EXPECT_NE(fit.words.find("at the small end only"), std::string::npos) << fit.words;
}

TEST(TaperFit, NoAngleIsRefused) {
  TaperFitInput in;
  in.hole = in.shaft = 10;
  EXPECT_EQ(taper_fit(in).status, TaperFitStatus::refused);
  in.half_angle = 0.1;
  in.shaft = 0;
  EXPECT_EQ(taper_fit(in).status, TaperFitStatus::refused);
}
