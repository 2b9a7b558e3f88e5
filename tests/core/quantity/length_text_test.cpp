#include "quantity/length_text.h"

#include "quantity/length.h"
#include "quantity/reckoning.h"

#include <gtest/gtest.h>

#include <limits>

using namespace datrin;

TEST(LengthText, TrueMinusAndNoNegativeZero) {
  EXPECT_EQ(length_text(-1.5, Unit::mm), "\u22121.50");
  EXPECT_EQ(length_text(-0.001, Unit::mm), "0.00");
  EXPECT_EQ(length_text(0.125, Unit::mm, {.show_plus = true}), "+0.13");
  EXPECT_EQ(length_text(-0.125, Unit::mm), "\u22120.13");
  EXPECT_EQ(length_text(std::numeric_limits<double>::infinity(), Unit::mm), "\u2013");
}

TEST(LengthText, BothUnitsWithThinSpaces) {
  EXPECT_EQ(length_text_both(12.7, Unit::mm), "12.70\u202Fmm \u00B7 0.5000\u202Fin");
  EXPECT_EQ(length_text_both(12.7, Unit::inch), "0.5000\u202Fin \u00B7 12.70\u202Fmm");
}

TEST(LengthText, WhatGoesIntoAFieldComesBackTheSame) {
  for (const double mm : {0.0, 1.0, -3.25, 12.7, 0.00012, 1234.56789})
    for (const auto unit : {Unit::mm, Unit::inch})
      EXPECT_NEAR(parse_length(length_entry_text(mm, unit), {}).mm, mm, 2e-5) << length_entry_text(mm, unit);
  EXPECT_EQ(length_entry_text(0.5, Unit::mm), "0.5 mm");
  EXPECT_EQ(length_entry_text(-1e-9, Unit::mm), "0 mm");
}

TEST(Reckoning, AddsUpAndReadsAsAColumn) {
  const Reckoning why{"jack under touch 3",
                      {{"foot stands at", 25, "chosen"}, {"above foot", -1.9, "survey"}}};
  EXPECT_DOUBLE_EQ(why.total(), 23.1);
  const auto text = reckoning_text(why, Unit::mm);
  EXPECT_NE(text.find("+25.000\u202Fmm \u00B7 +0.98425\u202Fin  foot stands at (chosen)"), std::string::npos)
      << text;
  EXPECT_NE(text.find("= +23.100\u202Fmm"), std::string::npos) << text;
}
