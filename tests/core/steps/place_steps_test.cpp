// Where tools go: holes, slots, blocks, lines. Worked by hand.

#include "steps/place_steps.h"

#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <tuple>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;
using datrin::test::read_in;

// Four holes at the corners of a square: gone round, not to and fro across.
TEST_F(OnTheMill, HolesAreGoneThroughWithLittleTravel) {
  auto grid = *b.find<Body>(holes);
  grid.pattern = BodyPattern::grid;
  grid.count = grid.count_across = 2;
  grid.set_size({BodyRole::pitch, 0, 30});
  grid.set_size({BodyRole::pitch_across, 0, 24});
  b.load(holes, grid);
  std::vector<Vec2> places;
  std::vector<double> xs, ys;
  for (const auto& one : steps())
    if (one.kind == StepKind::go) (one.axis == "X" ? xs : ys).push_back(*one.number);
  ASSERT_EQ(xs.size(), 4U);
  double travel = 0;
  for (std::size_t k = 1; k < xs.size(); ++k) travel += std::hypot(xs[k] - xs[k - 1], ys[k] - ys[k - 1]);
  EXPECT_NEAR(travel, 24 + 30 + 24, 1e-9); // three sides, the two short ones among them
  EXPECT_NEAR(std::hypot(xs[0], ys[0]), std::hypot(15, 8), 1e-9); // begun at the corner of the datums
}

// A block 20 by 12 and 6 high on the middle of the plate, milled all round with a cutter of 8: the plate's
// middle is 30 and 20 from the datums, the cutter 14 and 10 from that. A line across it is scribed where it
// lies.
TEST_F(OnTheMill, ABlockIsMilledAllRoundAndALineIsScribed) {
  auto block =
      on_top("pad", BodyShape::block, {{BodyRole::length, 20}, {BodyRole::width, 12}, {BodyRole::height, 6}});
  const Id pad = make(block);
  auto o = making(OperationKind::mill, pad, 8);
  const auto key = std::to_string(make(o));
  EXPECT_NEAR(*step("go-" + key + "-1.1-x").number, 16, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.1-y").number, 10, 1e-9);
  EXPECT_NEAR(*step("deep-" + key + "-1.1").number, -6, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.2-x").number, 44,
              1e-9); // along the near side first: against the feed outside
  EXPECT_NEAR(*step("go-" + key + "-1.3-y").number, 30, 1e-9);
  auto line = on_top("centre line", BodyShape::scribed, {{BodyRole::length, 50}, {BodyRole::across, 3}});
  const Id scribed = make(line);
  o.kind = OperationKind::mark;
  o.bodies = {scribed};
  const auto mark = std::to_string(make(o));
  int asked = 0;
  for (const auto& one : steps())
    if (one.key.starts_with("go-" + mark)) ++asked;
  EXPECT_EQ(asked, 1); // along itself it has no place
  EXPECT_NEAR(*step("go-" + mark + "-1-y").number, 23, 1e-9);
  EXPECT_NE(step("go-" + mark + "-1-y").words.find("Scribe where"), std::string::npos);
}

// 10 deep with a drill of 2 is five diameters: out for chips; with 5 it is two. 28 m/min in mild steel are
// 1780 rev/min with 5 mm; of the speeds the machine has the next below.
TEST_F(OnTheMill, HowToDrillStandsBesideTheNumber) {
  const auto key = "deep-" + std::to_string(drill) + "-1";
  EXPECT_NE(step(key).also.find("turn at about 1780 rev/min"), std::string::npos) << step(key).also;
  EXPECT_EQ(step(key).also.find("chips"), std::string::npos);
  Machine mill;
  mill.kind = MachineKind::mill;
  mill.speeds = "90 450 1250 2100";
  auto s = *b.find<build::Setup>(setup);
  s.machine = make(mill);
  b.load(setup, s);
  EXPECT_NE(step(key).also.find("turn at 1250 rev/min"), std::string::npos) << step(key).also;
  auto o = *b.find<Operation>(drill);
  o.size = 2;
  b.load(drill, o);
  EXPECT_NE(step(key).also.find("out for chips every 2.00"), std::string::npos) << step(key).also;
  auto of = *b.find<Part>(part);
  of.material = "unobtainium";
  b.load(part, of);
  EXPECT_EQ(step(key).also.find("turn"), std::string::npos);
}

// What gives is turned a third slower: 28 m/min are 18.7, 1190 rev/min with 5 mm (common practice).
TEST_F(OnTheMill, WhatStandsFarOutIsTurnedSlower) {
  const auto key = "deep-" + std::to_string(drill) + "-1";
  auto s = *b.find<build::Setup>(setup);
  s.grip = 10, s.overhang = 30;
  b.load(setup, s);
  EXPECT_NE(step(key).also.find("about 1780"), std::string::npos) << step(key).also;
  s.overhang = 45;
  b.load(setup, s);
  EXPECT_NE(step(key).also.find("about 1190 rev/min"), std::string::npos) << step(key).also;
  EXPECT_NE(step(key).also.find("far out for its grip"), std::string::npos) << step(key).also;
  s.overhang = 0;
  b.load(setup, s);
  Tool bit;
  bit.size = 5, bit.reach = 60;
  auto o = *b.find<Operation>(drill);
  o.tool = make(bit);
  b.load(drill, o);
  EXPECT_NE(step(key).also.find("a long cutter"), std::string::npos) << step(key).also;
}

// Drawn 70 apart on a plate of 60 the holes lie beside it, 5 outside: asked about before one is drilled.
TEST_F(OnTheMill, AHoleBesideThePlateIsAskedAbout) {
  const auto key = "go-" + std::to_string(drill) + "-1-x";
  EXPECT_EQ(step(key).words.find("Look at the drawing"), std::string::npos);
  auto far = *b.find<Body>(holes);
  far.set_size({BodyRole::pitch, 0, 70});
  b.load(holes, far);
  EXPECT_EQ(step(key).words.find("Look at the drawing first: its centre lies outside of"), 0U)
      << step(key).words;
  far.set_size({BodyRole::pitch, 0, 10});
  far.set_size({BodyRole::diameter, 0, 45});
  b.load(holes, far);
  EXPECT_EQ(step(key).words.find("Look at the drawing first: it is wider than"), 0U) << step(key).words;
}

// 30 apart, drilled 5: 35 over two pins, 25 between the edges.
TEST_F(OnTheMill, HolesAreCheckedFromEachOther) {
  const auto check = step("check-" + std::to_string(drill) + "-" + std::to_string(holes) + "-2");
  EXPECT_NEAR(*check.number, 30, 1e-9);
  EXPECT_NE(check.words.find("35.000"), std::string::npos) << check.words;
  EXPECT_NE(check.words.find("25.000"), std::string::npos) << check.words;
  EXPECT_NE(take(check, "1.18").wrong.find("is it centre to centre"), std::string::npos); // inches
  const auto taken = take(check, "30.2");
  EXPECT_NE(taken.told.find("0.200\u202Fmm more than drawn"), std::string::npos) << taken.told;
  EXPECT_NE(taken.edit.label.find("30.200"), std::string::npos); // it stands in the log
  EXPECT_TRUE(step(check.key).done);
}

// A slot 30 by 8, 4 deep in the middle of the plate: its middle 30 from the left, 20 from the front. With a
// cutter as wide as it from 19 to 41; with one of 6 a millimetre to either side. Worked by hand.
TEST_F(OnTheMill, ASlotIsMilledByItsCutter) {
  auto slot =
      on_top("slot", BodyShape::slot, {{BodyRole::length, 30}, {BodyRole::width, 8}, {BodyRole::depth, 4}});
  const Id body = make(slot);
  auto o = making(OperationKind::mill, body, 8);
  const Id mill = make(o);
  const auto key = std::to_string(mill);
  const auto keys = [&] {
    std::vector<std::string> list;
    for (const auto& one : steps())
      if (one.operation == mill && one.kind != StepKind::tick) list.push_back(one.key);
    return list;
  };
  EXPECT_EQ(keys(), (std::vector<std::string>{"go-" + key + "-1.1-x", "go-" + key + "-1.1-y", "zero-z-" + key,
                                              "deep-" + key + "-1.1", "go-" + key + "-1.2-x"}));
  EXPECT_NEAR(*step("go-" + key + "-1.1-x").number, 19, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.1-y").number, 20, 1e-9);
  EXPECT_NEAR(*step("deep-" + key + "-1.1").number, -4, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.2-x").number, 41, 1e-9);
  EXPECT_NE(step("go-" + key + "-1.2-x").words.find("Mill along"), std::string::npos);
  o.size = 6;
  b.load(mill, o);
  EXPECT_NEAR(*step("go-" + key + "-1.1-y").number, 19,
              1e-9); // left and near first, then round against the feed
  // It reaches both drawn ends: 30 ± 15, less the cutter's radius of 3; and both sides.
  double low = 1e9, high = -1e9, near = 1e9, far = -1e9;
  for (const auto& one : steps())
    if (one.operation == mill && one.kind == StepKind::go && one.number) {
      auto& least = one.axis == "X" ? low : near;
      auto& most = one.axis == "X" ? high : far;
      least = std::min(least, *one.number);
      most = std::max(most, *one.number);
    }
  EXPECT_NEAR(low, 18, 1e-9);
  EXPECT_NEAR(high, 42, 1e-9);
  EXPECT_NEAR(near, 19, 1e-9);
  EXPECT_NEAR(far, 21, 1e-9);
  EXPECT_NE(step("go-" + key + "-1.1-x").also.find("round ends are gone round by places"), std::string::npos);
  o.size = 0;
  b.load(mill, o);
  EXPECT_NE(step("cutter-" + key + "-1").words.find("which cutter"), std::string::npos);
  EXPECT_TRUE(take(step("cutter-" + key + "-1")).ok());
  EXPECT_FALSE(b.done_of(piece, mill)); // read, not milled
  ASSERT_TRUE(b.apply(remove(b, b.bench_place_of(piece, setup)->first, "x")));
  o.size = 10;
  b.load(mill, o);
  EXPECT_NE(step("cutter-" + key + "-1").words.find("does not go in"), std::string::npos);
}

// A pad 20 by 12 with corners of 4, a cutter of 8: its middle goes round the corner's at 8. The near right
// corner of the pad lies 40 and 14 from the datums, the corner's middle 36 and 18. No move goes through the
// metal that stays: none of the places, nor the corners between two, is nearer to that middle than 8.
TEST_F(OnTheMill, CornersOfABlockAreRoundedByPlaces) {
  auto block =
      on_top("pad", BodyShape::block,
             {{BodyRole::length, 20}, {BodyRole::width, 12}, {BodyRole::height, 6}, {BodyRole::corner, 4}});
  const Id pad = make(block);
  auto o = making(OperationKind::mill, pad, 8);
  const Id mill = make(o);
  const auto key = std::to_string(mill);
  const auto note = step("corners-" + key + "-1");
  EXPECT_NE(note.words.find("corners of 4.00"), std::string::npos) << note.words;
  double x = 0, y = 0;
  std::size_t rounded = 0;
  Vec2 last = Vec2::Zero();
  for (const auto& one : steps()) {
    if (one.operation != mill || one.kind != StepKind::go) continue;
    (one.axis == "X" ? x : y) = *one.number;
    if (one.key.find(".c2.") == std::string::npos) continue;
    ++rounded;
    const Vec2 from = Vec2(x, y) - Vec2(36, 18);
    EXPECT_GT(from.norm(), 8 - 1e-9) << one.key;
    last = from;
  }
  EXPECT_GE(rounded, 6U);
  EXPECT_NEAR((last - Vec2(8, 0)).norm(), 0, 1e-9); // it ends beside the right side
  EXPECT_TRUE(take(note, "+").ok());                // rounded otherwise
  EXPECT_TRUE(step("corners-" + key + "-1").done);
  for (const auto& one : steps()) EXPECT_EQ(one.key.find(".c1."), std::string::npos);
}

// A slot at 30° to the axes cannot be milled along them; neither can one of a part that lies askew.
TEST_F(OnTheMill, WhatLiesOffTheAxesIsNotMilledInStairs) {
  auto slot =
      on_top("slot", BodyShape::slot,
             {{BodyRole::length, 30}, {BodyRole::width, 8}, {BodyRole::depth, 4}, {BodyRole::turn, pi / 6}});
  const Id body = make(slot);
  auto o = making(OperationKind::mill, body, 8);
  const auto key = std::to_string(make(o));
  EXPECT_NE(step("cutter-" + key + "-1").words.find("30.00\u00B0 off the machine's axes"), std::string::npos);
  slot.set_size({BodyRole::turn, 0, pi / 2});
  b.load(body, slot);
  EXPECT_NEAR(*step("go-" + key + "-1.2-y").number - *step("go-" + key + "-1.1-y").number, 22, 1e-9);
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  const std::vector<std::pair<const char*, const char*>> read{
      {"-3", "5"}, {"-4.5", "35"}, {"10", "-3"}, {"50", "-1"}};
  for (std::size_t k = 0; k < read.size(); ++k) {
    const auto touch = std::string(k < 2 ? "zero-x" : "zero-y") + "-touch-" + std::to_string(k % 2 + 1);
    EXPECT_TRUE(take(step(touch + "-x"), read[k].first).ok());
    EXPECT_TRUE(take(step(touch + "-y"), read[k].second).ok());
  }
  EXPECT_NE(step("cutter-" + key + "-1").words.find("2.86\u00B0 off"), std::string::npos); // 1 in 20
}

// Askew by a hair, a hundredth over the length of the slot, it is milled along the axes all the same.
TEST_F(OnTheMill, AHairOffTheAxesIsAlongThem) {
  auto slot =
      on_top("slot", BodyShape::slot, {{BodyRole::length, 30}, {BodyRole::width, 8}, {BodyRole::depth, 4}});
  const auto key = std::to_string(make(making(OperationKind::mill, make(slot), 8)));
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  for (const auto& [touch, x, y] : {std::tuple("zero-x-touch-1", "-3", "5"),
                                    {"zero-x-touch-2", "-3.01", "35"},
                                    {"zero-y-touch-1", "10", "-3"},
                                    {"zero-y-touch-2", "50", "-2.99"}}) {
    EXPECT_TRUE(take(step(std::string(touch) + "-x"), x).ok());
    EXPECT_TRUE(take(step(std::string(touch) + "-y"), y).ok());
  }
  EXPECT_NE(b.all<BenchZero>().back().second.turn, 0);
  EXPECT_NEAR(*step("go-" + key + "-1.2-x").number - *step("go-" + key + "-1.1-x").number, 22, 1e-3);
  for (const auto& one : steps()) EXPECT_NE(one.key, "go-" + key + "-1.2-y");
}

// A countersink goes as deep as its mouth is drawn, not as deep as the hole.
TEST_F(OnTheMill, AMouthIsSunkToItsOwnDepth) {
  auto hole = *b.find<Body>(holes);
  hole.mouth = HoleMouth::counterbored;
  hole.set_size({BodyRole::mouth_diameter, 0, 9});
  hole.set_size({BodyRole::mouth_depth, 0, 4});
  b.load(holes, hole);
  auto o = *b.find<Operation>(drill);
  o.kind = OperationKind::mill;
  b.load(drill, o);
  const auto id = std::to_string(drill);
  EXPECT_NEAR(*step("go-" + id + "-2-x").number, 45, 1e-9);
  EXPECT_NEAR(*step("deep-" + id + "-2").number, -4, 1e-9);
  EXPECT_EQ(step("done-" + id).kind, StepKind::tick);
}

// In the chuck, 15 off the axis: a drill in the tailstock does not come there.
TEST_F(OnTheMill, OnALatheAHoleOffTheAxisIsSaid) {
  make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60));
  auto s = *b.find<build::Setup>(setup);
  s.holding = Workholding::three_jaw;
  b.load(setup, s);
  const auto deep = step("deep-" + std::to_string(drill) + "-1");
  EXPECT_NE(deep.words.find("15.00\u202Fmm off the axis"), std::string::npos) << deep.words;
  EXPECT_NEAR(*deep.number, 12.5, 1e-9); // what goes in, no read-out
}
