#include "casting/next_touch.h"

#include "sim/rough_field.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::casting;

// A small piece of benchmarks/trial-certainty: what is called 95 % sure is right about as often. 60 castings
// of one face: 57 expected; 51 to 60 is within three standard deviations and more.
TEST(Certainty, WhatIsCalledSureIsRightAboutThatOften) {
  int right = 0;
  for (int k = 0; k < 60; ++k) {
    const auto casting = sim::field_casting(
        {.faces = 1, .touches = 10, .step = 4, .seed = 70 + static_cast<std::uint64_t>(k)});
    CertaintyOptions options;
    options.draws = 200;
    options.net = 120;
    options.seed = static_cast<std::uint64_t>(k);
    const auto found = certainty(casting.input, {}, casting.reach, options);
    ASSERT_TRUE(found.usable()) << found.message;
    EXPECT_LE(found.sure, found.middle);
    right += casting.least >= found.sure;
  }
  EXPECT_GE(right, 51);
  EXPECT_LT(right, 61);
}

TEST(Certainty, MoreTouchesKeepLessBack) {
  double few = 0, many = 0;
  for (std::uint64_t k = 0; k < 12; ++k) {
    for (const int touches : {7, 28}) {
      const auto casting = sim::field_casting({.faces = 1, .touches = touches, .step = 4, .seed = 500 + k});
      CertaintyOptions options;
      options.draws = 200;
      options.net = 100;
      const auto found = certainty(casting.input, {}, casting.reach, options);
      (touches == 7 ? few : many) += found.middle - found.sure;
    }
  }
  EXPECT_LT(many, 0.8 * few);
}

TEST(Certainty, TheSameTouchesGiveTheSameAnswerAndAStopIsHeard) {
  const auto casting = sim::field_casting({.faces = 2, .touches = 8, .seed = 3});
  const auto a = certainty(casting.input, {}, casting.reach), b = certainty(casting.input, {}, casting.reach);
  EXPECT_EQ(a.sure, b.sure);
  CertaintyOptions options;
  options.should_stop = [] { return true; };
  EXPECT_EQ(certainty(casting.input, {}, casting.reach, options).status, CertaintyStatus::stopped);
}

TEST(Certainty, TooFewTouchesAreRefused) {
  auto casting = sim::field_casting({.faces = 1, .touches = 3, .seed = 3});
  EXPECT_EQ(certainty(casting.input, {}, casting.reach).message,
            "no surface has touches enough to say how rough it is: a plane wants 4, a bore 6");
  casting.input.points[0].surface = 9;
  EXPECT_EQ(certainty(casting.input, {}, casting.reach).status, CertaintyStatus::refused);
}

TEST(NextTouch, NarrowsWhatIsNotKnownAndTheTouchReallyDoes) {
  double before = 0, after = 0, promised = 0;
  for (std::uint64_t k = 0; k < 8; ++k) {
    auto casting = sim::field_casting({.faces = 2, .touches = 6, .step = 4, .seed = 900 + k});
    CertaintyOptions options;
    options.draws = 300;
    options.net = 120;
    options.keep_draws = true;
    const auto found = certainty(casting.input, {}, casting.reach, options);
    const auto advice = next_touches(margins_at(casting.input, {}), found);
    ASSERT_TRUE(advice.known) << advice.message;
    ASSERT_EQ(advice.touches.size(), 3U);
    EXPECT_LT(advice.spread_after, advice.spread);
    EXPECT_TRUE(advice.pays) << advice.message;
    // Touch there: the truth at the nearest place it is known.
    for (const auto& t : advice.touches) {
      const auto& s = casting.input.surfaces[static_cast<std::size_t>(t.surface)];
      const auto at =
          std::min_element(casting.truth.begin(), casting.truth.end(), [&](const auto& x, const auto& y) {
            return (x.first - t.at).norm() < (y.first - t.at).norm();
          });
      casting.input.points.push_back(
          {t.surface, at->first + (at->second + s.required) * s.shape.direction, 0.03});
    }
    const auto then = certainty(casting.input, {}, casting.reach, options);
    const auto spread = [](const CertaintyResult& c) {
      double mean = 0, sum = 0;
      for (const double m : c.least) mean += m / static_cast<double>(c.least.size());
      for (const double m : c.least) sum += (m - mean) * (m - mean) / static_cast<double>(c.least.size());
      return 2 * std::sqrt(sum);
    };
    before += advice.spread;
    promised += advice.spread_after;
    after += spread(then);
  }
  EXPECT_LT(after, 0.85 * before);
  EXPECT_NEAR(after, promised, 0.35 * promised);
}

TEST(NextTouch, SaysWhenItNoLongerPays) {
  const auto casting = sim::field_casting({.faces = 1, .touches = 8, .seed = 2});
  CertaintyOptions options;
  options.keep_draws = true;
  options.draws = 200;
  options.net = 64;
  const auto found = certainty(casting.input, {}, casting.reach, options);
  NextTouchOptions advice;
  advice.fine_enough = 100;
  const auto no = next_touches(margins_at(casting.input, {}), found, advice);
  EXPECT_FALSE(no.pays);
  EXPECT_TRUE(no.message.starts_with("More touching no longer pays")) << no.message;
  CertaintyResult nothing;
  EXPECT_FALSE(next_touches({}, nothing).known);
}
