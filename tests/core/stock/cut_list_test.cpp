// Sawing pieces from bars: worked by hand, and against every way there is of small lists.

#include "stock/cut_list.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

using namespace datrin::stock;

namespace {

/// The fewest bars by trying every assignment of the pieces.
int fewest(const CutListInput& in) {
  const auto n = in.pieces.size();
  int best = static_cast<int>(n) + 1;
  std::vector<int> bar(n, 0);
  const auto go = [&](auto&& self, std::size_t k, int used) -> void {
    if (used >= best) return;
    if (k == n) {
      best = used;
      return;
    }
    for (int b = 0; b <= used; ++b) {
      double length = 0;
      int count = 1;
      for (std::size_t j = 0; j < k; ++j)
        if (bar[j] == b) {
          length += in.pieces[j];
          ++count;
        }
      // All pieces and a cut between each two; the last cut only where it does not end the bar just so.
      if (length + in.pieces[k] + (count - 1) * in.kerf > in.bar + 1e-9) continue;
      bar[k] = b;
      self(self, k + 1, std::max(used, b + 1));
    }
  };
  go(go, 0, 0);
  return best;
}

} // namespace

// Bars of 300, cuts of 2: 140 + 140 and their two cuts leave 16; 100 + 100 and two cuts leave 96, into which
// a 90 and its cut go.
TEST(CutList, WorkedByHand) {
  CutListInput in;
  in.pieces = {140, 100, 140, 100, 90};
  in.bar = 300;
  const auto r = cut_list(in);
  ASSERT_TRUE(r.usable()) << r.message;
  EXPECT_EQ(r.new_bars, 2);
  EXPECT_TRUE(r.proved);
  EXPECT_NEAR(r.longest_left, 16, 1e-9);
  EXPECT_NEAR(r.lost, 5 * 2, 1e-9);
}

// Two of 149 and one cut of 2 are just a bar of 300: the last needs no cut.
TEST(CutList, WhatEndsTheBarNeedsNoCut) {
  CutListInput in;
  in.pieces = {149, 149};
  in.bar = 300;
  EXPECT_EQ(cut_list(in).new_bars, 1);
  EXPECT_NEAR(cut_list(in).lost, 2, 1e-9);
  in.pieces = {149.1, 149};
  EXPECT_EQ(cut_list(in).new_bars, 2);
}

TEST(CutList, OffcutsAreUsedBeforeABarIsBought) {
  CutListInput in;
  in.pieces = {60, 60, 45};
  in.offcuts = {125, 50};
  in.bar = 1000;
  const auto r = cut_list(in);
  ASSERT_TRUE(r.usable());
  EXPECT_EQ(r.new_bars, 0);
  in.bar = 0; // none can be bought
  EXPECT_TRUE(cut_list(in).usable());
  in.pieces.push_back(45);
  EXPECT_EQ(cut_list(in).message, "the offcuts do not hold all of it: a bar is needed");
}

TEST(CutList, NeedsNoMoreBarsThanTheBestOfAllWays) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> length(20, 160);
  for (int n = 0; n < 60; ++n) {
    CutListInput in;
    in.bar = 300;
    for (int k = 0; k < 8; ++k) in.pieces.push_back(std::round(length(random)));
    const auto r = cut_list(in);
    ASSERT_TRUE(r.usable());
    EXPECT_EQ(r.new_bars, fewest(in)) << n;
    EXPECT_TRUE(r.proved);
    std::vector<int> all;
    for (const auto& bar : r.bars) {
      double used = 0;
      for (const int p : bar.pieces) used += in.pieces[static_cast<std::size_t>(p)];
      EXPECT_LE(used + (static_cast<double>(bar.pieces.size()) - 1) * in.kerf, bar.length + 1e-9);
      all.insert(all.end(), bar.pieces.begin(), bar.pieces.end());
    }
    std::sort(all.begin(), all.end());
    std::vector<int> each(in.pieces.size());
    std::iota(each.begin(), each.end(), 0);
    EXPECT_EQ(all, each); // every piece once
  }
}

TEST(CutList, ALongListIsAnsweredInTimeAndSaysWhetherItIsProved) {
  CutListInput in;
  in.bar = 1000;
  std::mt19937 random(2);
  std::uniform_real_distribution<double> length(20, 400);
  for (int k = 0; k < 200; ++k) in.pieces.push_back(length(random));
  const auto r = cut_list(in);
  ASSERT_TRUE(r.usable());
  EXPECT_GE(r.new_bars, r.least_bars);
  EXPECT_LE(r.new_bars, r.least_bars + 3); // longest first, into the fullest, is never far off
}

// Forty offcuts that nearly hold it, and no bar: it ended only when every way had been tried.
TEST(CutList, WhatCannotBeFoundEndsAsWell) {
  CutListInput in;
  for (int k = 0; k < 40; ++k) {
    in.offcuts.push_back(100 + 0.1 * k);
    for (const double piece : {51.0 + 0.01 * k, 45.0 + 0.013 * k, 5.0 + 0.007 * k})
      in.pieces.push_back(piece);
  }
  const auto r = cut_list(in);
  EXPECT_FALSE(r.usable());
  EXPECT_EQ(r.message, "no way was found in the time there is: take a longer bar, or fewer pieces");
}

TEST(CutList, BadInputIsNamed) {
  EXPECT_EQ(cut_list({}).message, "there is nothing to saw yet");
  CutListInput in;
  in.pieces = {50, 400};
  in.bar = 300;
  EXPECT_EQ(cut_list(in).message, "piece 2 is longer than any bar");
  in.pieces = {50, -1};
  EXPECT_EQ(cut_list(in).message, "piece 2 must be above 0");
  in.pieces = {50};
  in.kerf = -1;
  EXPECT_FALSE(cut_list(in).usable());
}
