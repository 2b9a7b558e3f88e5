#include "margin/lexicographic.h"
#include "margin/nearest.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

using namespace datrin::margin;

// Two plates on one bed: the tight one is shared out first, the other still as well as it can be.
TEST(Lexicographic, SecondLevelIsNotLeftAtTheFirst) {
  LinearMargins margins(2);
  margins.add_row(0, 1.0, {{0, 1.0}});
  margins.add_row(1, 1.0, {{0, -1.0}});
  margins.add_row(2, 4.0, {{1, 1.0}});
  margins.add_row(3, 6.0, {{1, -1.0}});
  const auto result = lexicographic({&margins, {}});
  ASSERT_EQ(result.status, LexicographicStatus::optimal);
  EXPECT_NEAR(result.group_margins[0], 1.0, 1e-8);
  EXPECT_NEAR(result.group_margins[2], 5.0, 1e-8);
  EXPECT_NEAR(result.group_margins[3], 5.0, 1e-8);
  EXPECT_LT(result.group_level[0], result.group_level[2]);
}

TEST(Lexicographic, NoRandomPointIsBetterInOrder) {
  std::mt19937 random(17);
  std::normal_distribution<double> normal;
  std::uniform_real_distribution<double> uniform(-1, 1);
  for (int n = 0; n < 10; ++n) {
    LinearMargins margins(3);
    for (int i = 0; i < 24; ++i)
      margins.add_row(i % 6, normal(random), {{0, normal(random)}, {1, normal(random)}, {2, normal(random)}});
    margins.lower.setConstant(-1);
    margins.upper.setConstant(1);
    const auto result = lexicographic({&margins, {}});
    ASSERT_TRUE(result.usable()) << result.message;
    auto best = result.group_margins;
    std::sort(best.begin(), best.end());
    for (int k = 0; k < 2000; ++k) {
      const Eigen::Vector3d x(uniform(random), uniform(random), uniform(random));
      std::vector<double> other(6, infinite);
      for (int i = 0; i < margins.rows(); ++i) {
        auto& least = other[static_cast<std::size_t>(margins.group(i))];
        least = std::min(least, margins.value(i, x));
      }
      std::sort(other.begin(), other.end());
      for (std::size_t g = 0; g < 6; ++g) {
        EXPECT_LE(other[g], best[g] + 1e-6);
        if (other[g] < best[g] - 1e-6) break;
      }
    }
  }
}

TEST(Lexicographic, WhatIsFreeStaysWhereItWasWished) {
  LinearMargins margins(2);
  margins.add_row(0, 1.0, {{0, 1.0}});
  margins.add_row(1, 1.0, {{0, -1.0}});
  Eigen::VectorXd wished(2);
  wished << 0.4, -7.0;
  const auto result = lexicographic({&margins, wished});
  ASSERT_TRUE(result.usable());
  EXPECT_NEAR(result.x[0], 0.0, 1e-7);
  EXPECT_NEAR(result.x[1], -7.0, 1e-9);
}

TEST(Lexicographic, NothingLimits) {
  LinearMargins margins(1);
  margins.add_row(0, 0.0, {{0, 1.0}});
  EXPECT_EQ(lexicographic({&margins, {}}).status, LexicographicStatus::unbounded);
}

TEST(Nearest, MovesOnlyWhatItMust) {
  LinearMargins margins(2);
  margins.add_row(0, 0.0, {{0, 1.0}, {1, 0.5}});
  Eigen::VectorXd wished = Eigen::VectorXd::Zero(2);
  const auto result = nearest({&margins, {2.0}, wished, {}});
  ASSERT_TRUE(result.usable());
  EXPECT_NEAR(result.x[0], 2.0, 1e-9);
  EXPECT_NEAR(result.x[1], 0.0, 1e-9);
  margins.upper.setConstant(0.5);
  EXPECT_EQ(nearest({&margins, {2.0}, wished, {}}).status, NearestStatus::infeasible);
}

// A tier is levelled to the end before the next counts at all; with "enough" it is raised to that, and has
// what is left.
TEST(Lexicographic, TiersComeOneAfterTheOther) {
  LinearMargins margins(1);
  margins.add_row(0, 0.0, {{0, 1.0}});   // x
  margins.add_row(1, 10.0, {{0, -1.0}}); // 10 − x
  margins.add_row(2, 2.0, {{0, -1.0}});  // 2 − x, of the second tier
  const auto strict = lexicographic({&margins, {}, {0, 0, 1}});
  ASSERT_TRUE(strict.usable());
  EXPECT_NEAR(strict.x[0], 5, 1e-9);
  EXPECT_NEAR(strict.least, 5, 1e-9);
  LexicographicOptions options;
  options.enough = 1;
  const auto enough = lexicographic({&margins, {}, {0, 0, 1}}, options);
  ASSERT_TRUE(enough.usable());
  EXPECT_NEAR(enough.x[0], 1, 1e-7);
}

// Parts that share no row are levelled each by itself, and give what the whole would.
TEST(Lexicographic, PiecesThatDoNotSeeEachOther) {
  LinearMargins margins(40);
  for (int j = 0; j < 40; ++j) {
    margins.add_row(2 * j, 1.0 + j, {{j, 1.0}});
    margins.add_row(2 * j + 1, 3.0 + j, {{j, -1.0}});
  }
  const auto result = lexicographic({&margins, {}});
  ASSERT_TRUE(result.usable());
  for (int j = 0; j < 40; ++j)
    EXPECT_NEAR(result.group_margins[static_cast<std::size_t>(2 * j)], 2.0 + j, 1e-8);
  EXPECT_NEAR(result.least, 2, 1e-9);
  EXPECT_EQ(result.programmes, 0); // of one variable each: in closed form
}
