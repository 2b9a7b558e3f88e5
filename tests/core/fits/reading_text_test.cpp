#include "fits/reading_text.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::fits;

namespace {

ReadingText read(const char* text, Side side = Side::hole, Unit unit = Unit::mm) {
  LengthOptions options;
  options.bare_unit = unit;
  return parse_reading(text, options, side);
}

} // namespace

TEST(ReadingText, ASizeWithOrWithoutItsUncertainty) {
  EXPECT_NEAR(read("10.021").shown, 10.021, 1e-12);
  EXPECT_NEAR(read("10.021 \u00B10.002").uncertainty.value_or(0), 0.002, 1e-12);
  EXPECT_NEAR(read(".3945 in").shown, 0.3945 * 25.4, 1e-12);
  EXPECT_EQ(read("-3").message, "a size must be above 0");
  for (const auto* wrong : {"ten", "10 \u00B1-1", "", "10 over", "10 and", "go", "mate", "dial"})
    EXPECT_FALSE(read(wrong).ok) << wrong;
}

// Common practice: go 0.3150, no-go 0.3200 in for +0.005/-0.
TEST(ReadingText, GaugesLeaveASizeAndItsUncertainty) {
  const auto both = read("go 0.3150 no-go 0.3200", Side::hole, Unit::inch);
  ASSERT_TRUE(both.ok) << both.message;
  EXPECT_EQ(both.kind, ReadingKind::gauges);
  EXPECT_NEAR(both.shown / 25.4, 0.3175, 1e-9);
  EXPECT_NEAR(both.uncertainty.value_or(0) / 25.4, 0.0025, 1e-9);
  EXPECT_EQ(
      read("go 10.02 no-go 10.00").message,
      "the gauge that goes, 10.0200\u202Fmm, is not smaller than the one that does not, 10.0000\u202Fmm");
  // Of a shaft the ring that goes is the larger.
  EXPECT_NEAR(read("go 10.02 no-go 10.00", Side::shaft).shown, 10.01, 1e-12);
  EXPECT_FALSE(read("go 10.00 no-go 10.02", Side::shaft).ok);
}

TEST(ReadingText, AGaugeThatDoesNotGoAndANoGoThatGoes) {
  for (const auto* text : {"go 10.00 stops", "go 10.00 does not go", "stops 10.00", "no-go 10.00"}) {
    const auto stopped = read(text);
    ASSERT_TRUE(stopped.ok) << text << ": " << stopped.message;
    EXPECT_EQ(stopped.bound, Bound::below) << text; // the hole is smaller than the plug
    EXPECT_EQ(stopped.shown, 10) << text;
  }
  EXPECT_EQ(read("no-go 10.02 goes").bound, Bound::above);
  EXPECT_EQ(read("go 10.00").bound, Bound::above);
  // A ring that does not go on: the shaft is larger than it.
  EXPECT_EQ(read("go 10.02 stops", Side::shaft).bound, Bound::above);
  EXPECT_EQ(read("no-go 10.00 goes", Side::shaft).bound, Bound::below);
  EXPECT_FALSE(read("go 10.00 stops no-go 10.02 goes").ok); // no hole is so
}

// Common practice: 27.167 over an 8.334 pin is 23.000 to the axis of its hole; 27.11 over an 8.32 pin in 8.33
// is 22.95; a pin of 8.19 in a hole of 8.334 leaves 0.072 each way.
TEST(ReadingText, OverAPinToTheAxisOfItsHole) {
  const auto one = read("27.167 over 8.334");
  ASSERT_TRUE(one.ok) << one.message;
  EXPECT_NEAR(one.shown + one.pins, 23.000, 1e-9);
  const auto in_hole = read("27.11 over an 8.32 pin in 8.33");
  ASSERT_TRUE(in_hole.ok) << in_hole.message;
  EXPECT_NEAR(in_hole.shown + in_hole.pins, 22.95, 1e-9);
  EXPECT_NEAR(in_hole.play, 0.005, 1e-9);
  EXPECT_NEAR(read("27 over 8.19 in 8.334").play, 0.072, 1e-9);
  EXPECT_NEAR(read("18.79 inside 8.32").shown + read("18.79 inside 8.32").pins, 22.95, 1e-9);
  // "in" is a unit too.
  const auto inches = read("1.0945 in over a 0.328 in pin in 0.3281 in", Side::unknown, Unit::inch);
  ASSERT_TRUE(inches.ok) << inches.message;
  EXPECT_NEAR((inches.shown + inches.pins) / 25.4, 1.0945 - 0.164, 1e-9);
  EXPECT_NEAR(inches.play / 25.4, 0.00005, 1e-9);
  EXPECT_EQ(read("27 over 8.4 in 8.3").message,
            "a pin of 8.4000\u202Fmm does not go into a hole of 8.3000\u202Fmm");
}

TEST(ReadingText, AcrossTwoPinsToTheDistanceOfTheirAxes) {
  // 41.00 between axes, pins of 8 and 6: 48 outside, 34 between.
  EXPECT_NEAR(read("48 over 8 and 6 pins").shown + read("48 over 8 and 6 pins").pins, 41, 1e-9);
  EXPECT_NEAR(read("34 inside 8 and 6").shown + read("34 inside 8 and 6").pins, 41, 1e-9);
  const auto play = read("48 over 8 in 8.02 and 6 in 6.04");
  EXPECT_NEAR(play.play, 0.03, 1e-9);
}

// Common practice: 3.68 and 3.74 are 3.71, off the centre by 0.03.
TEST(ReadingText, TwoSidesGiveSizeAndOffCentre) {
  const auto both = read("3.68 and 3.74");
  ASSERT_TRUE(both.ok) << both.message;
  EXPECT_EQ(both.kind, ReadingKind::two_sides);
  EXPECT_NEAR(both.shown, 3.71, 1e-9);
  EXPECT_NEAR(both.off_centre, 0.03, 1e-9);
}

TEST(ReadingText, NothingIsGuessed) {
  EXPECT_FALSE(read("48 over 8 and 6 and 4").ok);
  EXPECT_EQ(read("dial -0.35 a side").message, "what came off is above 0: dial 0.35 a side");
  // Of what may be a hole or a shaft two gauges leave one size in either order; one alone would be a guess.
  EXPECT_NEAR(read("go 10.00 no-go 10.02", Side::unknown).shown, 10.01, 1e-12);
  EXPECT_NEAR(read("go 10.02 no-go 10.00", Side::unknown).shown, 10.01, 1e-12);
  EXPECT_FALSE(read("go 10.00 stops", Side::unknown).ok);
}

TEST(ReadingText, DifferencesToTheMateAndByADial) {
  const auto mate = read("mate -0.021");
  EXPECT_EQ(mate.kind, ReadingKind::comparison);
  EXPECT_NEAR(mate.shown, -0.021, 1e-12);
  const auto side = read("dial 0.35 a side");
  EXPECT_EQ(side.kind, ReadingKind::dial);
  EXPECT_EQ(side.on_diameter, false);
  EXPECT_NEAR(side.shown, 0.35, 1e-12);
  EXPECT_EQ(read("dial 0.7 on diameter").on_diameter, true);
  EXPECT_FALSE(read("dial 0.7").on_diameter.has_value());
}
