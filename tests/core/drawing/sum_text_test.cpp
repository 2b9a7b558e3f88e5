#include "drawing/sum_text.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::drawing;

TEST(SumText, NamesCountsAndLengths) {
  const std::vector<std::string> names{"barrel", "end flange", "T-slot"};
  const auto sum = parse_sum("barrel + 2 x end flange \u2212 1/8 in", names);
  ASSERT_TRUE(sum.ok) << sum.message;
  ASSERT_EQ(sum.terms.size(), 3U);
  EXPECT_EQ(sum.terms[0].dimension, 0);
  EXPECT_EQ(sum.terms[1].dimension, 1);
  EXPECT_EQ(sum.terms[1].count, 2);
  EXPECT_EQ(sum.terms[2].dimension, -1);
  EXPECT_EQ(sum.terms[2].count, -1);
  EXPECT_NEAR(sum.terms[2].mm, 3.175, 1e-12);
  EXPECT_EQ(parse_sum("1/2 x barrel", names).terms.at(0).count, 0.5);
  EXPECT_EQ(parse_sum("T-slot", names).terms.at(0).dimension, 2);
  EXPECT_EQ(parse_sum("2\u00D7barrel", names).terms.at(0).count, 2);
}

TEST(SumText, WhatIsNotKnownIsNamed) {
  EXPECT_EQ(parse_sum("barel + 2 mm", {"barrel"}).message,
            "\"barel\" is no dimension of this part and no length (did you mean \"barrel\"?)");
  EXPECT_EQ(parse_sum("barrel +", {"barrel"}).message, "a term is missing");
  EXPECT_EQ(parse_sum("", {}).message, "a term is missing");
}
