// Places in the order of little travel, beside every order there is.

#include "cutting/travel_order.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

using namespace datrin;
using namespace datrin::cutting;

namespace {

double length_of(const std::vector<Vec2>& places, const std::vector<std::size_t>& order) {
  double far = 0;
  for (std::size_t k = 0; k + 1 < order.size(); ++k) far += (places[order[k + 1]] - places[order[k]]).norm();
  return far;
}

std::vector<std::size_t> each_once(const TravelOrder& found) {
  auto sorted = found.order;
  std::sort(sorted.begin(), sorted.end());
  return sorted;
}

} // namespace

// Against every order of eight places: it was up to 19 % longer and called the shortest.
TEST(TravelOrder, IsTheShortestOfAllUpToADozen) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> at(0, 100);
  for (int trial = 0; trial < 12; ++trial) {
    std::vector<Vec2> places;
    for (int k = 0; k < 8; ++k) places.emplace_back(at(random), at(random));
    const auto found = travel_order(places);
    std::vector<std::size_t> all{0, 1, 2, 3, 4, 5, 6, 7};
    EXPECT_EQ(each_once(found), all);
    EXPECT_TRUE(found.shortest);
    double best = 1e9;
    do best = std::min(best, length_of(places, all));
    while (std::next_permutation(all.begin(), all.end()));
    EXPECT_NEAR(found.travel, best, 1e-9);
    EXPECT_NEAR(length_of(places, found.order), best, 1e-9);
    EXPECT_LE(places[found.order.front()].norm(), places[found.order.back()].norm());
  }
  EXPECT_TRUE(travel_order({}).order.empty());
  EXPECT_EQ(travel_order({Vec2(3, 4)}).order.size(), 1U);
}

// Of more: no stretch turned round makes it shorter, and it does not say it is the shortest.
TEST(TravelOrder, OfMoreNothingHelpsAnyMore) {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> at(0, 100);
  std::vector<Vec2> places;
  for (int k = 0; k < 40; ++k) places.emplace_back(at(random), at(random));
  const auto found = travel_order(places);
  EXPECT_FALSE(found.shortest);
  for (std::size_t k = 0; k < 40; ++k) EXPECT_EQ(each_once(found)[k], k);
  for (std::size_t a = 0; a < 40; ++a)
    for (std::size_t b = a + 1; b < 40; ++b) {
      auto turned = found.order;
      std::reverse(turned.begin() + static_cast<std::ptrdiff_t>(a),
                   turned.begin() + static_cast<std::ptrdiff_t>(b) + 1);
      EXPECT_GE(length_of(places, turned), found.travel - 1e-9);
    }
  for (std::size_t from = 0; from < 40; ++from)
    for (std::size_t to = 0; to < 40; ++to) {
      auto moved = found.order;
      const auto one = moved[from];
      moved.erase(moved.begin() + static_cast<std::ptrdiff_t>(from));
      moved.insert(moved.begin() + static_cast<std::ptrdiff_t>(to), one);
      EXPECT_GE(length_of(places, moved), found.travel - 1e-9);
    }
  EXPECT_NEAR(length_of(places, found.order), found.travel, 1e-9);
  // Places along a line are gone to along it.
  std::vector<Vec2> line;
  for (int k = 0; k < 30; ++k) line.emplace_back(k * 7 % 30, 0);
  EXPECT_NEAR(travel_order(line).travel, 29, 1e-9);
}
