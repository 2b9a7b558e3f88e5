// Trued in the four-jaw at the machine.

#include "steps/jaw_steps.h"

#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;
using datrin::test::read_in;

// In the four-jaw: 2 thou at one jaw and none opposite are 1 thou to move (common practice).
TEST_F(OnTheMill, InTheFourJawItIsTrued) {
  auto s = *b.find<build::Setup>(setup);
  s.holding = Workholding::four_jaw;
  b.load(setup, s);
  const auto jaws = step("true-up");
  EXPECT_NEAR(*jaws.number, 0.05, 1e-12); // machined work, no tolerance stated
  const auto thou = take(jaws, "0.002+0+0+0", Unit::inch);
  EXPECT_NE(thou.wrong.find("jaw 1 in 0.0010"), std::string::npos) << thou.wrong;
  EXPECT_NE(thou.wrong.find("jaw 3 out 0.0010"), std::string::npos) << thou.wrong;
  const auto far = take(step("true-up"), "0.1+0.02-0.06-0.02");
  EXPECT_NE(far.wrong.find("0.165\u202Fmm over a turn"), std::string::npos) << far.wrong;
  EXPECT_NE(far.wrong.find("jaw 1 in 0.080"), std::string::npos) << far.wrong;
  EXPECT_NE(far.wrong.find("jaw 3 out 0.080"), std::string::npos) << far.wrong;
  EXPECT_NE(far.wrong.find("jaw 2 in 0.020"), std::string::npos) << far.wrong;
  for (const auto* bad : {"0.1", "0.1+0.2", "1+2+3+4+5", "a+b+c+d", "30+0+0+0"})
    EXPECT_FALSE(take(step("true-up"), bad).ok()) << bad;
  // Coaxial within 0.02 of what it runs by: that is what counts.
  GeometricTolerance t;
  t.part = part;
  t.what = Characteristic::coaxial;
  t.surface = make(round("seat", SurfaceKind::bore, {-15, 0, 5}, Vec3::UnitZ(), 5));
  t.datums = {foot};
  t.within = 0.02;
  make(t);
  s.cuts = {t.surface};
  b.load(setup, s);
  EXPECT_NEAR(*step("true-up").number, 0.02, 1e-12);
  // What is at its size already has no say: nothing comes off it any more.
  t.within = 0.3;
  const Id seat = t.surface;
  b.load(b.all<GeometricTolerance>().front().first, t);
  at_size(seat);
  EXPECT_NEAR(*step("true-up").number, 0.3, 1e-12);
  uncut(seat);
  t.within = 0.02;
  b.load(b.all<GeometricTolerance>().front().first, t);
  EXPECT_FALSE(take(step("true-up"), "0.02+0-0.02+0").ok());
  EXPECT_TRUE(take(step("true-up"), "0.008+0-0.008+0").ok());
  EXPECT_TRUE(step("true-up").done);
}

// True beside the chuck, 0.2 over a turn further out, most at jaw 2: tapped there by half of it, then both
// are read again. Read in a bore, pushed in is towards the spindle's axis: the other way about (common
// practice).
TEST_F(OnTheMill, WhatLeansIsTappedFurtherOut) {
  auto s = *b.find<build::Setup>(setup);
  s.holding = Workholding::four_jaw;
  b.load(setup, s);
  ASSERT_TRUE(take(step("true-up"), "0.01+0-0.01+0").ok());
  const auto leans = take(step("true-out"), "0+0.1+0-0.1");
  ASSERT_TRUE(leans.ok()) << leans.wrong;
  EXPECT_NE(leans.told.find("at jaw 2, by 0.100"), std::string::npos) << leans.told;
  EXPECT_FALSE(step("true-up").done);
  EXPECT_NE(take(step("true-out"), "0.1+0.1-0.1-0.1").told.find("between jaws 1 and 2"), std::string::npos);
  EXPECT_NE(take(step("true-out"), "0.1-0.1-0.1+0.1").told.find("between jaws 4 and 1"), std::string::npos);
  ASSERT_TRUE(take(step("true-up"), "0+0+0+0").ok());
  EXPECT_TRUE(take(step("true-out"), "0+0.02+0-0.02").ok());
  EXPECT_TRUE(step("true-out").done);
  s.datums = {make(round("bore", SurfaceKind::bore, {0, 0, 5}, Vec3::UnitZ(), 20))};
  b.load(setup, s);
  const auto bored = take(step("true-up"), "0.1+0-0.1+0");
  EXPECT_NE(bored.wrong.find("jaw 3 in 0.100"), std::string::npos) << bored.wrong;
  EXPECT_NE(bored.wrong.find("jaw 1 out 0.100"), std::string::npos) << bored.wrong;
}
