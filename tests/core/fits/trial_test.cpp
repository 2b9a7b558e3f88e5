// Trial fits: where two touch and what comes off, against sums by hand and against the same question asked
// place by place in steps of a hundredth of a millimetre.

#include "fits/trial.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::fits;
using build::Felt;

namespace {

/// A bore of 23 that narrows inside: 22.998 at the mouth, 22.978 at 10 deep, 22.986 at 30.
TrialInput narrow_inside() {
  TrialInput in;
  in.hole = {{0, 0, 22.998}, {10, 0, 22.978}, {30, 0, 22.986}};
  in.shaft = {{0, 0, 22.984}};
  in.felt = Felt::jams;
  in.depth = 7;
  in.length = 30;
  in.wanted = 0.010;
  in.least = 0.005;
  in.most = 0.015;
  in.uncertainty = 0.002;
  return in;
}

} // namespace

// At 7 deep the bore is 22.998 - 7/10 x 0.020 = 22.984: the shaft itself. It wants 22.994 everywhere, which
// the bore has to 2 deep; at 10 deep 16 µm are missing.
TEST(Trial, SaysWhereABoreIsTooTightAndByHowMuch) {
  const auto r = judge_trial(narrow_inside());
  ASSERT_EQ(r.status, TrialStatus::relieve) << r.words;
  EXPECT_NEAR(r.gap, 0, 1e-9);
  EXPECT_NEAR(r.gap_at, 7, 1e-9);
  EXPECT_NEAR(r.off, 0.016, 1e-9);
  EXPECT_NEAR(r.off_at, 10, 1e-9);
  EXPECT_NEAR(r.from, 2.25, 0.16); // where half a micrometre is missing, to the steps it is looked at in
  EXPECT_NEAR(r.to, 30, 1e-9);
  EXPECT_FALSE(r.all_along);
  EXPECT_NE(r.words.find("Lap it there in two goes"), std::string::npos) << r.words; // 16 µm: under a thou
  EXPECT_NEAR(r.sum.total(), r.off, 1e-12);
  EXPECT_NE(r.words.find("most at 10.0"), std::string::npos) << r.words;
  EXPECT_NE(r.words.find("16\u202Fµm on diameter, 8\u202Fµm a side"), std::string::npos) << r.words;
}

// The other way about: the bore stays, 22.978 at its narrowest, and the shaft goes down to 22.968 over all of
// it that comes past 10 deep: 20 of its 30.
TEST(Trial, TheShaftGivesWayOverWhatComesPastTheNarrowPlace) {
  auto in = narrow_inside();
  in.cut_hole = false;
  const auto r = judge_trial(in);
  ASSERT_EQ(r.status, TrialStatus::relieve) << r.words;
  EXPECT_NEAR(r.off, 22.984 + 0.010 - 22.978, 1e-9);
  EXPECT_NEAR(r.from, 0, 1e-9);
  EXPECT_GE(r.to, 20);
  EXPECT_NE(r.words.find("shaft"), std::string::npos);
}

TEST(Trial, ALittleIsForTheLapMoreIsCut) {
  auto in = narrow_inside();
  in.wanted = 0.003;
  in.least = 0.001; // 9 µm at 10 deep
  const auto r = judge_trial(in);
  EXPECT_NEAR(r.off, 0.009, 1e-9);
  EXPECT_TRUE(r.by_hand);
  EXPECT_NE(r.words.find("Lap it there, and try again"), std::string::npos) << r.words;
  in.wanted = 0.030; // 36 µm: more than a thou
  in.least = 0.028;
  const auto much = judge_trial(in);
  EXPECT_FALSE(much.by_hand);
  EXPECT_NE(much.words.find("Bore it, 13\u202Fµm a side at a time"), std::string::npos) << much.words;
}

// It jams where there is clearance by the readings: nothing is to be cut for that (common practice).
TEST(Trial, WhatTheReadingsDoNotExplainIsNotCut) {
  auto in = narrow_inside();
  in.depth = 3; // bore 22.992 there: 8 µm of clearance
  const auto r = judge_trial(in);
  EXPECT_EQ(r.status, TrialStatus::not_the_size) << r.words;
  EXPECT_NEAR(r.gap, 0.008, 1e-9);
  in.felt = Felt::slides; // and it cannot slide through 6 µm of interference
  EXPECT_EQ(judge_trial(in).status, TrialStatus::not_the_size);
}

TEST(Trial, FinishedTooLooseAndToBePressed) {
  TrialInput in;
  in.hole = {{0, 0, 10.010}};
  in.shaft = {{0, 0, 10.000}};
  in.length = 12;
  in.wanted = 0.010;
  in.least = 0.005;
  in.most = 0.015;
  in.felt = Felt::slides;
  EXPECT_EQ(judge_trial(in).status, TrialStatus::finished);
  in.hole[0].diameter = 10.020;
  in.felt = Felt::loose;
  EXPECT_EQ(judge_trial(in).status, TrialStatus::too_loose);
  in.hole[0].diameter = 9.990;
  in.least = -0.015;
  in.most = -0.005;
  in.wanted = -0.010;
  in.felt = Felt::will_not_start;
  const auto press = judge_trial(in);
  EXPECT_EQ(press.status, TrialStatus::finished) << press.words;
  EXPECT_NE(press.words.find("pressed together"), std::string::npos) << press.words;
}

TEST(Trial, AsksForWhatIsMissing) {
  TrialInput in;
  in.felt = Felt::jams;
  EXPECT_EQ(judge_trial(in).status, TrialStatus::bad_input); // how deep?
  in.depth = 8;
  EXPECT_EQ(judge_trial(in).status, TrialStatus::read_first);
  in.shaft = {{0, 0, 12.5}};
  const auto r = judge_trial(in); // the shaft is a gauge
  EXPECT_EQ(r.status, TrialStatus::read_first);
  EXPECT_NE(r.words.find("the hole is 12.500\u202Fmm at least, to 8.0\u202Fmm deep"), std::string::npos)
      << r.words;
  in.length = 6;
  EXPECT_EQ(judge_trial(in).status, TrialStatus::bad_input); // jams beyond its length
  in.length = 20;
  in.hole = {{-1, 0, 12.5}};
  EXPECT_EQ(judge_trial(in).status, TrialStatus::bad_input);
}

// Random maps: what comes off is what is missing, asked place by place; and with it off, the shaft goes all
// the way with the clearance wanted.
TEST(Trial, WithThatOffItGoesAllTheWay) {
  std::mt19937 random(4);
  std::uniform_real_distribution<double> size(-0.02, 0.02), deep(0, 30);
  for (int n = 0; n < 200; ++n) {
    TrialInput in;
    for (int k = 0; k < 4; ++k) {
      in.hole.push_back({deep(random), 0, 20 + size(random)});
      in.shaft.push_back({deep(random), 0, 20 + size(random)});
    }
    in.felt = Felt::tight;
    in.length = 30;
    in.wanted = 0.010;
    in.least = 0.008;
    in.most = 0.012;
    in.uncertainty = 1; // every verdict is of the size
    in.cut_hole = n % 2 == 0;
    const auto r = judge_trial(in);
    const auto hole = along(in.hole, true), shaft = along(in.shaft, false);
    double most = 0, gap = 1e9;
    for (double x = 0; x <= 30.0001; x += 0.01) {
      gap = std::min(gap, hole.at(x) - shaft.at(30 - x));
      if (n % 10 == 0) // slow: every depth x against all of the shaft that passes it
        for (double s = 0; s <= 30 - x; s += 0.05) most = std::max(most, shaft.at(s) + 0.010 - hole.at(x));
    }
    EXPECT_NEAR(r.gap, gap, 3e-4) << n; // no steeper than 0.04 in the least step met
    if (n % 10 == 0 && most > 0.001) {
      EXPECT_NEAR(r.off, most, 3e-4) << n;
    }
    for (auto& reading : in.cut_hole ? in.hole : in.shaft) reading.diameter += in.cut_hole ? r.off : -r.off;
    const auto after = judge_trial(in);
    EXPECT_NEAR(after.off, 0, 1e-12) << n;
    EXPECT_GE(after.gap, in.wanted - 6e-4) << n; // what is under half a micrometre is not told
  }
}
