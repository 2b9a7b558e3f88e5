#include "casting/mistakes.h"

#include "sim/slips.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::casting;

namespace {

MistakesInput survey(std::uint64_t seed, double roughness = 0.12) {
  sim::PedestalOptions options;
  options.seed = seed;
  options.roughness = roughness;
  return sim::booked(sim::random_pedestal(options));
}

struct Score {
  int put = 0, found = 0, explained = 0, flagged = 0, good = 0;
};

Score trial(MistakeKind kind, int surveys) {
  Score score;
  for (int k = 0; k < surveys; ++k) {
    auto input = survey(static_cast<std::uint64_t>(k) + 100);
    const auto slip = sim::put_in_slip(input, kind, static_cast<std::uint64_t>(k));
    if (slip.touch < 0) continue;
    ++score.put;
    score.good += static_cast<int>(input.touches.size()) - 1;
    for (const auto& mistake : find_mistakes(input).mistakes)
      if (mistake.touch == slip.touch) {
        ++score.found;
        score.explained += mistake.kind == kind ? 1 : 0;
      } else {
        ++score.flagged;
      }
  }
  return score;
}

} // namespace

// The slips are common practice at the height gauge. 95 % found, under 2 % of good touches called wrong.
class EverySlip : public testing::TestWithParam<MistakeKind> {};

TEST_P(EverySlip, IsFoundAndMostlyExplained) {
  const auto score = trial(GetParam(), 60);
  ASSERT_GE(score.put, 55);
  EXPECT_GE(score.found, 0.95 * score.put);
  EXPECT_GE(score.explained, 0.8 * score.put);
  EXPECT_LE(score.flagged, 0.02 * score.good);
}

INSTANTIATE_TEST_SUITE_P(Mistakes, EverySlip,
                         testing::Values(MistakeKind::dial_turn, MistakeKind::sign, MistakeKind::inch_for_mm,
                                         MistakeKind::mm_for_inch, MistakeKind::radius,
                                         MistakeKind::wrong_surface));

TEST(Mistakes, ThreeInOneSurveyAreAllFound) {
  auto input = survey(9);
  const auto a = sim::put_in_slip(input, MistakeKind::sign, 1);
  const auto b = sim::put_in_slip(input, MistakeKind::wrong_surface, 2);
  const auto c = sim::put_in_slip(input, MistakeKind::radius, 3);
  std::vector<int> found;
  for (const auto& mistake : find_mistakes(input).mistakes) found.push_back(mistake.touch);
  for (const auto& slip : {a, b, c})
    EXPECT_TRUE(std::count(found.begin(), found.end(), slip.touch)) << slip.touch;
}

TEST(Mistakes, TheSuggestionPutsTheTouchBackWhereItWas) {
  const auto clean = survey(11, 0.08);
  auto input = clean;
  auto& touch = input.touches[3]; // on the foot, z says where it is
  touch.centre.z() += 1;
  const auto result = find_mistakes(input);
  ASSERT_EQ(result.mistakes.size(), 1U);
  const auto& mistake = result.mistakes[0];
  EXPECT_EQ(mistake.touch, 3);
  EXPECT_EQ(mistake.kind, MistakeKind::dial_turn);
  EXPECT_EQ(mistake.reason, "z is one turn of the dial (1 mm) too much");
  EXPECT_LT((mistake.centre - clean.touches[3].centre).norm(), 1e-9);
  EXPECT_NEAR(mistake.off, -1, 0.5);
  EXPECT_LT(std::abs(mistake.left), std::abs(mistake.off));
}

TEST(Mistakes, WhatNothingExplainsIsSaidToBeTouchedAgain) {
  auto input = survey(12);
  input.touches[5].centre.z() -= 1.7;
  input.touches[5].tip_radius = 0; // no radius to blame
  const auto result = find_mistakes(input);
  ASSERT_GE(result.mistakes.size(), 1U);
  EXPECT_EQ(result.mistakes[0].touch, 5);
  EXPECT_NE(result.mistakes[0].reason.find("the others on foot: touch it again"), std::string::npos)
      << result.mistakes[0].reason;
}

TEST(Mistakes, AHandfulOfTouchesIsNotJudged) {
  auto input = survey(13);
  input.touches.resize(6);
  EXPECT_EQ(find_mistakes(input).status, MistakesStatus::too_few);
  input.touches.clear();
  EXPECT_EQ(find_mistakes(input).status, MistakesStatus::too_few);
}
