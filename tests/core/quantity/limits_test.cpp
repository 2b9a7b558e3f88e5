#include "quantity/limits.h"

#include <gtest/gtest.h>

#include <string>

using namespace datrin;

namespace {

LimitsResult limits_of(const char* text, Unit unit = Unit::mm) {
  LimitsOptions options;
  options.length.bare_unit = unit;
  return parse_limits(text, options);
}

void expect_limits(const char* text, double nominal, double lower, double upper, Unit unit = Unit::mm) {
  const auto r = limits_of(text, unit);
  ASSERT_TRUE(r.ok) << text << ": " << r.message;
  EXPECT_NEAR(r.nominal, nominal, 1e-9) << text;
  EXPECT_NEAR(r.lower, lower, 1e-9) << text;
  EXPECT_NEAR(r.upper, upper, 1e-9) << text;
}

} // namespace

TEST(Limits, AsPeopleWriteThem) {
  expect_limits("12 +0.018/0", 12, 0, 0.018);
  expect_limits("12 +0.018 / 0 mm", 12, 0, 0.018, Unit::inch); // the unit written last counts for all
  expect_limits("12 \u00B10.05", 12, -0.05, 0.05);
  expect_limits("12 +/- 2 thou", 12, -0.0508, 0.0508);
  expect_limits("12 H7", 12, 0, 0.018);
  expect_limits("25 g6", 25, -0.020, -0.007);
  expect_limits("12 m", 12, -0.2, 0.2);
  expect_limits("12 ISO 2768-m", 12, -0.2, 0.2);
  expect_limits("12 ISO 2768-mK", 12, -0.2, 0.2);
  expect_limits("12", 12, 0, 0);
  expect_limits("10 -0.02/-0.05", 10, -0.05, -0.02);
  expect_limits("10 -0.05/-0.02", 10, -0.05, -0.02); // either order
  expect_limits("1 3/8 in -0.001/-0.003", 34.925, -0.0762, -0.0254);
  expect_limits("12 0/-0.011", 12, -0.011, 0);
  expect_limits("12 \u22120.02/\u22120.05", 12, -0.05, -0.02); // true minus signs, as shown on screen
  expect_limits("3 mm + 4 mm \u00B10.1", 7, -0.1, 0.1);
  expect_limits("F", 0.257 * 25.4, 0, 0); // a letter drill, not a class
}

// Common practice: 0.3150 +0.005/-0 in, so go 0.3150 and no-go 0.3200.
TEST(Limits, GoAndNoGoOfAGaugePin) {
  const auto r = limits_of("0.3150 +0.005/-0", Unit::inch);
  ASSERT_TRUE(r.ok) << r.message;
  EXPECT_NEAR((r.nominal + r.lower) / 25.4, 0.3150, 1e-9);
  EXPECT_NEAR((r.nominal + r.upper) / 25.4, 0.3200, 1e-9);
}

TEST(Limits, GeneralClassForANominalWrittenAlone) {
  LimitsOptions options;
  options.length.bare_unit = Unit::mm;
  options.general = 'f';
  const auto r = parse_limits("50", options);
  EXPECT_EQ(r.upper, 0.15);
  EXPECT_EQ(r.tolerance, "ISO 2768-f");
  options.is_edge = true;
  EXPECT_EQ(parse_limits("2", options).upper, 0.2);
}

TEST(Limits, NonsenseIsRefusedWithItsReason) {
  EXPECT_EQ(limits_of("").message, "write a dimension, like 12 H7, 12 \u00B10.05 or 12 +0.018/0");
  EXPECT_EQ(limits_of("12 \u00B1").message, "after \u00B1 comes how much, like 12 \u00B10.05");
  EXPECT_EQ(limits_of("12 \u00B1 -0.05").message, "after \u00B1 comes a length without a sign");
  EXPECT_EQ(limits_of("12 \u00B10.05 \u00B10.1").message, "\u00B1 stands twice");
  EXPECT_EQ(limits_of("12 +2 thou/-1").message, "write the unit at both deviations");
  EXPECT_TRUE(limits_of("12 +2 thou/0").ok);
  EXPECT_FALSE(limits_of("12 H99").ok);
  EXPECT_FALSE(limits_of("twelve").ok);
  EXPECT_FALSE(limits_of("12 +0.018/zero").ok);
  EXPECT_FALSE(limits_of("\xff").ok);
  EXPECT_EQ(limits_of("2 v").message,
            "ISO 2768 states no class v for this size; write the limits themselves");
}

TEST(Limits, DecimalCommasWhereThePersonWritesThem) {
  LimitsOptions options;
  options.length.bare_unit = Unit::mm;
  options.length.decimal_comma = true;
  const auto r = parse_limits("12,5 +0,018/-0,002", options);
  ASSERT_TRUE(r.ok) << r.message;
  EXPECT_NEAR(r.nominal, 12.5, 1e-12);
  EXPECT_NEAR(r.lower, -0.002, 1e-12);
  EXPECT_FALSE(limits_of("12,5 H7").ok);
}

TEST(Limits, ALongTextIsRefusedAtOnce) {
  EXPECT_EQ(limits_of(std::string(100000, '1').c_str()).message,
            "that is too long for a dimension; write one like 12 H7");
  EXPECT_FALSE(limits_of(("12 +" + std::string(150, '/')).c_str()).ok);
}

TEST(Limits, WhatIsShownCanBeTypedAgain) {
  for (const char* text :
       {"12 H7", "12 \u00B10.05", "12 +0.018/0", "10 \u22120.02/\u22120.05", "12", "12 ISO 2768-m"})
    for (const auto unit : {Unit::mm, Unit::inch}) {
      const auto first = limits_of(text);
      const auto shown = limits_text(first.nominal, first.lower, first.upper, first.tolerance, unit);
      const auto again = limits_of(shown.c_str(), unit);
      ASSERT_TRUE(again.ok) << shown << ": " << again.message;
      EXPECT_NEAR(again.nominal, first.nominal, 2e-5) << shown;
      EXPECT_NEAR(again.lower, first.lower, 3e-4) << shown;
      EXPECT_NEAR(again.upper, first.upper, 3e-4) << shown;
    }
}

TEST(Limits, AnIso286ClassAsPeopleWriteIt) {
  expect_limits("\u2300"
                "25 H7",
                25, 0, 0.021);
  expect_limits("\u00D8"
                "25 H7",
                25, 0, 0.021);
  expect_limits("25H7", 25, 0, 0.021);
  expect_limits("25 h6", 25, -0.013, 0);
}
