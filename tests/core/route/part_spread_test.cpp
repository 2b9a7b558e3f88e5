// What the setups of a part leave of its limits: the sums of one turn-over by hand.

#include "route/part_spread.h"

#include "build/edits.h"

#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;

namespace {

class PartInSetups : public test::DrawnPart {
protected:
  PartInSetups() {
    part = make(Part{"Block", "cast iron", 1, 0});
    foot = face("foot", {0, 0, 0}, -Vec3::UnitZ(), 60, 40);
    top = face("top", {0, 0, 20}, Vec3::UnitZ(), 60, 40);
    shelf = face("shelf", {20, 0, 12}, Vec3::UnitZ(), 20, 40);
    side = face("side", {0, -20, 10}, -Vec3::UnitY(), 60, 20);
    end = face("end", {-30, 0, 10}, -Vec3::UnitX(), 40, 20);
    limited("thick", foot, top, 20);
    limited("step", shelf, top, 8);
  }
  const route::DimensionSpread& of(const route::PartSpread& spread, const char* name) {
    for (const auto& d : spread.dimensions)
      if (route::spread_name(b, d) == name) return d;
    static const route::DimensionSpread none;
    ADD_FAILURE() << name;
    return none;
  }
  Id foot = 0, top = 0, shelf = 0, side = 0, end = 0;
};

} // namespace

// Topped on the raw foot, then footed on the top: over the middle of the three locators, which stand out 16
// mm to the one side and 16 to the other of the middle, the thickness is off by what they leave there and by
// its own cut. At the middle of the face two of the three count a quarter, the one opposite a half.
TEST_F(PartInSetups, OneTurnOver) {
  setup("top up", {foot, side, end}, {top, shelf}, 0);
  setup("foot up", {top, side, end}, {foot}, 1);
  const auto spread = route::part_spread(b, part);
  EXPECT_TRUE(spread.remarks.empty()) << spread.remarks.front();
  ASSERT_EQ(spread.dimensions.size(), 2U);
  const double seating = 0.01, cutting = 0.01;
  const double at_middle = seating * seating * (1.0 / 16 + 1.0 / 16 + 1.0 / 4);
  EXPECT_NEAR(of(spread, "thick").sigma, std::sqrt(at_middle + cutting * cutting), 1e-9);
  EXPECT_NEAR(of(spread, "step").sigma, std::sqrt(2.0) * cutting, 1e-9); // both in one setup
  EXPECT_NEAR(of(spread, "step").together, of(spread, "step").sigma, 1e-9);
  EXPECT_NEAR(of(spread, "thick").allowed, 0.05, 1e-12);
  EXPECT_TRUE(of(spread, "thick").fits());
  EXPECT_EQ(route::spread_from(b, spread, of(spread, "thick")), "73 % from the cuts of \"foot up\"");
}

// Never turned over, the raw foot counts whole: three standard deviations of a casting, far outside the
// limits.
TEST_F(PartInSetups, AFaceThatStaysRaw) {
  setup("top up", {foot, side, end}, {top}, 0);
  const auto spread = route::part_spread(b, part);
  const auto& thick = of(spread, "thick");
  EXPECT_GT(thick.sigma, 0.3);
  EXPECT_FALSE(thick.fits());
  EXPECT_EQ(thick.together, 0);
  EXPECT_GE(spread.dimensions[0].expected(),
            spread.dimensions[1].expected()); // the worst first, of equal limits
  EXPECT_NE(route::spread_from(b, spread, thick).find("raw"), std::string::npos);
}

TEST_F(PartInSetups, WhatNothingLocatesIsSaid) {
  setup("on its foot", {foot}, {top, side}, 0);
  const auto spread = route::part_spread(b, part);
  ASSERT_EQ(spread.remarks.size(), 1U);
  EXPECT_EQ(spread.remarks.front(),
            "on its foot: nothing locates it along x, along y, about z; taken as touched off");
  EXPECT_TRUE(route::part_spread(b, 12345).dimensions.empty());
}

// Gripped by its boss against a face: nothing is missing, how it is turned about its axis does not matter.
TEST_F(PartInSetups, GrippedByARoundItIsLocated) {
  PartSurface boss;
  boss.part = part;
  boss.name = "boss";
  boss.kind = SurfaceKind::boss;
  boss.point = {0, 0, 35};
  boss.direction = Vec3::UnitZ();
  boss.diameter = 20;
  boss.height = 30;
  const Id round = make(boss);
  setup("in the chuck", {round, top}, {foot}, 0);
  EXPECT_TRUE(route::part_spread(b, part).remarks.empty());
}

// A shaft turned round on the journal just cut: two jaws' planes stand 8 mm to either side of its middle,
// each off by 0.01; the other journal, 60 away, is off by 0.01 · √(1/2 + 60²/128) across, and by its own cut.
// What an indicator shows is twice that (TIR, common practice: offset = TIR / 2).
TEST_F(PartInSetups, ARoundCutAfterTurningRoundRunsOut) {
  const auto journal = [&](const char* name, double z) {
    return make(round(name, SurfaceKind::boss, {0, 0, z}, Vec3::UnitZ(), 12));
  };
  const Id a = journal("journal A", 50), far = journal("journal B", 110);
  setup("first end", {foot, side, end}, {a, top}, 0);
  setup("turned round", {a, top}, {far}, 1);
  const auto spread = route::part_spread(b, part);
  const auto row = std::find_if(spread.dimensions.begin(), spread.dimensions.end(),
                                [](const auto& d) { return d.of == route::SpreadOf::coaxial; });
  ASSERT_NE(row, spread.dimensions.end());
  EXPECT_EQ(route::spread_name(b, *row), "journal A to journal B, about one axis");
  const double sigma = 0.01 * std::sqrt(0.5 + 60.0 * 60 / 128 + 1);
  EXPECT_NEAR(row->sigma, sigma, 1e-9);
  EXPECT_NEAR(row->tir(), 6 * sigma, 1e-9);
  EXPECT_TRUE(row->fits()); // nothing is asked of it
  EXPECT_NEAR(row->together, 0.01 * std::sqrt(2.0), 1e-9);
  EXPECT_NE(spread.dimensions.front().of, route::SpreadOf::coaxial); // after what has limits
}

TEST_F(PartInSetups, AStopIsBetterThanTouchingOffAndAReadingThanBoth) {
  const Id far = face("far end", {30, 0, 10}, Vec3::UnitX(), 40, 20);
  limited("long", end, far, 60);
  setup("first", {foot, side, end}, {top, far}, 0);
  const Id second = setup("second", {top}, {end}, 1);
  const auto before = of(route::part_spread(b, part), "long");
  EXPECT_LT(before.with_stop, before.sigma);
  auto stopped = *b.find<build::Setup>(second);
  stopped.stop = true;
  ASSERT_TRUE(b.apply(replace(b, second, stopped, "x")));
  const auto after = of(route::part_spread(b, part), "long");
  EXPECT_NEAR(after.sigma, before.with_stop, 1e-12);
  EXPECT_NEAR(after.with_stop, after.sigma, 1e-12);
  // Read on the piece: that counts.
  const Id piece = make(Piece{part, 1});
  Measurement read;
  read.piece = piece;
  read.dimension = after.dimension;
  read.value = 60.02;
  ASSERT_TRUE(b.apply(add(b, read, "x")));
  const auto now = of(route::part_spread(b, part, {}, piece), "long");
  ASSERT_TRUE(now.measured);
  EXPECT_NEAR(*now.measured, 60.02, 1e-12);
  EXPECT_TRUE(now.fits());
  EXPECT_FALSE(of(route::part_spread(b, part), "long").measured);
}

// An end cut standing on the top, which another setup cut from the foot: it leans as the top seats: three
// locators, of which two lie 16 mm to the one side across and one to the other. About the axis along the end
// they are 16 and 16 off: 0.01 at each gives a lean of 0.01 * sqrt(1 / 2 + 1) / 32 in mm over mm, over its 20
// mm.
TEST_F(PartInSetups, AFaceLeansAsWhatItStandsOnSeats) {
  auto square = *b.find<PartSurface>(side);
  ASSERT_EQ(square.height, 20);
  setup("top up", {foot, side, end}, {top}, 0);
  setup("on the top", {top}, {side}, 1);
  const auto spread = route::part_spread(b, part);
  const auto row = std::find_if(spread.dimensions.begin(), spread.dimensions.end(),
                                [](const auto& d) { return d.of == route::SpreadOf::square; });
  ASSERT_NE(row, spread.dimensions.end());
  EXPECT_EQ(route::spread_name(b, *row), "side square to top, over 20\u202Fmm");
  // Of the two at one side each counts half, and the one opposite whole; they stand 0.4 of 40 out, so 32
  // apart.
  EXPECT_NEAR(row->sigma, 0.01 * std::sqrt(0.5 + 1) / 32 * 20, 1e-9);
}

TEST_F(PartInSetups, AMachineSaysHowWellItSeatsAndCuts) {
  Machine jig{"jig borer", false, Unit::mm, 0.001, "", 0};
  jig.cutting = 0.002, jig.seating = 0.003;
  const Id machine = make(jig);
  setup("top up", {foot, side, end}, {top, shelf}, 0);
  const auto before = of(route::part_spread(b, part), "step");
  auto changed = b.setups_of(part).front().second;
  changed.machine = machine;
  ASSERT_TRUE(b.apply(replace(b, b.setups_of(part).front().first, changed, "x")));
  const auto after = of(route::part_spread(b, part), "step");
  EXPECT_NEAR(before.sigma, 0.01 * std::sqrt(2.0), 1e-12); // two cuts of one setup
  EXPECT_NEAR(after.sigma, 0.002 * std::sqrt(2.0), 1e-12);
}
