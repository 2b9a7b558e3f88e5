#include "fits/reading.h"

#include "fits/form.h"
#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::fits;

TEST(Reading, ZeroErrorAndTemperatureAreTakenOff) {
  // Common practice: 23.10 read on a micrometer that shows 0.02 when it should show 0.
  EXPECT_NEAR(corrected({23.10, 0.02}).total(), 23.08, 1e-12);
  // A brass piece at 30 °C read with a steel micrometer at 20: 20 millionths a kelvin too large.
  const auto sum = corrected({50, 0, 30, 20, 20e-6, 11.5e-6});
  EXPECT_NEAR(sum.total(), 50 - 50 * 20e-6 * 10, 1e-12);
  EXPECT_EQ(sum.lines.size(), 2U);
  // Steel with steel, both warm: nothing to correct.
  EXPECT_NEAR(corrected({50, 0, 28, 28, 11.5e-6, 11.5e-6}).total(), 50, 1e-12);
}

// ISO 14253-1: conformity is proved when size and uncertainty lie within the limits, non-conformity when
// beyond.
TEST(Reading, InOutOrCannotTell) {
  EXPECT_EQ(accept(10.010, 0.002, 10.000, 10.015, Unit::mm).verdict, Verdict::in);
  EXPECT_EQ(accept(10.013, 0.002, 10.000, 10.015, Unit::mm).verdict, Verdict::in); // just
  EXPECT_EQ(accept(10.014, 0.002, 10.000, 10.015, Unit::mm).verdict, Verdict::cannot_tell);
  EXPECT_EQ(accept(10.021, 0.002, 10.000, 10.015, Unit::mm).words, "out: 6\u202F\u00B5m over");
  EXPECT_EQ(accept(9.990, 0.002, 10.000, 10.015, Unit::mm).words, "out: 10\u202F\u00B5m under");
  // Thou in an inch build.
  EXPECT_EQ(accept(10.0404, 0.002, 10.000, 10.015, Unit::inch).words, "out: 1.0\u202Fthou over");
  const auto coarse = accept(10.008, 0.03, 10.000, 10.015, Unit::mm);
  EXPECT_EQ(coarse.verdict, Verdict::cannot_tell);
  EXPECT_NE(coarse.words.find("cannot tell with this instrument"), std::string::npos);
}

// Common practice: 2.4375 in at the mouth and 2.435 inside: a plug stops where the bore is smaller than it.
TEST(Form, SmallestThroughAndTaper) {
  FormInput in;
  in.readings = {{0, 0, 61.9125}, {0, pi / 2, 61.9125}, {25, 0, 61.88}, {50, 0, 61.849}};
  const auto bore = form(in);
  ASSERT_TRUE(bore.ok);
  EXPECT_EQ(bore.matters, 61.849);
  EXPECT_EQ(bore.worst, 3);
  EXPECT_NEAR(bore.taper_over_length, -0.0635, 1e-3);
  EXPECT_EQ(bore.ovality, 0);
  EXPECT_NE(bore.verdict.find("narrower inside"), std::string::npos);
  in.is_hole = false;
  EXPECT_EQ(form(in).matters, 61.9125); // the ring must pass the largest
}

TEST(Form, TaperOvalityAndBowAreToldApart) {
  FormInput in;
  for (const double depth : {0.0, 10.0, 20.0})
    for (const double turned : {0.0, pi / 2})
      in.readings.push_back(
          {depth, turned, 20 + 0.001 * depth + (turned > 0 ? 0.004 : 0) + (depth == 10 ? 0.006 : 0)});
  const auto f = form(in);
  EXPECT_NEAR(f.taper, 0.001, 1e-9);
  EXPECT_NEAR(f.ovality, 0.004, 1e-9);
  EXPECT_NEAR(f.bow, 0.006, 1e-9);
  in.uncertainty = 0.05;
  EXPECT_EQ(form(in).verdict, "Straight and round, as far as this instrument shows.");
  EXPECT_FALSE(form({}).ok);
  in.readings[2].diameter = -1;
  EXPECT_EQ(form(in).message, "reading 3: the diameter must be above 0");
}
