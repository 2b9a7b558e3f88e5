// Lines as read-outs send them.

#include "readings/read_out_line.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::readings;

namespace {

double only(std::string_view line, Unit bare = Unit::mm) {
  const auto read = read_out_line(line, bare);
  EXPECT_TRUE(read.understood) << line;
  return read.places.size() == 1 ? read.places[0].mm : -1e9;
}

} // namespace

TEST(ReadOutLine, AxesWithTheirFigures) {
  const auto read = read_out_line("X +12.345 Y -3.200 Z 0.000 mm\r", Unit::inch);
  ASSERT_TRUE(read.understood);
  ASSERT_EQ(read.places.size(), 3U);
  EXPECT_EQ(read.places[1].axis, 'Y');
  EXPECT_NEAR(read.places[0].mm, 12.345, 1e-9); // one at the end is of all
  const auto mixed = read_out_line("X 1 in Y 2 mm Z 3", Unit::mm);
  ASSERT_EQ(mixed.places.size(), 3U);
  EXPECT_NEAR(mixed.places[0].mm, 25.4, 1e-9);
  EXPECT_NEAR(mixed.places[1].mm, 2, 1e-9);
  EXPECT_NEAR(mixed.places[2].mm, 3, 1e-9);
  EXPECT_NEAR(read.places[2].mm, 0, 1e-12);
}

TEST(ReadOutLine, AsTheyAreWritten) {
  EXPECT_NEAR(only("X=0.4921in"), 0.4921 * 25.4, 1e-9);
  EXPECT_NEAR(only("X 0.5 IN"), 12.7, 1e-12);
  EXPECT_NEAR(only("X +  12.345 mm"), 12.345, 1e-12);
  EXPECT_NEAR(only("X - 3.200"), -3.2, 1e-12);
  EXPECT_NEAR(only("12.34"), 12.34, 1e-12);
  EXPECT_NEAR(only("+.5", Unit::inch), 12.7, 1e-12);
  EXPECT_NEAR(only("  7  mm  ", Unit::inch), 7, 1e-12);
  const auto two = read_out_line("X1.5,Y2.5", Unit::mm);
  ASSERT_EQ(two.places.size(), 2U);
  EXPECT_NEAR(two.places[1].mm, 2.5, 1e-12);
}

TEST(ReadOutLine, WhatIsNoReadingIsNone) {
  for (const auto* line :
       {"", "   ", "X", "X Y 3", "hello", "X 1.2.3", "X inf", "X nan", "12 mm mm", "\x01\x02",
        // A comma may part thousands, decimals or two figures; further than any length; two signs.
        "1,234.5", "12,5", "x: -0,25", "X 1e308", "X 10000001 mm", "X 400000 in", "X --3", "X + -3", "X -"})
    EXPECT_FALSE(read_out_line(line, Unit::mm).understood) << line;
}
