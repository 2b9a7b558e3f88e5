#include "quantity/angle.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

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
