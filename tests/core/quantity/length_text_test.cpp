#include "quantity/column_text.h"
#include "quantity/length_text.h"
#include "quantity/text.h"

#include "quantity/length.h"
#include "quantity/reckoning.h"

#include <gtest/gtest.h>

#include <cmath>

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

// Columns were rounded line by line: 9.708 − 0.032 = 9.677, and 3.67 = 1.83 + 1.83.
TEST(ColumnText, WhatIsPrintedAddsUpAsPrinted) {
  const auto value = [](std::string text) {
    if (text.starts_with("\u2212")) text.replace(0, 3, "-");
    return number_from(text).value_or(NAN); // alike in every locale
  };
  for (int seed = 1; seed < 400; ++seed)
    for (const auto unit : {Unit::mm, Unit::inch}) {
      std::vector<double> lengths;
      for (int k = 0; k < 2 + seed % 7; ++k) lengths.push_back(std::fmod(seed * 7.31873 * (k + 1), 23.7) - 8);
      const auto column = column_text(lengths, unit, 3);
      double sum = 0;
      for (std::size_t k = 0; k < lengths.size(); ++k) {
        sum += value(column.figures[k]);
        EXPECT_NEAR(value(column.figures[k]), from_mm(lengths[k], unit), 1.01e-3) << seed;
      }
      EXPECT_NEAR(sum, value(column.total), 1e-9) << seed;
    }
  const auto halves = column_text({1.835, 1.835}, Unit::mm, 2);
  EXPECT_EQ(halves.total, "3.670");
  EXPECT_EQ(halves.figures[0], "1.835");
  EXPECT_EQ(column_text({1.5, 2.25}, Unit::mm, 2).total, "3.75");
}
