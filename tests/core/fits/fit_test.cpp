#include "fits/fit.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::fits;

TEST(Fit, ReadsWhatPeopleWrite) {
  const auto fit = read_fit("25 H7/g6");
  ASSERT_TRUE(fit.ok) << fit.message;
  EXPECT_NEAR(fit.fit.least(), 0.007, 1e-12); // ISO 286-2, from memory: hole 0 to 21, shaft −20 to −7
  EXPECT_NEAR(fit.fit.most(), 0.041, 1e-12);
  EXPECT_EQ(fit.fit.kind(), FitKind::clearance);
  EXPECT_EQ(read_fit("25 mm H7 k6").fit.kind(), FitKind::transition);
  EXPECT_EQ(read_fit("25 H7/s6").fit.kind(), FitKind::interference);
  EXPECT_NEAR(read_fit("1 in RC4").fit.nominal, 25.4, 1e-12);
  EXPECT_NEAR(read_fit("1 RC 4", Unit::inch).fit.nominal, 25.4, 1e-12);
  EXPECT_NEAR(read_fit("1 3/8 in H7/f7").fit.nominal, 1.375 * 25.4, 1e-9);
}

TEST(Fit, WhatIsNoFitIsRefusedWithTheReason) {
  EXPECT_EQ(read_fit("").message, "write a nominal and a fit, like 25 H7/g6");
  EXPECT_EQ(read_fit("25").message, "write a fit behind the nominal, like 25 H7/g6");
  EXPECT_EQ(read_fit("25 g6/H7").message,
            "\"g6/H7\" is no fit; the hole has capital letters and stands first, like H7/g6");
  EXPECT_EQ(read_fit("25 H7").message,
            "\"H7\" is no fit; write hole and shaft, like H7/g6, or an ANSI B4.1 fit, like RC4");
  EXPECT_NE(read_fit("25 H7/q6").message.find("there is no class q6 at 25 mm"), std::string::npos);
  EXPECT_EQ(read_fit("1 in RC10").message.substr(0, 22), "there is no fit RC10; ");
  EXPECT_EQ(read_fit("0.2 in LT3").message, "LT3 is tabled for sizes over 0.24 up to 9.85 in");
  EXPECT_FALSE(read_fit("-25 H7/g6").ok);
  EXPECT_FALSE(read_fit("900 H7/g6").ok);
  EXPECT_FALSE(read_fit("\xFF H7/g6").ok);
}

// ANSI B4.1-1967, limits in thousandths of an inch, from memory.
TEST(Fit, AnsiB41) {
  const struct {
    double inches;
    const char* name;
    double hole, shaft_low, shaft_high;
  } rows[] = {{1.0, "RC1", 0.4, -0.55, -0.3},  {1.0, "RC4", 1.2, -1.6, -0.8},   {1.0, "RC9", 5, -10.5, -7},
              {2.5, "RC6", 3, -4.3, -2.5},     {0.5, "LC2", 0.7, -0.4, 0},      {3.0, "LC5", 1.2, -1.1, -0.4},
              {1.0, "LT1", 0.8, -0.25, 0.25},  {2.0, "LT5", 1.2, 0.8, 1.5},     {1.0, "LN1", 0.5, 0.5, 1.0},
              {4.0, "LN3", 1.4, 2.0, 2.9},     {1.0, "FN1", 0.5, 0.8, 1.2},     {2.0, "FN2", 1.2, 2.0, 2.7},
              {3.0, "FN3", 1.2, 3.0, 3.7},     {0.75, "FN4", 0.8, 1.6, 2.1},    {7.0, "FN5", 2.5, 12, 13.6},
              {0.12, "RC3", 0.4, -0.55, -0.3}, {0.1201, "RC3", 0.5, -0.7, -0.4}};
  for (const auto& r : rows) {
    const auto fit = b41_fit(r.inches * 25.4, r.name);
    ASSERT_TRUE(fit.ok) << r.name << " " << fit.message;
    EXPECT_EQ(fit.fit.hole.lower, 0);
    EXPECT_NEAR(fit.fit.hole.upper / mm_per_thou, r.hole, 1e-9) << r.name;
    EXPECT_NEAR(fit.fit.shaft.lower / mm_per_thou, r.shaft_low, 1e-9) << r.name;
    EXPECT_NEAR(fit.fit.shaft.upper / mm_per_thou, r.shaft_high, 1e-9) << r.name;
  }
}

// B4.1 was drawn up with the ISO system (its foreword: the ABC agreement): each fit is near its ISO
// counterpart.
TEST(Fit, B41AgreesWithItsIsoCounterparts) {
  const std::pair<const char*, const char*> same[] = {
      {"RC2", "H6/g5"}, {"RC3", "H7/f6"}, {"RC4", "H8/f7"}, {"RC5", "H8/e7"}, {"RC7", "H9/d8"},
      {"LC2", "H7/h6"}, {"LC3", "H8/h7"}, {"LC5", "H7/g6"}, {"LT3", "H7/k6"}, {"LT5", "H7/n6"},
      {"LN2", "H7/p6"}, {"LN3", "H7/r6"}, {"FN2", "H7/s6"}, {"FN4", "H7/u6"}};
  for (const double inches : {0.3, 0.5, 0.9, 1.5, 2.2, 3.0, 4.0, 5.0})
    for (const auto& [b41, iso] : same) {
      const auto a = b41_fit(inches * 25.4, b41), b = fit_of(inches * 25.4, iso);
      ASSERT_TRUE(a.ok && b.ok) << a.message << b.message;
      const double within =
          std::max(0.5 * mm_per_thou, 0.16 * std::max(std::abs(b.fit.least()), std::abs(b.fit.most())));
      EXPECT_NEAR(a.fit.least(), b.fit.least(), within) << b41 << " " << inches;
      EXPECT_NEAR(a.fit.most(), b.fit.most(), within) << b41 << " " << inches;
    }
}

TEST(Fit, ReadsCodesRunTogetherAndWithADiameterSign) {
  const std::string joined =
      std::string("\u2300") + "25 H7/g6"; // a digit after \u2300 would be read as part of it
  for (const char* text : {"25 H7/g6", "25H7/g6", joined.c_str(), "\u00D8 25 H7/g6", "25mm H7/g6"}) {
    const auto fit = read_fit(text);
    ASSERT_TRUE(fit.ok) << text << ": " << fit.message;
    EXPECT_EQ(fit.fit.nominal, 25) << text;
    EXPECT_NEAR(fit.fit.least(), 0.007, 1e-12) << text;
    EXPECT_NEAR(fit.fit.most(), 0.041, 1e-12) << text;
  }
}

// ISO 286-2:2010: the running fits of a shop, least and most clearance in micrometres; from memory.
TEST(Fit, PreferredFitsOfIso286) {
  const struct {
    double nominal;
    const char* code;
    double least, most;
  } rows[] = {{20, "H8/f7", 20, 74},     {20, "F8/h7", 20, 74},   {20, "H7/g6", 7, 41},
              {20, "H7/h6", 0, 34},      {20, "H7/k6", -15, 19},  {20, "H7/n6", -28, 6},
              {20, "H7/p6", -35, -1},    {20, "H7/s6", -48, -14}, {40, "H9/d9", 80, 204},
              {40, "H11/c11", 120, 440}, {6, "H7/p6", -20, 0},    {100, "H7/g6", 12, 69}};
  for (const auto& r : rows) {
    const auto fit = fit_of(r.nominal, r.code);
    ASSERT_TRUE(fit.ok) << r.code << fit.message;
    EXPECT_NEAR(fit.fit.least() * 1000, r.least, 1e-6) << r.nominal << r.code;
    EXPECT_NEAR(fit.fit.most() * 1000, r.most, 1e-6) << r.nominal << r.code;
  }
}
