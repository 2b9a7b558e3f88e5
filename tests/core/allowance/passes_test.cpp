#include "allowance/passes.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::allowance;

namespace {
constexpr double inch = 25.4, thou = 0.0254;
}

// Common practice, steel bar: 0.4375 = 0.0975 + 0.150 + 0.150 + 0.040 in.
TEST(Passes, FirstTakesWhatWholePassesLeave) {
  const auto plan =
      plan_passes({0.4375 * inch, 0.4375 * inch, 0, 0.150 * inch, 0, 0.040 * inch, 0, 0.015 * inch, false});
  ASSERT_TRUE(plan.usable()) << plan.message;
  ASSERT_EQ(plan.passes.size(), 4U);
  const double depths[] = {0.0975, 0.150, 0.150, 0.040};
  for (std::size_t k = 0; k < 4; ++k) EXPECT_NEAR(plan.passes[k].depth / inch, depths[k], 1e-9);
  EXPECT_EQ(plan.passes.back().kind, PassKind::finish);
  EXPECT_EQ(plan.passes.back().left, 0);
  EXPECT_TRUE(plan.cleans_up);
}

TEST(Passes, OrAllAlike) {
  const auto plan =
      plan_passes({0.4375 * inch, 0.4375 * inch, 0, 0.150 * inch, 0, 0.040 * inch, 0, 0.015 * inch, true});
  ASSERT_EQ(plan.passes.size(), 4U);
  for (std::size_t k = 0; k < 3; ++k) EXPECT_NEAR(plan.passes[k].depth / inch, (0.4375 - 0.040) / 3, 1e-9);
}

// Common practice: cheap inserts do not cut thinner than 0.015 in.
TEST(Passes, NoCutIsThinnerThanTheToolTakes) {
  const auto plan = plan_passes({2, 2, 0, 1.5, 0, 0.1, 0, 0.015 * inch, false});
  EXPECT_NEAR(plan.passes.back().depth, 0.015 * inch, 1e-9);
  ASSERT_EQ(plan.remarks.size(), 1U);
  EXPECT_EQ(plan.remarks[0],
            "a finishing cut of 0.100\u202Fmm is thinner than the tool can take; 0.381\u202Fmm is planned");
}

TEST(Passes, TheFirstGetsUnderTheSkinAtTheHighestPlace) {
  const auto plan = plan_passes({1.7, 1.2, 0.7, 1.0, 0, 0.3, 0, 0.05, false});
  ASSERT_TRUE(plan.usable());
  EXPECT_GE(plan.passes.front().depth, 0.7 - 1e-9);
  EXPECT_TRUE(plan.cleans_up);
  EXPECT_FALSE(plan.passes.front().all_clean);
  EXPECT_TRUE(plan.passes.back().all_clean);
  const auto thin = plan_passes({1.7, 0.5, 0.7, 1.0, 0, 0.3, 0, 0.05, false});
  EXPECT_FALSE(thin.cleans_up);
  EXPECT_NEAR(thin.short_by, 0.2, 1e-9);
}

// Once the highest place is under the skin the lowest may still be short of it: the cut does not make it
// whole.
TEST(Passes, AFirstCutDoesNotHideThatTheLowestPlaceIsShort) {
  PassInput in{2.2, 0.3, 0.7, 1.0, 0, 0.3, 0, 0.05, false};
  EXPECT_NEAR(plan_passes(in).short_by, 0.4, 1e-9);
  in.most = 1.2;
  in.taken = 1.0;
  EXPECT_NEAR(plan_passes(in).short_by, 0.4, 1e-9);
  EXPECT_FALSE(plan_passes(in).cleans_up);
  in.most = 0;
  in.taken = 2.2;
  EXPECT_NEAR(plan_passes(in).short_by, 0.4, 1e-9);
  in.taken = 0; // the lowest above the highest
  EXPECT_EQ(plan_passes(in).message, "the least metal is more than the most");
}

TEST(Passes, AlwaysAddUpAndKeepTheirRules) {
  std::mt19937_64 random(11);
  std::uniform_real_distribution<double> even(0, 1);
  for (int k = 0; k < 5000; ++k) {
    PassInput in{6 * even(random),
                 0,
                 even(random) < 0.5 ? 0 : even(random),
                 0.3 + 2 * even(random),
                 even(random) < 0.5 ? 0 : 0.4 * even(random),
                 0.5 * even(random),
                 even(random) < 0.5 ? 0 : 0.2 * even(random),
                 0.1 * even(random),
                 even(random) < 0.5};
    in.least = in.most * even(random);
    const auto plan = plan_passes(in);
    if (!plan.usable()) {
      EXPECT_LT(in.most, in.last);
      continue;
    }
    double left = in.most;
    for (const auto& pass : plan.passes) {
      EXPECT_GT(pass.depth, 0);
      left -= pass.depth;
      EXPECT_NEAR(pass.left, left, 1e-9);
      if (in.most - in.last >= in.least_cut) {
        EXPECT_GE(pass.depth, in.least_cut - 1e-9);
      }
    }
    EXPECT_NEAR(left, std::min(in.last, in.most), 1e-9);
    if (in.most - in.last >= in.skin && !plan.passes.empty()) {
      EXPECT_GE(plan.passes.front().depth, in.skin - 1e-9);
    }
  }
}

TEST(Passes, NonsenseIsRefused) {
  EXPECT_EQ(plan_passes({1, 2}).message, "the least metal is more than the most");
  PassInput in{2, 1};
  in.rough = 0;
  EXPECT_EQ(plan_passes(in).message, "a roughing pass must take more than 0");
  in = {2, 1};
  in.finish = -1;
  EXPECT_EQ(plan_passes(in).message, "an allowance must not be negative");
  in = {0.1, 0.1};
  in.last = 0.2;
  EXPECT_EQ(plan_passes(in).message,
            "only 0.100\u202Fmm is left, less than the 0.200\u202Fmm kept for the last step");
  in.most = std::nan("");
  EXPECT_EQ(plan_passes(in).message, "a number is missing");
}

TEST(Passes, TheDialReadsASideOrTheDiameter) {
  EXPECT_DOUBLE_EQ(dial_figure(0.5, {false, Unit::mm, 0.01}), 0.5);
  EXPECT_DOUBLE_EQ(dial_figure(0.5, {true, Unit::mm, 0.01}), 1.0);
  EXPECT_NEAR(dial_figure(0.0975 * inch, {false, Unit::inch, thou}), 0.098, 1e-12); // to the graduation
  EXPECT_NEAR(dial_figure(0.0975 * inch, {true, Unit::inch, thou}), 0.195, 1e-12);
}

// Common practice: passes announced as 57 thou where there are 47.
TEST(Passes, AnnouncedSumsThatDoNotAgree) {
  const auto off = check_announced("0.010 + 0.020 + 0.027", 47 * thou, Unit::inch, false);
  ASSERT_TRUE(off.ok);
  EXPECT_NEAR(off.off, 10 * thou, 1e-9);
  EXPECT_EQ(off.passes.size(), 3U);
  EXPECT_EQ(check_announced("0.010 + 0.037", 47 * thou, Unit::inch, false).verdict,
            "The passes announced add up: 0.0470\u202Fin.");
  EXPECT_NEAR(check_announced("0.2 + 0.1", 0.15, Unit::mm, true).off, 0, 1e-12); // on the diameter
  EXPECT_FALSE(check_announced("a bit", 1, Unit::mm, false).ok);
}

// Common practice: a slide fit is crept up to from 5 thou, a thou at a time, the last two by feel.
TEST(Passes, CreepingUpToAFit) {
  const auto steps = trial_steps(12 * thou);
  const double thous[] = {5, 4, 3, 2, 0};
  ASSERT_EQ(steps.size(), 5U);
  for (std::size_t k = 0; k < 5; ++k) EXPECT_NEAR(steps[k] / thou, thous[k], 1e-9);
  EXPECT_TRUE(trial_steps(0).empty());
}
