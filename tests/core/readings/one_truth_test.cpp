// One reading, one truth: what is read on one page is what every page knows. A wheel's bore and the tube it
// is bored to, both without limits; the joint between them wants 0.02 to 0.06 of clearance.
#include "allowance/plan.h"
#include "allowance/to_come.h"
#include "build/edit_making.h"
#include "build/edits.h"
#include "chains/aims.h"
#include "readings/measure.h"
#include "readings/size_now.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::readings;
using chains::build_targets;

namespace {

class OneTruth : public testing::Test {
protected:
  OneTruth() {
    mm.bare_unit = Unit::mm;
    wheel = put(Part{"Wheel", "cast iron", 1, 0});
    tube = put(Part{"Tube", "steel", 1, 1});
    no1 = put(Piece{wheel, 1});
    tube1 = put(Piece{tube, 1});
    bore = put(round(wheel, SurfaceKind::bore));
    outside = put(round(tube, SurfaceKind::boss));
    hole = {put(size(wheel, "bore", bore)), no1};
    shaft = {put(size(tube, "outside", outside)), tube1};
    Joint j;
    j.name = "Wheel on tube";
    j.hole = hole.dimension;
    j.shaft = shaft.dimension;
    j.least = 0.02;
    j.most = 0.06;
    joint = put(j);
  }

  template <class T>
  Id put(const T& record) {
    const auto edit = add(b, record, "x");
    EXPECT_TRUE(b.apply(edit));
    return edit.changes.front().id;
  }
  static PartSurface round(Id part, SurfaceKind kind) {
    PartSurface s;
    s.part = part;
    s.name = kind == SurfaceKind::bore ? "bore" : "outside";
    s.kind = kind;
    s.diameter = 24;
    s.height = 20;
    return s;
  }
  static Dimension size(Id part, const char* name, Id surface) {
    Dimension d;
    d.part = part;
    d.name = name;
    d.kind = DimensionKind::size;
    d.surface = surface;
    d.nominal = 24;
    return d;
  }
  Measured typed(const Made& made, const char* text) {
    MeasureInput in;
    in.made = made;
    in.mate = made == hole ? shaft : hole;
    in.text = text;
    in.at = "2026-11-25T10:00:" + std::to_string(10 + second++) + "Z";
    return measure(b, in, mm);
  }
  void read(const Made& made, const char* text) {
    const auto m = typed(made, text);
    ASSERT_TRUE(m.ok) << m.message;
    ASSERT_TRUE(b.apply(keep_measurement(b, m.measurement)));
  }
  void cut(double left) {
    Cut c;
    c.piece = no1;
    c.surface = bore;
    c.left = left;
    c.uncertainty = 0.005;
    c.at = "2026-11-25T10:00:" + std::to_string(10 + second++) + "Z";
    ASSERT_TRUE(b.apply(log_cut(b, c)));
  }
  chains::ConditionRoom room() const {
    const auto targets = build_targets(b);
    return targets.result.conditions[static_cast<std::size_t>(targets.tightest_of_joint(joint))];
  }
  allowance::SurfacePlan plan() const {
    const casting::PieceInput nothing_touched;
    return allowance::surface_plans(b, no1, nothing_touched, {}, chains::aims_of(b, no1, build_targets(b)))
        .front();
  }

  Build b;
  LengthOptions mm;
  Id wheel = 0, tube = 0, no1 = 0, tube1 = 0, bore = 0, outside = 0, joint = 0;
  Made hole, shaft;
  int second = 0;
};

} // namespace

TEST_F(OneTruth, ASizeWithoutLimitsTakesWhatItsJointWants) {
  read(shaft, "24.10");
  const auto targets = build_targets(b);
  const auto* make = targets.target(hole);
  ASSERT_NE(make, nullptr);
  EXPECT_NEAR(make->make, 24.14, 1e-9); // 24.10 and the middle of 0.02 to 0.06
  EXPECT_EQ(make->departs, 0);
  EXPECT_GT(make->hold, 0); // it was "±0, cannot be held" of a size nobody gave limits
  EXPECT_FALSE(targets.function_first);
}

TEST_F(OneTruth, ALoggedCutFillsTheJoint) {
  cut(0);
  const auto now = size_now(b, hole);
  EXPECT_TRUE(now.by_cut);
  EXPECT_EQ(now.standing, Standing::made);
  EXPECT_NEAR(now.value, 24, 1e-12);
  EXPECT_NEAR(now.uncertainty, 0.01, 1e-12); // both sides
  EXPECT_NEAR(build_targets(b).target(shaft)->make, 23.96, 1e-9);
  read(hole, "24.02"); // then it is measured: the newer says it
  EXPECT_NEAR(size_now(b, hole).value, 24.02, 1e-12);
  EXPECT_NEAR(build_targets(b).target(shaft)->make, 23.98, 1e-9);
}

TEST_F(OneTruth, MetalStillOnIsNotMadeAndNotGone) {
  read(shaft, "24.00");
  cut(0.4); // 23.2 so far
  EXPECT_EQ(size_now(b, hole).standing, Standing::metal_on);
  auto targets = build_targets(b);
  EXPECT_EQ(targets.size(hole), nullptr);
  ASSERT_NE(targets.target(hole), nullptr);
  EXPECT_NEAR(targets.target(hole)->make, 24.04, 1e-9);
  EXPECT_GT(room().room, 0);
  // Near its nominal, but too tight for the tube that is made: it is cut on.
  read(hole, "23.98");
  targets = build_targets(b);
  EXPECT_EQ(targets.size(hole), nullptr);
  ASSERT_NE(targets.target(hole), nullptr);
  EXPECT_NEAR(targets.target(hole)->make, 24.04, 1e-9);
  EXPECT_GT(room().room, 0);
  // It fits: now it is made.
  read(hole, "24.03");
  targets = build_targets(b);
  EXPECT_NE(targets.size(hole), nullptr);
  EXPECT_EQ(targets.target(hole), nullptr);
  EXPECT_NEAR(room().expected, 0.03, 1e-9);
  // Bored too far for this tube nothing can be cut on: gone.
  read(hole, "24.08");
  EXPECT_NE(build_targets(b).size(hole), nullptr);
  EXPECT_LT(room().room, 0);
}

TEST_F(OneTruth, OfTwoThatAreTooTightTheOneReadLastIsCutOn) {
  read(hole, "24.00");
  read(shaft, "24.01");
  auto targets = build_targets(b);
  EXPECT_NE(targets.size(hole), nullptr);
  ASSERT_NE(targets.target(shaft), nullptr);
  EXPECT_NEAR(targets.target(shaft)->make, 23.96, 1e-9);
  read(hole, "24.001");
  targets = build_targets(b);
  EXPECT_NE(targets.size(shaft), nullptr);
  EXPECT_NEAR(targets.target(hole)->make, 24.05, 1e-9);
  // A rolling bearing is not cut: its housing is.
  auto j = *b.find<Joint>(joint);
  j.purpose = JointPurpose::bearing_housing;
  ASSERT_TRUE(b.apply(replace(b, joint, j, "x")));
  read(shaft, "24.01");
  targets = build_targets(b);
  EXPECT_NE(targets.size(shaft), nullptr);
  EXPECT_NE(targets.target(hole), nullptr);
}

TEST_F(OneTruth, LimitsSayHowFarItMayStillBeCut) {
  auto d = *b.find<Dimension>(hole.dimension);
  d.upper = 0.021; // H7
  d.tolerance = "H7";
  ASSERT_TRUE(b.apply(replace(b, hole.dimension, d, "x")));
  read(shaft, "23.99");
  read(hole, "24.002"); // within limits; 0.012 of clearance where 0.02 is the least: 0.008 more is to be had
  auto targets = build_targets(b);
  ASSERT_NE(targets.target(hole), nullptr);
  EXPECT_GE(targets.target(hole)->make, 24.010 - 1e-9);
  EXPECT_LE(targets.target(hole)->make, 24.021 + 1e-9);
  read(shaft, "24.005"); // the tube read last is turned down: it has no limits
  targets = build_targets(b);
  EXPECT_NE(targets.size(hole), nullptr);
  EXPECT_NEAR(targets.target(shaft)->make, 23.962, 1e-9);
}

TEST_F(OneTruth, WhatIsStillToComeIsSaidOnDiameterAndASide) {
  read(shaft, "24.00");
  cut(0.45); // 23.10; to 24.04 there are 0.94, 0.47 a side
  const auto targets = build_targets(b);
  auto to_come = allowance::to_come(b, hole, size_now(b, hole), targets.target(hole)->make, true);
  ASSERT_TRUE(to_come.any);
  EXPECT_NEAR(to_come.left, 0.94, 1e-9);
  EXPECT_NEAR(to_come.a_side, 0.47, 1e-9);
  EXPECT_NEAR(to_come.cut, 0.47 - 0.3 - 0.0635, 1e-9); // leaves the finishing cut and 2.5 thou for the trial
  EXPECT_EQ(
      to_come.words,
      "0.940\u202Fmm on diameter still to come off, 0.470\u202Fmm a side. Next cut 0.107\u202Fmm a side; "
      "the finishing cut is 0.300\u202Fmm.");
  to_come = allowance::to_come(b, hole, {.standing = Standing::metal_on, .value = 23.8}, 24.04, true);
  EXPECT_TRUE(to_come.finishing);
  EXPECT_EQ(to_come.words,
            "0.240\u202Fmm on diameter still to come off, 0.120\u202Fmm a side. Next the finishing cut, "
            "0.057\u202Fmm a side; then try it, at 23.913\u202Fmm.");
  to_come = allowance::to_come(b, hole, {.standing = Standing::metal_on, .value = 24.0}, 24.04, true);
  EXPECT_TRUE(to_come.trying);
  EXPECT_NEAR(to_come.cut, 0.0127, 1e-9); // a thou on diameter
  // In an inch build, in inches.
  auto info = b.info();
  info.unit = Unit::inch;
  ASSERT_TRUE(b.apply(replace(b, Build::info_id, info, "x")));
  to_come = allowance::to_come(b, hole, {.standing = Standing::metal_on, .value = 23.8}, 24.04, true);
  EXPECT_EQ(to_come.words.find("mm"), std::string::npos);
}

TEST_F(OneTruth, AGaugeThatDoesNotGoLeavesMetalOn) {
  read(shaft, "24.00");
  read(hole, "go 24.00 stops");
  const auto now = size_now(b, hole);
  EXPECT_EQ(now.standing, Standing::metal_on);
  EXPECT_EQ(now.bound, Bound::below);
  EXPECT_FALSE(now.settled());
  EXPECT_EQ(build_targets(b).size(hole), nullptr);
  EXPECT_EQ(typed(hole, "dial 0.02 a side").message,
            "a dial says what came off since the last reading: there is none yet");
  read(hole, "go 24.00 no-go 24.05");
  EXPECT_NEAR(size_now(b, hole).value, 24.025, 1e-12);
  EXPECT_TRUE(size_now(b, hole).settled());
}

TEST_F(OneTruth, ADialLeftOnCountsFromTheLastReading) {
  read(hole, "23.20");
  EXPECT_EQ(typed(hole, "dial 0.35").message,
            "say what the dial counts: dial 0.35 a side, or dial 0.7 on diameter");
  read(hole, "dial 0.35 a side");
  EXPECT_NEAR(size_now(b, hole).value, 23.90, 1e-12);
  read(hole, "dial 0.1 on diameter");
  EXPECT_NEAR(size_now(b, hole).value, 24.00, 1e-12);
  read(shaft, "24.5");
  read(shaft, "dial 0.2 a side");
  EXPECT_NEAR(size_now(b, shaft).value, 24.1, 1e-12); // a shaft falls
}

// A hole's axis 22.95 from the end, read over a pin (common practice), and its play in the uncertainty.
TEST_F(OneTruth, OverAPinAndFromTwoSidesComeToTheDimension) {
  Dimension d;
  d.part = wheel;
  d.name = "axis from the end";
  d.kind = DimensionKind::length;
  d.nominal = 23;
  const Made axis{put(d), no1};
  const auto over = typed(axis, "27.11 over an 8.32 pin in 8.33");
  ASSERT_TRUE(over.ok) << over.message;
  EXPECT_NEAR(over.measurement.value, 22.95, 1e-9);
  EXPECT_NEAR(over.measurement.uncertainty, 0.005, 1e-9);
  EXPECT_EQ(over.measurement.read, "27.11 over an 8.32 pin in 8.33");
  EXPECT_NEAR(over.sum.total(), 22.95, 1e-9);
  d.name = "web";
  d.nominal = 3.7;
  const Made web{put(d), no1};
  read(web, "3.68 and 3.74");
  EXPECT_NEAR(size_now(b, web).value, 3.71, 1e-9);
  EXPECT_NEAR(size_now(b, web).off_centre, 0.03, 1e-9);
}

TEST_F(OneTruth, AllowanceAimsAtTheJointsTargetAndSeesWhatWasReadThere) {
  read(shaft, "24.10");
  read(hole, "23.50"); // in the joint; 0.25 a side under its nominal
  auto p = plan();
  EXPECT_NEAR(p.aim, -0.07, 1e-9); // 24.14 is 0.07 a side past the nominal
  EXPECT_NEAR(p.now, 0.25, 1e-9);
  EXPECT_EQ(p.state, allowance::SurfaceState::roughed);
  ASSERT_FALSE(p.rest.passes.empty());
  EXPECT_NEAR(p.rest.passes.back().left, -0.07, 1e-9); // the last pass ends at the target
  EXPECT_NEAR(*p.size_with(p.rest.passes.back().left), 24.14, 1e-9);
  // Bored to it: finished, by no limits anybody gave.
  read(hole, "24.14");
  p = plan();
  EXPECT_EQ(p.state, allowance::SurfaceState::finished);
  EXPECT_FALSE(p.limited);
}

TEST_F(OneTruth, AComparisonFollowsItsMate) {
  read(shaft, "24.00");
  read(hole, "mate +0.03");
  EXPECT_NEAR(size_now(b, hole).value, 24.03, 1e-12);
  read(shaft, "24.01");
  EXPECT_NEAR(size_now(b, hole).value, 24.04, 1e-12);
  // Whatever the mate was read with: the cut that was logged last, too.
  cut(0); // the wheel's bore is 24.00
  read(shaft, "mate -0.02");
  EXPECT_NEAR(size_now(b, shaft).value, 23.98, 1e-12);
  cut(-0.01); // 24.02
  EXPECT_NEAR(size_now(b, shaft).value, 24.00, 1e-12);
}

// Two boxes on one axle: the left joint is of box 1, the right of box 2, and what is read of one says nothing
// of the other.
TEST_F(OneTruth, TwoBoxesOnOneAxleAreTwoJointsOfTwoPieces) {
  const Id box2 = put(Piece{wheel, 2}), shaft2 = put(size(tube, "right end", outside));
  auto part = *b.find<Part>(wheel);
  part.quantity = 2;
  ASSERT_TRUE(b.apply(replace(b, wheel, part, "x")));
  auto left = *b.find<Joint>(joint);
  const auto only = chains::pair_only(b, left, {no1, tube1});
  ASSERT_TRUE(only.ok());
  ASSERT_TRUE(b.apply(replace(b, joint, only.joint, "x")));
  auto right = left;
  right.name = "right";
  right.shaft = shaft2;
  right.pairs = {{box2, tube1}};
  const Id right_id = put(right);
  read(shaft, "24.00");
  read({shaft2, tube1}, "24.20");
  const auto targets = build_targets(b);
  EXPECT_EQ(targets.conditions_of(joint).size(), 1U);
  EXPECT_EQ(targets.conditions_of(right_id).size(), 1U);
  EXPECT_NEAR(targets.target(hole)->make, 24.04, 1e-9);
  EXPECT_NEAR(targets.target({hole.dimension, box2})->make, 24.24, 1e-9);
  EXPECT_EQ(chains::pair_only(b, left, {tube1, no1}).wrong, "choose a piece of the part with the hole");
}
