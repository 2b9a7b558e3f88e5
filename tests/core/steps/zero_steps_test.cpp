// Datums found by touches, and how a read-out counts from them. Worked by hand.

#include "steps/zero_steps.h"

#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;
using datrin::test::read_in;

TEST_F(OnTheMill, AnotherFinderIsSaidOnceForAll) {
  const auto told = take(step("finder"), "0.2", Unit::inch); // 5.08
  ASSERT_TRUE(told.ok()) << told.wrong;
  EXPECT_NE(told.told.find("0.2000\u202Fin across"), std::string::npos) << told.told;
  EXPECT_TRUE(step("finder").done);
  EXPECT_NEAR(*step("zero-x").number, -2.54, 1e-9);
  EXPECT_NEAR(*step("zero-y").number, -2.54, 1e-9);
  EXPECT_FALSE(take(step("finder"), "-4").ok());
  EXPECT_FALSE(take(step("finder"), "200").ok());
  EXPECT_TRUE(take(step("zero-x")).ok());
  EXPECT_TRUE(step("zero-x").done);
  in.piece = make(Piece{part, 2}); // the next piece has it as well
  piece = in.piece;
  for (const Id id : {foot, left, front}) at_size(id);
  EXPECT_NEAR(*step("zero-x").number, -2.54, 1e-9);
}

// Not set to a round figure: the read-out shows what it shows, and every place is counted from there.
// Worked by hand: touched at 101.25 and 101.26 with a finder of 6 from the left, the edge is under the
// spindle at 104.255; the hole 15 on at 119.255.
TEST_F(OnTheMill, AZeroIsKeptAsTheReadOutShowsIt) {
  EXPECT_TRUE(take(step("zero-x"), "101.25").ok());
  EXPECT_TRUE(step("zero-x").done);
  EXPECT_FALSE(step("zero-x-again").done);
  EXPECT_NEAR(*step("zero-x-again").number, 101.25, 1e-9);
  const auto told = take(step("zero-x-again"), "101.26");
  EXPECT_NE(told.told.find("104.255\u202Fmm at left, \u00B10.012"), std::string::npos) << told.told;
  EXPECT_TRUE(step("zero-x-again").done);
  const auto go = step("go-" + std::to_string(drill) + "-1-x");
  EXPECT_NEAR(*go.number, 119.255, 1e-9);
  EXPECT_NEAR(go.sum.total(), 119.255, 1e-9);
  EXPECT_EQ(go.sum.lines[0].label, "X at left");
  EXPECT_TRUE(take(go, "119.25").ok());
  ASSERT_EQ(b.all<BenchZero>().size(), 1U);
  const auto kept = b.all<BenchZero>().front().second;
  EXPECT_EQ(kept.touches, "101.25000 101.26000");
  EXPECT_NEAR(kept.uncertainty, 2 * std::sqrt(0.01 * 0.01 / 4 + 0.01 * 0.01 / 12), 1e-9);
  // Lost: found again, the old one stays in the record.
  ASSERT_TRUE(b.apply(lose_zero(b, in, go, "now")));
  EXPECT_FALSE(step("zero-x").done);
  EXPECT_NEAR(*step("go-" + std::to_string(drill) + "-1-x").number, 15, 1e-9);
  EXPECT_TRUE(take(step("zero-x")).ok());
  EXPECT_TRUE(take(step("zero-x-again")).ok());
  EXPECT_NEAR(*step("go-" + std::to_string(drill) + "-1-x").number, 15, 1e-9);
  EXPECT_EQ(b.all<BenchZero>().size(), 2U);
  EXPECT_TRUE(lose_zero(b, in, step("hold"), "now").empty());
}

// Changed to inches between two touches: noticed, nothing is kept of it.
TEST_F(OnTheMill, AnotherUnitBetweenTouchesIsNoticed) {
  EXPECT_TRUE(take(step("zero-x"), "25.4").ok());
  EXPECT_NE(take(step("zero-x-again"), "1").wrong.find("other unit"), std::string::npos);
  EXPECT_EQ(b.all<BenchZero>().front().second.touches, "25.40000");
  EXPECT_TRUE(take(step("zero-x-again"), "25.41").ok());
}

// A burr of half a millimetre at the first touch (common practice: 20 to 30 thou): touched until two agree.
TEST_F(OnTheMill, ABurrIsNoticedByTheSecondTouch) {
  EXPECT_TRUE(take(step("zero-x"), "-3.55").ok());
  const auto apart = take(step("zero-x-again"), "-3.01");
  EXPECT_TRUE(apart.ok());
  EXPECT_NE(apart.told.find("0.540\u202Fmm apart"), std::string::npos) << apart.told;
  EXPECT_FALSE(step("zero-x-again").done);
  EXPECT_NE(step("zero-x-again").words.find("a burr, a chip"), std::string::npos);
  EXPECT_TRUE(take(step("zero-x-again"), "-3.00").ok());
  EXPECT_TRUE(step("zero-x-again").done);
  EXPECT_EQ(b.all<BenchZero>().front().second.touches,
            "-3.55000 -3.01000 -3.00000"); // nothing is thrown away
  EXPECT_NEAR(b.all<BenchZero>().front().second.shows, -0.005, 1e-9);
  // Back to it: the first touch stands, the second is made anew.
  ASSERT_TRUE(b.apply(step_back(b, in, steps(), 4, "now")));
  EXPECT_TRUE(step("zero-x").done);
  EXPECT_FALSE(step("zero-x-again").done);
}

// X counts to the left on this machine: the edge is touched at +3, the holes lie at -15 and -45.
TEST_F(OnTheMill, AReadOutThatCountsBackwards) {
  Machine mill;
  mill.kind = MachineKind::mill;
  mill.reversed = "x Z"; // as people type it
  mill.backlash = 0.2;
  mill.dial_turn = 4;
  auto s = *b.find<build::Setup>(setup);
  s.machine = make(mill);
  b.load(setup, s);
  const auto id = std::to_string(drill);
  EXPECT_NEAR(*step("zero-x").number, 3, 1e-12);
  EXPECT_NEAR(*step("go-" + id + "-2-x").number, -45, 1e-9);
  EXPECT_NEAR(*step("go-" + id + "-2-y").number, 20, 1e-9);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, 12.5, 1e-9); // Z counts down
  EXPECT_TRUE(take(step("zero-x"), "10").ok());
  EXPECT_TRUE(take(step("zero-x-again"), "10").ok());
  const auto go = step("go-" + id + "-2-x"); // the edge at 7
  EXPECT_NEAR(*go.number, -38, 1e-9);
  EXPECT_NEAR(go.sum.total(), -38, 1e-9);
  // By the hand wheel of 4 mm a turn: ten turns back and 2 on.
  EXPECT_NE(go.also.find("10 turns back, and 2.000\u202Fmm"), std::string::npos) << go.also;
  EXPECT_NE(go.also.find("0.200\u202Fmm of play"), std::string::npos) << go.also;
}

// A boss of 60 touched on both sides with a finder of 6: 66 apart. Worked by hand.
TEST_F(OnTheMill, AMiddleByTwoTouches) {
  auto s = *b.find<build::Setup>(setup);
  s.datums = {};
  b.load(setup, s);
  at_size(make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60)));
  const auto id = std::to_string(drill);
  EXPECT_TRUE(take(step("zero-x"), "12.5").ok());
  EXPECT_NEAR(*step("zero-x-other").number, 78.5, 1e-9);
  const auto told = take(step("zero-x-other"), "78.46");
  EXPECT_NE(told.told.find("45.480\u202Fmm at the middle of outside"), std::string::npos) << told.told;
  EXPECT_EQ(told.told.find("beside its middle"), std::string::npos);
  EXPECT_NEAR(*step("go-" + id + "-1-x").number, 45.48 - 15, 1e-9);
  // Halved on the read-out: 0 is the middle.
  EXPECT_TRUE(take(step("zero-y")).ok());
  EXPECT_TRUE(take(step("zero-y-other")).ok());
  EXPECT_NEAR(*step("go-" + id + "-1-y").number, 0, 1e-9);
  // A touch beside its middle makes it too small, and it says so.
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("go-" + id + "-1-x"), "now")));
  EXPECT_TRUE(take(step("zero-x"), "0").ok());
  EXPECT_NE(take(step("zero-x-other"), "64").told.find("58.000\u202Fmm across, by the drawing 60.000"),
            std::string::npos);
}

// The next piece against the same stop: its edge should be where the last one's was.
TEST_F(OnTheMill, AgainstAStopTheEdgeIsWhereItWas) {
  auto s = *b.find<build::Setup>(setup);
  s.stop = true;
  b.load(setup, s);
  EXPECT_TRUE(take(step("zero-x"), "50").ok());
  EXPECT_TRUE(take(step("zero-x-again"), "50").ok());
  in.piece = make(Piece{part, 2});
  piece = in.piece;
  for (const Id id : {foot, left, front}) at_size(id);
  EXPECT_NE(step("zero-x").words.find("The piece before"), std::string::npos);
  EXPECT_NEAR(*step("zero-x").number, 50, 1e-9);
  EXPECT_NEAR(step("zero-x").sum.total(), 50, 1e-9);
}

// Z is set over a block with every tool, 2 in high (common practice).
TEST_F(OnTheMill, ZIsSetOverABlock) {
  const auto id = std::to_string(drill);
  EXPECT_TRUE(take(step("zero-z-" + id), "2", Unit::inch).ok()); // a preset block of 2 in (common practice)
  EXPECT_NEAR(*step("zero-z-" + id).number, 50.8, 1e-9);
  EXPECT_FALSE(step("zero-z-" + id).done);
  EXPECT_FALSE(take(step("zero-z-" + id), "-1").ok());
  EXPECT_TRUE(take(step("zero-z-" + id)).ok());
  EXPECT_TRUE(step("zero-z-" + id).done);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  EXPECT_FALSE(step("zero-z-" + id).done);
  // A read-out that reads by itself need not be set: 70.8 over the block is 20 on the face.
  // Nor where no face is drawn that it comes down on.
  auto nowhere = read_in(Unit::mm);
  nowhere.shows = 50.8;
  ASSERT_TRUE(b.apply(take_step(b, in, step("zero-z-" + id), {}, nowhere).edit));
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  const Id top = at_size(face("top", {0, 0, 10}, Vec3::UnitZ(), 60, 40));
  EXPECT_NE(top, 0);
  refresh();
  auto live = read_in(Unit::mm);
  live.shows = 70.8;
  const auto set = take_step(b, in, step("zero-z-" + id), {}, live);
  ASSERT_TRUE(set.ok() && b.apply(set.edit)) << set.wrong;
  EXPECT_NEAR(*step("deep-" + id + "-1").number, 20 - 12.5, 1e-9);
  EXPECT_NEAR(step("deep-" + id + "-1").sum.total(), 7.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
}

// Not set to a round figure and no read-out that reads by itself: + and what it reads is the touch. A block
// typed as it is already is no news: Z is set over it.
TEST_F(OnTheMill, ZNeedNotBeSet) {
  const auto id = std::to_string(drill);
  const auto told = take(step("zero-z-" + id), "+24.5");
  EXPECT_NE(told.told.find("24.500"), std::string::npos) << told.told;
  EXPECT_TRUE(step("zero-z-" + id).done);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, 24.5 - 12.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  EXPECT_FALSE(take(step("zero-z-" + id), "+abc").ok());
  EXPECT_TRUE(take(step("zero-z-" + id), "+-3").ok());
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -15.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  EXPECT_TRUE(take(step("zero-z-" + id), "0").ok());
  EXPECT_TRUE(step("zero-z-" + id).done);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
}

// Two in one operation, the second on a pad 6 high: Z is set once, on the face of the first, and the second
// ends 10 below the pad's top: 4 below that face. Worked by hand.
TEST_F(OnTheMill, ZIsSetOnceAnOperationWhateverIsMadeInIt) {
  const Id top = at_size(face("top", {0, 0, 10}, Vec3::UnitZ(), 60, 40));
  EXPECT_NE(top, 0);
  Body pad;
  pad.part = part, pad.name = "pad", pad.shape = BodyShape::block, pad.on = b.find<Body>(holes)->on;
  pad.face = BodyFace::top, pad.order = 8;
  pad.set_size({BodyRole::length, 0, 12});
  pad.set_size({BodyRole::width, 0, 12});
  pad.set_size({BodyRole::height, 0, 6});
  Body blind;
  blind.part = part, blind.name = "blind", blind.shape = BodyShape::hole, blind.on = make(pad);
  blind.face = BodyFace::top, blind.order = 9;
  blind.set_size({BodyRole::diameter, 0, 5});
  blind.set_size({BodyRole::depth, 0, 10});
  const Id in_pad = make(blind);
  auto o = *b.find<Operation>(drill);
  o.bodies = {holes, in_pad};
  b.load(drill, o);
  const auto id = std::to_string(drill);
  int set = 0;
  double deepest = 0, shallow = -1e9;
  for (const auto& one : steps()) {
    if (one.kind == StepKind::zero && one.axis == "Z") ++set;
    if (one.kind != StepKind::deep) continue;
    deepest = std::min(deepest, *one.number);
    shallow = std::max(shallow, *one.number);
    EXPECT_NEAR(one.sum.total(), *one.number, 1e-9);
  }
  EXPECT_EQ(set, 1);
  EXPECT_NEAR(deepest, -12.5, 1e-9); // through the plate
  EXPECT_NEAR(shallow, -4, 1e-9);
}

// Read by itself for one tool, set by hand for the next: each counts from its own.
TEST_F(OnTheMill, EveryToolHasItsOwnZ) {
  auto o = *b.find<Operation>(drill);
  o.kind = OperationKind::ream;
  o.order = 2;
  const Id ream = make(o);
  const auto first = std::to_string(drill), second = std::to_string(ream);
  refresh();
  auto live = read_in(Unit::mm);
  live.shows = 20;
  ASSERT_TRUE(b.apply(take_step(b, in, step("zero-z-" + first), {}, live).edit));
  EXPECT_NEAR(*step("deep-" + first + "-1").number, 7.5, 1e-9);
  EXPECT_TRUE(take(step("zero-z-" + second)).ok());
  EXPECT_NEAR(*step("deep-" + second + "-1").number, -12.25, 1e-9); // reamed through 10, the lead 1.25
  EXPECT_NEAR(*step("deep-" + first + "-1").number, 7.5, 1e-9);
  // The first set anew by hand: 0 is the face, whatever it read before.
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + first + "-1"), "now")));
  EXPECT_TRUE(take(step("zero-z-" + first)).ok());
  EXPECT_NEAR(*step("deep-" + first + "-1").number, -12.5, 1e-9);
  EXPECT_NEAR(*step("deep-" + second + "-1").number, -12.25, 1e-9);
}

// What measured 60.00 is found 59.90 by its touches: they are unsure by as much; what nobody measured by as
// much as two touches may differ.
TEST_F(OnTheMill, AMiddleIsAsSureAsItsSizeSays) {
  auto s = *b.find<build::Setup>(setup);
  s.datums = {};
  b.load(setup, s);
  const Id outside = make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60));
  at_size(outside);
  EXPECT_TRUE(take(step("zero-x"), "0").ok());
  EXPECT_TRUE(take(step("zero-x-other"), "65.9").ok());
  EXPECT_NEAR(b.all<BenchZero>().front().second.uncertainty, 2 * std::hypot(0.01, 0.01 / std::sqrt(12)),
              1e-6);
  Dimension d;
  d.kind = DimensionKind::size, d.part = part, d.name = "outside", d.surface = outside, d.nominal = 60,
  d.lower = -0.1, d.upper = 0.1;
  Measurement m;
  m.piece = piece, m.dimension = make(d), m.value = 60;
  make(m);
  EXPECT_TRUE(take(step("zero-y"), "0").ok());
  EXPECT_TRUE(take(step("zero-y-other"), "65.9").ok());
  EXPECT_NEAR(b.all<BenchZero>().back().second.uncertainty, 2 * std::hypot(0.05, 0.01 / std::sqrt(12)), 1e-6);
}

// Where the finder is seen: outside against the left and the right of a boss, inside against the walls of a
// bore.
TEST_F(OnTheMill, TheFinderIsSeenWhereItTouches) {
  auto s = *b.find<build::Setup>(setup);
  s.datums = {};
  b.load(setup, s);
  const Id outside = at_size(make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60)));
  EXPECT_NE(outside, 0);
  EXPECT_NEAR((*step("zero-x").at - Vec3(-30, 0, 5)).norm(), 0, 1e-9);
  EXPECT_NEAR((step("zero-x").looks + Vec3::UnitX()).norm(), 0, 1e-9);
  EXPECT_NEAR((step("zero-x-other").looks - Vec3::UnitX()).norm(), 0, 1e-9);
  EXPECT_NEAR((*step("zero-y").at - Vec3(0, -30, 5)).norm(), 0, 1e-9);
  EXPECT_NEAR(step("zero-x").finder, 6, 1e-9);
}
