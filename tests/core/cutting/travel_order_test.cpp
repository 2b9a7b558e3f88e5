// Places in the order of little travel, beside every order there is.

#include "cutting/travel_order.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

using namespace datrin;
using namespace datrin::cutting;

// Against every order of seven places.
TEST(TravelOrder, IsShortBesideEveryOrder) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> at(0, 100);
  double worst = 1;
  for (int trial = 0; trial < 20; ++trial) {
    std::vector<Vec2> places;
    for (int k = 0; k < 7; ++k) places.emplace_back(at(random), at(random));
    double travel = 0;
    const auto order = travel_order(places, &travel);
    auto sorted = order;
    std::sort(sorted.begin(), sorted.end());
    std::vector<std::size_t> all{0, 1, 2, 3, 4, 5, 6};
    EXPECT_EQ(sorted, all);
    // The best that begins where it begins.
    double best = 1e9;
    do {
      if (all[0] != order[0]) continue;
      double far = 0;
      for (std::size_t k = 0; k + 1 < all.size(); ++k) far += (places[all[k + 1]] - places[all[k]]).norm();
      best = std::min(best, far);
    } while (std::next_permutation(all.begin(), all.end()));
    EXPECT_GE(travel, best - 1e-9);
    worst = std::max(worst, travel / best);
  }
  EXPECT_LT(worst, 1.15);
  EXPECT_TRUE(travel_order({}).empty());
}
