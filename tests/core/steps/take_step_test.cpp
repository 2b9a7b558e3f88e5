// What is typed at the bench: taken, or asked about.

#include "steps/take_step.h"

#include "tests/core/demo_piece.h"
#include "tests/core/steps/on_the_mill.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;
using datrin::test::read_in;

TEST_F(OnTheMill, AReadOutThatIsWrongIsNoticed) {
  const auto go = step("go-" + std::to_string(drill) + "-2-x"); // 45
  EXPECT_NE(take(go, "-45").wrong.find("counts the other way"), std::string::npos);
  EXPECT_NE(take(go, "1.7717").wrong.find("other unit"), std::string::npos);
  EXPECT_NE(take(go, "30").wrong.find("incremental"), std::string::npos); // the single move
  EXPECT_NE(take(go, "thirty").wrong, "");
  EXPECT_TRUE(b.all<BenchPlace>().empty()); // nothing was taken
  EXPECT_TRUE(take(go, "45.01").ok());
  EXPECT_TRUE(take(step("go-" + std::to_string(drill) + "-1-x"), "0.5906", Unit::inch).ok());
}

TEST_F(OnTheMill, WhereNothingIsReadNothingIsTaken) {
  const auto id = std::to_string(drill);
  for (const auto& key : {std::string("hold"), "done-" + id}) {
    const auto taken = take(step(key), "12.5");
    EXPECT_NE(taken.wrong.find("nothing is read here"), std::string::npos) << key << taken.wrong;
  }
  EXPECT_FALSE(b.done_of(piece, drill));
  // A depth is read beside its number: -12.5.
  EXPECT_NE(take(step("deep-" + id + "-1"), "12.5").wrong.find("counts the other way"), std::string::npos);
  EXPECT_NE(take(step("deep-" + id + "-1"), "-12").wrong.find("0.500\u202Fmm to go"), std::string::npos);
  EXPECT_TRUE(take(step("deep-" + id + "-1"), "-12.52").ok());
}

// At the middle itself the number is 0, and a hair beside it is there: it is no other unit.
TEST_F(OnTheMill, AtZeroAHairBesideItIsThere) {
  auto s = *b.find<build::Setup>(setup);
  s.datums = {};
  b.load(setup, s);
  at_size(make(round("outside", SurfaceKind::boss, {-15, 0, 5}, Vec3::UnitZ(), 20))); // about the first hole
  const auto go = step("go-" + std::to_string(drill) + "-1-x");
  EXPECT_EQ(*go.number, 0);
  EXPECT_TRUE(take(go, "0.001").ok());
  EXPECT_NE(take(step("go-" + std::to_string(drill) + "-2-x"), "0.001").wrong.find("29.999\u202Fmm to go"),
            std::string::npos);
}

namespace {

// With a point whatever the locale writes; to_string would follow the locale.
std::string typed_out(double mm) {
  return fmt::format("{:.6f}", mm);
}

class OnTheCylinder : public test::DemoPiece {
protected:
  void SetUp() override {
    DemoPiece::SetUp();
    setup = b.setups_of(part).front().first;
    refresh();
  }
  void refresh() {
    in.piece = piece;
    in.setup = setup;
    in.pose = pose();
    in.plans = allowance::surface_plans(b, piece, input(), pose());
    all = bench_steps(b, in);
  }
  const BenchStep* first(StepKind kind) const {
    for (const auto& one : all)
      if (one.kind == kind && !one.done) return &one;
    return nullptr;
  }
  BenchInput in;
  std::vector<BenchStep> all;
  Id setup = 0;
};

} // namespace

TEST_F(OnTheCylinder, ACutIsReadAndTheNextNumberFollows) {
  const auto* cut = first(StepKind::cut);
  ASSERT_TRUE(cut);
  const auto before = b.cuts_of(piece, cut->surface).size();
  // Enter alone is not enough, and what cannot be is asked about.
  EXPECT_FALSE(take_step(b, in, *cut, "", read_in(Unit::mm)).ok());
  EXPECT_FALSE(take_step(b, in, *cut, "900", read_in(Unit::mm)).ok());
  const double left = *cut->number + 0.8; // less was taken than the pass wanted
  const auto taken = take_step(b, in, *cut, typed_out(left), read_in(Unit::mm));
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  EXPECT_NE(taken.told.find("still to come off"), std::string::npos) << taken.told;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_EQ(b.cuts_of(piece, cut->surface).size(), before + 1);
  EXPECT_NEAR(b.cuts_of(piece, cut->surface).back().second.left, left, 1e-6);
  const auto surface = cut->surface;
  refresh();
  const auto next =
      std::find_if(all.begin(), all.end(), [&](const auto& s) { return s.surface == surface && !s.done; });
  ASSERT_NE(next, all.end());
  EXPECT_LT(*next->number, left);
  EXPECT_NEAR(next->sum.total(), *next->number, 1e-6); // from what was read, not from what was planned
}

// Read across to the face opposite it is the same cut: the two faces are drawn so far apart.
TEST_F(OnTheCylinder, APlaneMayBeReadAcross) {
  const Id other = surface("end A"), here = surface("end B");
  const auto plan_of = [&](Id id) {
    return *std::find_if(in.plans.begin(), in.plans.end(), [&](const auto& p) { return p.surface == id; });
  };
  ASSERT_TRUE(b.apply(build::add(b, allowance::cut_of(plan_of(other), in.pose, 0), "end A is at size")));
  refresh();
  const auto step =
      std::find_if(all.begin(), all.end(), [&](const auto& s) { return s.surface == here && !s.done; });
  ASSERT_NE(step, all.end());
  ASSERT_EQ(step->kind, StepKind::cut);
  const double apart = std::abs((plan_of(here).drawn.point - plan_of(other).drawn.point).x());
  const auto taken = take_step(b, in, *step, typed_out(apart + 1.1), read_in(Unit::mm));
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  EXPECT_EQ(taken.told.find("across, 1.100\u202Fmm left"), 0U) << taken.told;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_NEAR(b.cuts_of(piece, here).back().second.left, 1.1, 1e-5);
  EXPECT_EQ(b.cuts_of(piece, here).back().second.note, "read across");
}

// 3 mm thick with 2.5 over each face and the other at size: 2.4 may be what is left, or the thickness and too
// deep by 0.6. Nobody but the person knows: it is not taken.
TEST_F(OnTheMill, WhatCouldBeEitherIsNotGuessed) {
  for (const Id id : {foot, left, front}) uncut(id);
  const Id bar = b.all<Stock>().front().first;
  auto stock = *b.find<Stock>(bar);
  stock.length = 60, stock.width = 40, stock.thick = 8;
  b.load(bar, stock);
  for (const Id id : {left, front}) { // as high as it is thick
    auto edge = *b.find<PartSurface>(id);
    edge.point.z() = 1.5, edge.height = 3;
    b.load(id, edge);
  }
  gone(holes);
  const Id top = face("top", {0, 0, 3}, Vec3::UnitZ(), 60, 40);
  std::pair<Id, Body> plate = b.all<Body>().front();
  plate.second.set_size({BodyRole::height, 0, 3});
  b.load(plate.first, plate.second);
  at_size(foot);
  auto s = *b.find<build::Setup>(setup);
  s.cuts = {top};
  b.load(setup, s);
  Operation o;
  o.part = part;
  o.kind = OperationKind::mill;
  o.setup = setup;
  o.surfaces = {top};
  make(o);
  const auto all = steps();
  const auto cut =
      std::find_if(all.begin(), all.end(), [](const auto& one) { return one.kind == StepKind::cut; });
  ASSERT_NE(cut, all.end());
  const auto either = take(*cut, "2.4");
  EXPECT_NE(
      either.wrong.find("2.400\u202Fmm left, or 2.400\u202Fmm across, which leaves \u22120.600\u202Fmm"),
      std::string::npos)
      << either.wrong;
  EXPECT_TRUE(b.cuts_of(piece, top).empty());
  // 1.5 is left: across it would be 1.5 too deep.
  EXPECT_TRUE(take(*cut, "1.5").ok());
  EXPECT_NEAR(b.cuts_of(piece, top).back().second.left, 1.5, 1e-9);
}

TEST_F(OnTheCylinder, NotUnclampedBeforeTheGate) {
  const auto* out = first(StepKind::unclamp);
  ASSERT_TRUE(out);
  EXPECT_NE(out->words.find("Not yet"), std::string::npos);
  EXPECT_FALSE(take_step(b, in, *out, "", read_in(Unit::mm)).ok());
}

TEST_F(OnTheCylinder, ASizeIsReadIntoTheRecord) {
  for (const auto& [id, s] : b.setups_of(part))
    if (!s.sizes.empty()) setup = id;
  refresh();
  const auto* read = first(StepKind::read);
  ASSERT_TRUE(read);
  const double nominal = *read->number;
  EXPECT_NE(
      take_step(b, in, *read, typed_out(nominal * 25.4), read_in(Unit::mm)).wrong.find("is the unit right"),
      std::string::npos);
  const auto taken = take_step(b, in, *read, typed_out(nominal), read_in(Unit::mm));
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_NEAR(b.measurement_of(piece, read->dimension)->second.value, nominal, 1e-6);
}

namespace {

/// An axle of 16 bar in the lathe, its journal turned to 12 for a bush that measured 12.015; 10 to 30 µm of
/// clearance are wanted: 11.995, and 5 µm a side either way.
class OnTheLathe : public test::DrawnPart {
protected:
  OnTheLathe() {
    part = make(Part{"Axle", "mild steel", 1, 0});
    piece = make(Piece{part, 1});
    Stock bar;
    bar.part = part, bar.form = StockForm::round, bar.along = Vec3::UnitZ(), bar.across = Vec3::UnitX();
    bar.width = bar.thick = 16, bar.length = 80;
    make(bar);
    journal = make(round("journal", SurfaceKind::boss, {0, 0, 50}, Vec3::UnitZ(), 12));
    build::Setup s;
    s.part = part, s.name = "in the chuck", s.cuts = {journal}, s.way = Vec3::UnitZ();
    s.holding = Workholding::three_jaw;
    in.setup = make(s);
    in.piece = piece;
    Operation o;
    o.part = part, o.kind = OperationKind::turn, o.setup = in.setup, o.surfaces = {journal};
    make(o);
  }
  BenchStep cut_step() {
    in.plans = allowance::surface_plans(b, piece, casting::piece_input(b, piece), {}, aims);
    for (const auto& one : bench_steps(b, in))
      if (one.kind == StepKind::cut && !one.done) return one;
    return {};
  }
  StepTaken take(const char* typed) {
    auto taken = take_step(b, in, cut_step(), typed, read_in(Unit::mm));
    EXPECT_TRUE(!taken.ok() || b.apply(taken.edit));
    return taken;
  }
  std::vector<allowance::Aim> aims;
  BenchInput in;
  Id piece = 0, journal = 0;
};

} // namespace

// A size that grows by cutting, or is a quarter of what it should be, was not read of this: nothing is taken.
TEST_F(OnTheLathe, AReadingThatCannotBeIsAskedAbout) {
  EXPECT_NE(cut_step().also.find("turn at about 560"), std::string::npos) << cut_step().also; // 16, not 12
  ASSERT_TRUE(take("12.5").ok());
  EXPECT_NE(take("18.5").wrong.find("more than there was before the cut, 12.500"), std::string::npos);
  EXPECT_NE(take("2+12.5+1+3").wrong.find("more than there was"), std::string::npos); // meant for a trial
  EXPECT_NE(take("0.472").wrong.find("is it this size, and the unit right?"), std::string::npos);
  EXPECT_EQ(b.cuts_of(piece, journal).size(), 1U);
  EXPECT_TRUE(take("12.51").ok()); // sprung back: a hundredth more is read now and then
}

TEST_F(OnTheLathe, ASizeWithoutLimitsIsRightWhereItsMatesSaySo) {
  aims = {{journal, -0.0025, 0.005, false}};
  ASSERT_TRUE(take("12.3").ok());
  EXPECT_EQ(take("11.99").told, "to size");
  EXPECT_TRUE(cut_step().key.empty()); // done
}

TEST_F(OnTheLathe, ASizeUnderWhatItsMatesWantSaysSo) {
  aims = {{journal, -0.0025, 0.005, false}};
  ASSERT_TRUE(take("12.3").ok());
  const auto told = take("11.97").told;
  EXPECT_NE(told.find("0.013\u202Fmm a side under what its mates want"), std::string::npos) << told;
}

// 16 turned to 12 in passes of 0.6, 0.15 for the last: 1.85 are three and 50 µm, which is no pass of its own.
TEST_F(OnTheLathe, ASliverIsNoPassOfItsOwn) {
  Allowance a;
  a.piece = piece, a.surface = journal, a.rough = 0.6, a.finish = 0.155, a.skin = 0;
  make(a);
  EXPECT_NEAR(*cut_step().number, 16 - 2 * 0.645, 1e-9);
  ASSERT_TRUE(take("14.712").ok()); // 1.356: two of 0.6 and a micron
  EXPECT_NEAR(*cut_step().number, 14.712 - 2 * 0.601, 1e-9);
}
