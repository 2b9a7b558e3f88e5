#include "sim/hands.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using datrin::sim::Hands;

// 95 % of what is made lands within the stated capability; slips reach as far as they are said to.
TEST(Hands, LandWithinWhatTheyCanHold) {
  Hands steady({.slips = 0, .seed = 3});
  int within = 0;
  for (int k = 0; k < 20000; ++k) within += std::abs(steady.make(10, 0.02) - 10) <= 0.02;
  EXPECT_NEAR(within / 20000.0, 0.954, 0.006); // two standard deviations of a normal distribution
  Hands slipping({.slips = 1, .slip_size = 5, .seed = 3});
  double most = 0;
  for (int k = 0; k < 5000; ++k) most = std::max(most, std::abs(slipping.make(10, 0.02) - 10));
  EXPECT_GT(most, 0.09);
  EXPECT_LT(most, 0.16);
  Hands again({.slips = 0, .seed = 3}), same({.slips = 0, .seed = 3});
  EXPECT_EQ(again.make(1, 0.1), same.make(1, 0.1));
}
