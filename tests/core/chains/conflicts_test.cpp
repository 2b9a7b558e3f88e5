// What fights is a smallest set of limits, and each of its least changes ends it: by that much, not by less.

#include "chains/conflicts.h"

#include "tests/core/chains/two_bushes.h"

#include <gtest/gtest.h>

#include <random>

using namespace datrin;
using namespace datrin::chains;
using datrin::test::shaft_in_two_bushes;

namespace {

void ease(TargetsInput& in, const ConflictWay& way, double by) {
  if (way.condition >= 0) {
    auto& c = in.conditions[static_cast<std::size_t>(way.condition)];
    (way.upper ? c.most : c.least) += way.upper ? by : -by;
  } else {
    auto& d = in.dimensions[static_cast<std::size_t>(way.dimension)];
    (way.upper ? d.upper : d.lower) += way.upper ? by : -by;
  }
}

} // namespace

TEST(Conflicts, TwoFitsFightOverOneShaft) {
  const auto in = shaft_in_two_bushes();
  const auto found = conflicts(in, targets(in));
  ASSERT_EQ(found.size(), 1U);
  ASSERT_EQ(found[0].ways.size(), 2U);
  // 12.030 less the most of A, less 12.000 and the least of B: what the person is shown.
  const auto sum = conflict_sum(in, found[0]);
  EXPECT_EQ(sum.lines.size(), 4U);
  EXPECT_NEAR(sum.total(), 12.030 - 0.020 - (12.000 - 0.010), 1e-9);
  // By hand: A wants 12.010 to 12.020, B 11.980 to 11.990; they are 0.020 apart.
  for (const auto& way : found[0].ways) EXPECT_NEAR(way.by, 0.020, 1e-9);
  EXPECT_EQ(conflict_words(in, found[0], Unit::mm),
            "the most of A must grow by 0.0200\u202Fmm, or the least of B must shrink by 0.0200\u202Fmm");
  EXPECT_EQ(conflict_words(in, found[0], Unit::inch),
            "the most of A must grow by 0.00079\u202Fin, or the least of B must shrink by 0.00079\u202Fin");
}

// It named 0.0186 as 0.019 and, with other joints about, another joint's limit.
TEST(Conflicts, TheLeastChangeIsRightToTheDigit) {
  auto in = shaft_in_two_bushes();
  in.dimensions[1].measured = 12.0086;
  in.dimensions[0].measured = 11.97; // both made: 0.0386 of clearance where 0.020 is the most
  const auto found = conflicts(in, targets(in));
  ASSERT_EQ(found.size(), 2U); // B, with 0.030, is one of its own
  ASSERT_EQ(found[0].ways.size(), 1U);
  EXPECT_EQ(conflict_words(in, found[0], Unit::mm), "the most of A must grow by 0.0186\u202Fmm");
  EXPECT_EQ(conflict_words(in, found[1], Unit::mm), "the most of B must grow by 0.0100\u202Fmm");
}

// What is typed as it stands in the sentence ends it: a change is never rounded down.
TEST(Conflicts, AChangeIsRoundedUp) {
  auto in = shaft_in_two_bushes();
  in.dimensions[0].measured = 11.97;
  in.dimensions[1].measured = 12.008621;
  const auto found = conflicts(in, targets(in));
  EXPECT_EQ(way_words(in, found[0].ways[0], Unit::mm), "the most of A must grow by 0.0187\u202Fmm");
  EXPECT_EQ(way_words(in, found[0].ways[0], Unit::inch), "the most of A must grow by 0.00074\u202Fin");
}

TEST(Conflicts, LimitsNobodyGaveNeverCount) {
  TargetsInput in;
  in.dimensions.push_back({"pin", 10, 0, 20, 0.005, {}, 0, false});
  in.dimensions.push_back({"bush", 40, 40, 40, 0.005, 40.0, 0.001});
  in.conditions.push_back({"fit", {{1, 1}, {0, -1}}, 0.010, 0.020}); // wants a pin of 39.98
  EXPECT_TRUE(conflicts(in, targets(in)).empty()); // it wants another pin: nobody said it may not
  in.dimensions[0].limited = true;
  ASSERT_EQ(conflicts(in, targets(in)).size(), 1U);
  EXPECT_TRUE(conflicts(in, targets(in))[0].concerns_dimension(0));
}

// Random builds: the least changes named, made together, leave nothing that cannot be held; and each way of
// the first conflict ends that conflict by its own amount and not by a hundredth less.
TEST(Conflicts, EachWayEndsItAndLessDoesNot) {
  std::mt19937 random(7);
  const auto number = [&](double low, double high) {
    return std::uniform_real_distribution(low, high)(random);
  };
  int seen = 0;
  for (int round = 0; round < 300; ++round) {
    TargetsInput in;
    const int n = 3 + static_cast<int>(random() % 6);
    for (int d = 0; d < n; ++d) {
      TargetDimension dimension{"d" + std::to_string(d), 10, 9.97, 10.03, number(0.002, 0.02), {}, 0.001};
      if (random() % 3 == 0) dimension.measured = number(9.95, 10.05);
      in.dimensions.push_back(dimension);
    }
    for (int c = 0; c < n; ++c) {
      const int a = static_cast<int>(random() % static_cast<unsigned>(n));
      const int b = (a + 1 + static_cast<int>(random() % static_cast<unsigned>(n - 1))) % n;
      const double least = number(-0.04, 0.04);
      in.conditions.push_back({"c" + std::to_string(c),
                               {{a, 1}, {b, c % 4 == 0 ? -2.0 : -1.0}},
                               least,
                               least + number(0.001, 0.02)});
      if (c % 4 == 0) in.conditions.back().least -= 10, in.conditions.back().most -= 10;
    }
    const auto result = targets(in);
    ASSERT_TRUE(result.usable()) << result.message;
    const auto found = conflicts(in, result);
    EXPECT_EQ(found.empty(), result.feasible);
    if (found.empty()) continue;
    ++seen;
    for (const auto& conflict : found)
      EXPECT_NEAR(conflict_sum(in, conflict).total(), conflict.ways.front().by, 1e-9) << round;
    auto mended = in;
    for (const auto& conflict : found) ease(mended, conflict.ways.front(), conflict.ways.front().by + 1e-9);
    EXPECT_TRUE(targets(mended).feasible) << round;
    // The first conflict by itself: only its limits.
    const auto only = [&](const Conflict& conflict) {
      auto alone = in;
      for (std::size_t d = 0; d < alone.dimensions.size(); ++d) {
        bool lower = false, upper = false;
        for (const auto& way : conflict.ways)
          if (way.dimension == static_cast<int>(d)) (way.upper ? upper : lower) = true;
        if (!lower) alone.dimensions[d].lower = -100;
        if (!upper) alone.dimensions[d].upper = 100;
      }
      for (std::size_t c = 0; c < alone.conditions.size(); ++c) {
        bool least = false, most = false;
        for (const auto& way : conflict.ways)
          if (way.condition == static_cast<int>(c)) (way.upper ? most : least) = true;
        if (!least) alone.conditions[c].least = -1000;
        if (!most) alone.conditions[c].most = 1000;
      }
      return alone;
    };
    for (const auto& way : found[0].ways)
      for (const double factor : {0.99, 1.0 + 1e-6}) {
        auto eased = only(found[0]);
        ease(eased, way, factor * way.by + (factor > 1 ? 1e-8 : 0));
        EXPECT_EQ(targets(eased).feasible, factor > 1) << round;
      }
  }
  EXPECT_GT(seen, 100);
}
