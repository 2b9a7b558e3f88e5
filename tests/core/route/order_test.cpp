// The best order against every order there is, on small parts; and what the words of the result say.

#include "route/order.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <numeric>
#include <random>

using namespace datrin::route;

namespace {

/// Random operations on a few setups and tools, some in whatever stands, each after some of those before it
/// in a hidden order.
OrderInput random_part(std::uint64_t seed, std::size_t n, Manner manner, int pieces) {
  std::mt19937_64 random(seed);
  const auto below = [&](int m) { return static_cast<int>(random() % static_cast<std::uint64_t>(m)); };
  OrderInput in;
  in.manner = manner;
  in.pieces = pieces;
  in.setup_minutes = below(5) == 0 ? 0 : 10 + below(20);
  in.tool_minutes = below(5) == 0 ? 0 : 1 + below(6);
  for (std::size_t k = 0; k < n; ++k) {
    RouteStep o;
    o.id = fmt::format("op {}", k);
    if (below(4) > 0) o.setup = std::string(1, static_cast<char>('A' + below(3)));
    if (below(5) > 0) o.tool = std::string(1, static_cast<char>('p' + below(3)));
    o.minutes = below(20);
    for (std::size_t j = 0; j < k; ++j)
      if (below(4) == 0) o.after.push_back(static_cast<int>(j));
    in.operations.push_back(o);
  }
  std::vector<int> shuffled(n);
  std::iota(shuffled.begin(), shuffled.end(), 0);
  std::shuffle(shuffled.begin(), shuffled.end(), random);
  OrderInput mixed = in;
  for (std::size_t k = 0; k < n; ++k) {
    auto o = in.operations[k];
    for (auto& before : o.after) before = shuffled[static_cast<std::size_t>(before)];
    mixed.operations[static_cast<std::size_t>(shuffled[k])] = o;
  }
  return mixed;
}

double least_of_all(const OrderInput& in) {
  std::vector<int> order(in.operations.size());
  std::iota(order.begin(), order.end(), 0);
  double least = 1e300;
  do {
    if (order_wrong(in, order).empty()) least = std::min(least, cost_of(in, order).minutes);
  } while (std::next_permutation(order.begin(), order.end()));
  return least;
}

RouteStep op(const char* id, const char* setup, const char* tool, double minutes,
             std::vector<int> after = {}) {
  return {id, setup, tool, minutes, std::move(after)};
}

} // namespace

class EveryOrder : public testing::TestWithParam<std::pair<Manner, int>> {};

TEST_P(EveryOrder, NoneTakesLess) {
  const auto [manner, pieces] = GetParam();
  for (std::uint64_t seed = 1; seed <= 60; ++seed) {
    const auto in = random_part(seed * 31 + static_cast<std::uint64_t>(pieces), 4 + seed % 4, manner, pieces);
    const auto best = best_order(in);
    ASSERT_TRUE(best.usable()) << best.message;
    EXPECT_EQ(order_wrong(in, best.order), "");
    EXPECT_TRUE(best.proved_best);
    EXPECT_NEAR(best.minutes, least_of_all(in), 1e-9) << seed;
    EXPECT_NEAR(best.minutes, cost_of(in, best.order).minutes, 1e-9);
    EXPECT_EQ(best.lower_bound, best.minutes);
    // Stopped at once it still has an order and a bound that holds.
    OrderOptions in_haste;
    in_haste.most_states = 0;
    in_haste.beam = 1;
    const auto hasty = best_order(in, in_haste);
    EXPECT_EQ(order_wrong(in, hasty.order), "");
    EXPECT_LE(hasty.lower_bound, best.minutes + 1e-9) << seed;
    EXPECT_GE(hasty.minutes, best.minutes - 1e-9);
  }
}

INSTANTIATE_TEST_SUITE_P(Route, EveryOrder,
                         testing::Values(std::pair(Manner::part_by_part, 1),
                                         std::pair(Manner::part_by_part, 4),
                                         std::pair(Manner::operation_by_operation, 1),
                                         std::pair(Manner::operation_by_operation, 4)));

// 10 and 20 may run side by side, 30 waits for both (common practice): held once for 10 and 30, the other way
// up for 20, it is turned over twice: 20 first, then 10 and 30.
TEST(Order, TwoFreeAndOneAfterBoth) {
  OrderInput in;
  in.operations = {op("10", "top up", "cutter", 5), op("20", "foot up", "cutter", 7),
                   op("30", "top up", "drill", 3, {0, 1})};
  in.setup_minutes = 15;
  in.tool_minutes = 2;
  const auto best = best_order(in);
  EXPECT_EQ(best.order, (std::vector<int>{1, 0, 2}));
  EXPECT_EQ(best.setups, 2);
  EXPECT_EQ(best.tool_changes, 2);
  EXPECT_NEAR(best.minutes, 15 + 2 * 15 + 2 * 2, 1e-12);
}

// Ten pieces, drilled and tapped in one vise: part by part the tool is changed with every piece, 10 x (15 + 2
// x 2); operation by operation each is put in twice instead, 20 x 15, and the tool changed twice in all.
TEST(Order, ABatchLoadsEveryPieceAgainOrChangesTheToolEveryTime) {
  OrderInput in;
  in.operations = {op("drill", "vise", "drill", 1), op("tap", "vise", "tap", 2, {0})};
  in.setup_minutes = 15;
  in.tool_minutes = 2;
  in.pieces = 10;
  EXPECT_NEAR(best_order(in).minutes, 10 * (3 + 15 + 4), 1e-12);
  in.manner = Manner::operation_by_operation;
  const auto batch = best_order(in);
  EXPECT_NEAR(batch.minutes, 10 * 3 + 20 * 15 + 2 * 2, 1e-12);
  EXPECT_EQ(batch.loadings, 20);
  in.pieces = 1; // one piece stays in the vise
  EXPECT_NEAR(best_order(in).minutes, 3 + 15 + 4, 1e-12);
}

TEST(Order, WhatNeedsNoSetupOfItsOwnIsDoneInWhateverStands) {
  OrderInput in;
  in.operations = {op("file the burr", "", "file", 1), op("mill", "vise", "cutter", 5),
                   op("turn", "chuck", "tool", 5)};
  in.setup_minutes = 10;
  const auto best = best_order(in);
  EXPECT_EQ(best.setups, 2);
  EXPECT_NEAR(best.minutes, 31, 1e-12);
}

TEST(Order, ACycleIsNamedAndBadInputRefused) {
  OrderInput in;
  in.operations = {op("face", "A", "", 1, {2}), op("drill", "A", "", 1), op("bore", "A", "", 1, {0})};
  const auto cycle = best_order(in);
  EXPECT_EQ(cycle.status, OrderStatus::cycle);
  EXPECT_EQ(cycle.message, "face needs bore needs face");
  in.operations[0].after = {7};
  EXPECT_EQ(best_order(in).message, "face: comes after an operation that is not there");
  in.operations[0].after = {0};
  EXPECT_EQ(best_order(in).message, "face needs face");
  in.operations[0].after.clear();
  in.operations[1].minutes = -1;
  EXPECT_EQ(best_order(in).message, "drill: minutes must not be below 0");
  in.operations[1].minutes = 1;
  in.pieces = 0;
  EXPECT_EQ(best_order(in).message, "there must be at least one piece");
  EXPECT_EQ(best_order({}).status, OrderStatus::ordered);
  EXPECT_EQ(order_wrong({.operations = {op("a", "", "", 1), op("b", "", "", 1, {0})}}, {1, 0}),
            "b comes before a, which it needs");
}

// Forty operations, as many as a model part has, are ordered with a bound that holds.
TEST(Order, FortyOperations) {
  for (const auto manner : {Manner::part_by_part, Manner::operation_by_operation}) {
    const auto in = random_part(7, 40, manner, 3);
    const auto best = best_order(in);
    ASSERT_TRUE(best.usable());
    EXPECT_EQ(order_wrong(in, best.order), "");
    EXPECT_LE(best.lower_bound, best.minutes + 1e-9);
    EXPECT_GT(best.lower_bound, 0.8 * best.minutes);
  }
}
