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

TEST(Reading, GaugePinsGiveASizeWithItsUncertainty) {
  // Common practice: go 0.3150, no-go 0.3200.
  const auto pins = size_by_pins({0.3150 * 25.4, 0.3200 * 25.4, 0});
  ASSERT_TRUE(pins.ok);
  EXPECT_NEAR(pins.size / 25.4, 0.3175, 1e-9);
  EXPECT_NEAR(pins.uncertainty / 25.4, 0.0025, 1e-9);
  EXPECT_EQ(size_by_pins({8, 0, 0}).message,
            "two pins are needed: the largest that goes and the smallest that does not");
  EXPECT_EQ(size_by_pins({8, 7.9, 0}).message,
            "the pin that goes, 8.0000, is not smaller than the one that does not, 7.9000");
}

// ISO 14253-1: conformity is proved when size and uncertainty lie within the limits, non-conformity when
// beyond.
TEST(Reading, InOutOrCannotTell) {
  EXPECT_EQ(accept(10.010, 0.002, 10.000, 10.015).verdict, Verdict::in);
  EXPECT_EQ(accept(10.013, 0.002, 10.000, 10.015).verdict, Verdict::in); // just
  EXPECT_EQ(accept(10.014, 0.002, 10.000, 10.015).verdict, Verdict::cannot_tell);
  EXPECT_EQ(accept(10.021, 0.002, 10.000, 10.015).words, "out: 6\u2009\u00B5m over");
  EXPECT_EQ(accept(9.990, 0.002, 10.000, 10.015).words, "out: 10\u2009\u00B5m under");
  const auto coarse = accept(10.008, 0.03, 10.000, 10.015);
  EXPECT_EQ(coarse.verdict, Verdict::cannot_tell);
  EXPECT_NE(coarse.words.find("cannot tell with this instrument"), std::string::npos);
}

TEST(Reading, AsPeopleWriteIt) {
  LengthOptions mm;
  mm.bare_unit = Unit::mm;
  EXPECT_NEAR(parse_reading("10.021", mm).shown, 10.021, 1e-12);
  const auto with = parse_reading("10.021 \u00B10.002", mm);
  EXPECT_NEAR(with.uncertainty.value_or(0), 0.002, 1e-12);
  const auto pins = parse_reading("go 10.00 no-go 10.02", mm);
  ASSERT_TRUE(pins.ok) << pins.message;
  EXPECT_EQ(pins.kind, ReadingKind::pins);
  EXPECT_NEAR(pins.shown, 10.01, 1e-12);
  EXPECT_NEAR(pins.uncertainty.value_or(0), 0.01, 1e-12);
  const auto mate = parse_reading("mate -0.021", mm);
  EXPECT_EQ(mate.kind, ReadingKind::comparison);
  EXPECT_NEAR(mate.shown, -0.021, 1e-12);
  EXPECT_NEAR(parse_reading(".3945 in", mm).shown, 0.3945 * 25.4, 1e-12);
  EXPECT_EQ(parse_reading("go 10.00", mm).message, "write both pins: go 10.00 no-go 10.02");
  EXPECT_FALSE(parse_reading("go 10.02 no-go 10.00", mm).ok);
  EXPECT_EQ(parse_reading("-3", mm).message, "a size must be above 0");
  EXPECT_FALSE(parse_reading("ten", mm).ok);
  EXPECT_FALSE(parse_reading("10 \u00B1-1", mm).ok);
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
  EXPECT_NE(bore.verdict.find("larger at the mouth"), std::string::npos);
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
