#include "fits/pairing.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

using namespace datrin::fits;

namespace {

/// Every way of pairing, the simple way: the least sum of squares and the least worst.
std::pair<double, double> by_trying_all(const PairingInput& in) {
  std::vector<int> order(in.shafts.size());
  std::iota(order.begin(), order.end(), 0);
  double least_sum = 1e9, least_worst = 1e9;
  do {
    double sum = 0, worst = 0;
    for (std::size_t h = 0; h < in.holes.size() && h < order.size(); ++h) {
      const double miss = in.holes[h] - in.shafts[static_cast<std::size_t>(order[h])] - in.target;
      sum += miss * miss;
      worst = std::max(worst, std::abs(miss));
    }
    least_sum = std::min(least_sum, sum);
    least_worst = std::min(least_worst, worst);
  } while (std::next_permutation(order.begin(), order.end()));
  return {least_sum, least_worst};
}

} // namespace

TEST(Pairing, IsTheBestOfAllWaysThereAre) {
  std::mt19937 random(4);
  std::normal_distribution<double> spread(0, 0.01);
  for (int round = 0; round < 30; ++round) {
    PairingInput in;
    in.target = 0.02;
    for (int k = 0; k < 5; ++k) in.holes.push_back(10 + spread(random));
    for (int k = 0; k < 5 + round % 3; ++k) in.shafts.push_back(9.98 + spread(random));
    const auto [sum, worst] = by_trying_all(in);
    const auto all = pair_up(in);
    ASSERT_TRUE(all.ok);
    EXPECT_NEAR(all.sum_squares, sum, 1e-12);
    EXPECT_EQ(all.pairs.size(), 5U);
    EXPECT_EQ(all.spare_shafts.size(), static_cast<std::size_t>(round % 3));
    EXPECT_NEAR(pair_up(in, PairingGoal::worst_pair).worst, worst, 1e-12);
  }
}

TEST(Pairing, SaysWhatToDoWithTheLeftovers) {
  PairingInput in{{10.02, 10.00, 10.05}, {9.99, 9.97}, 0.02, 0.01, 0.04};
  const auto result = pair_up(in);
  ASSERT_TRUE(result.ok);
  ASSERT_EQ(result.spare_holes.size(), 1U);
  EXPECT_EQ(result.spare_holes[0].piece, 2);
  EXPECT_NEAR(result.spare_holes[0].mate, 10.030, 1e-12);
  for (const auto& pair : result.pairs) EXPECT_TRUE(pair.good);
  EXPECT_FALSE(pair_up({{}, {1}, 0, 0, 0}).ok);
}

TEST(Pairing, MoreRowsThanColumnsAndABigOne) {
  EXPECT_EQ(assign_least({{3}, {1}, {2}}), (std::vector<int>{-1, 0, -1}));
  // A hundred of each, sorted sizes: with squared misses, in order is best (the rearrangement inequality).
  PairingInput in;
  for (int k = 0; k < 100; ++k) {
    in.holes.push_back(20 + 0.0007 * k);
    in.shafts.push_back(19.98 + 0.0005 * ((37 * k) % 100));
  }
  double sorted = 0;
  for (int k = 0; k < 100; ++k) sorted += std::pow(20 + 0.0007 * k - 19.98 - 0.0005 * k, 2);
  EXPECT_NEAR(pair_up(in).sum_squares, sorted, 1e-12);
}
