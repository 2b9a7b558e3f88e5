#include "quantity/angle.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;

TEST(Angle, AsPeopleWriteThem) {
  const std::pair<const char*, double> written[] = {
      {"45", 45},     {"45\u00B0", 45}, {"4.764 deg", 4.764}, {"4\u00B0 45'", 4.75}, {"4\u00B045'36\"", 4.76},
      {"-2.5", -2.5}, {".5", 0.5}};
  for (const auto& [text, degree] : written) {
    const auto a = parse_angle(text);
    ASSERT_TRUE(a.ok) << text << ": " << a.message;
    EXPECT_NEAR(degrees(a.radian), degree, 1e-9) << text;
  }
  // Common practice: 1 in 12 on one side is 4.764°.
  EXPECT_NEAR(degrees(parse_angle("1 in 12").radian), 4.764, 5e-4);
  EXPECT_NEAR(degrees(parse_angle("1:12").radian), 4.764, 5e-4);
  EXPECT_NEAR(degrees(parse_angle("4,5", {.decimal_comma = true}).radian), 4.5, 1e-9);
  EXPECT_EQ(angle_text(parse_angle("1 in 12").radian), "4.764\u00B0");
  EXPECT_EQ(angle_text(radians(-0.00001)), "0\u00B0");
}

TEST(Angle, NonsenseIsRefused) {
  for (const char* text : {"", "forty", "4,5", "400", "1 in 0", "4 5 6 7", "--3", "\xff"})
    EXPECT_FALSE(parse_angle(text).ok) << text;
}

// Common practice: a taper of 1 in 12 is on the diameter. A cone's side then leans atan 1/24 = 2.386°, its
// whole angle is 4.772°; on one side it is a slope of 4.764°.
TEST(Angle, ATaperIsOnTheDiameterOfAConeAndOneSidedOfASlope) {
  const AngleOptions cone{.taper = TaperOf::cone}, slope{.taper = TaperOf::slope};
  EXPECT_NEAR(degrees(parse_angle("1 in 12", cone).radian), 4.7718, 1e-4);
  EXPECT_NEAR(degrees(parse_angle("1 in 12", slope).radian), 4.7636, 1e-4);
  // Said, it counts whatever is usual there.
  EXPECT_NEAR(degrees(parse_angle("1 in 12 on the diameter", slope).radian), 4.7718, 1e-4);
  EXPECT_NEAR(degrees(parse_angle("1 in 12 on one side", cone).radian), 4.7636, 1e-4);
  EXPECT_EQ(parse_angle("1 in 12", cone).understood, "1 in 12 on the diameter, the whole angle");
  EXPECT_EQ(parse_angle("1:12", slope).understood, "1 in 12 on one side");
  EXPECT_EQ(parse_angle("30", cone).understood, "");
}

// ISO 1119 / handbook tables: whole angles of standard tapers; from memory.
// 5 % is 1 in 20, however it is taken.
TEST(Angle, PerCent) {
  for (const auto of : {TaperOf::slope, TaperOf::cone}) {
    const AngleOptions options{.taper = of};
    const auto hundredths = parse_angle("5 %", options), ratio = parse_angle("1 in 20", options);
    ASSERT_TRUE(hundredths.ok) << hundredths.message;
    EXPECT_NEAR(hundredths.radian, ratio.radian, 1e-12);
  }
  EXPECT_NEAR(parse_angle("2,5 per cent on one side", {.decimal_comma = true, .taper = TaperOf::cone}).radian,
              std::atan(0.025), 1e-12);
  EXPECT_FALSE(parse_angle("% 5").ok);
}

TEST(Angle, StandardTapers) {
  const std::pair<const char*, double> tapers[] = {{"1:3", 18.9246},  {"1:5", 11.4212}, {"1:10", 5.7248},
                                                   {"1:20", 2.8642},  {"1:50", 1.1459}, {"1 in 4", 14.2500},
                                                   {"7:24", 16.5943}, {"1:16", 3.5798}};
  for (const auto& [text, whole] : tapers) {
    const auto a = parse_angle(text, {.taper = TaperOf::cone});
    ASSERT_TRUE(a.ok) << text << a.message;
    EXPECT_NEAR(degrees(a.radian), whole, 1e-4) << text;
  }
}
