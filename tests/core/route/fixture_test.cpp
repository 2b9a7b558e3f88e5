// Fixtures beside the parts they hold. Common practice: a pin of 8.19 in a hole of 8.20 leaves 0.01 mm, in
// one of 8.33 0.14; a fixture is tried on a reject first. The moment of a drill by M = k f D² / 8 (from
// memory), worked by hand.

#include "route/fixture.h"

#include "build/edit_route.h"
#include "route/card.h"
#include "route/part_spread.h"
#include "route/plan_route.h"
#include "route/stiffness.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

class InAFixture : public test::DrawnPart {
protected:
  InAFixture() {
    part = make(Part{"Rod", "mild steel", 2, 0});
    fixture = make(Part{"Drilling jig", "mild steel", 1, 1});
    hole = make(round("big end", SurfaceKind::bore, {0, 0, 0}, Vec3::UnitZ(), 8.25));
    small = make(round("small end", SurfaceKind::bore, {40, 0, 0}, Vec3::UnitZ(), 5));
    face_ = face("face", {20, 0, -10}, -Vec3::UnitZ(), 50, 12);
    auto d = dimension(DimensionKind::size, hole, 0, 8.25);
    d.name = "big end";
    d.lower = -0.05, d.upper = 0.08;
    size = make(d);
    for (int n : {1, 2}) pieces[n - 1] = make(Piece{part, n});
    build::Setup s;
    s.part = part;
    s.name = "in the jig";
    s.datums = {face_, hole};
    s.cuts = {small};
    s.holding = Workholding::fixture;
    setup = make(s);
    Operation o;
    o.part = part;
    o.kind = OperationKind::drill;
    o.setup = setup;
    o.surfaces = {small};
    o.size = 5;
    o.needs = {fixture};
    drill = make(o);
  }
  Id locator(Id surface, LocatorKind kind, double mm = 0, double closes = 0, double arm = 0) {
    const auto added = add_locator(b, fixture, surface, kind);
    EXPECT_TRUE(b.apply(added.edit)) << added.wrong;
    auto l = *b.find<Locator>(added.id);
    l.size = mm, l.closes = closes, l.arm = arm;
    b.load(added.id, l);
    return added.id;
  }
  void read(int piece, double mm) { make(Measurement{pieces[piece - 1], size, mm, 0.002, "plug", "now"}); }

  Id fixture = 0, hole = 0, small = 0, face_ = 0, size = 0, setup = 0, drill = 0, pieces[2] = {0, 0};
};

TEST_F(InAFixture, APinLeavesThePlayThatIsLeft) {
  locator(face_, LocatorKind::pad);
  locator(hole, LocatorKind::pin, 8.19);
  const auto check = fixture_check(b, fixture);
  EXPECT_EQ(check.part, part);
  ASSERT_EQ(check.locators.size(), 2U);
  const auto& pin = check.locators[1];
  EXPECT_NEAR(pin.least_play, 0.01, 1e-9);
  EXPECT_NEAR(pin.most_play, 0.14, 1e-9);
  EXPECT_TRUE(pin.goes);
  EXPECT_TRUE(pin.pieces.empty());
  read(1, 8.205);
  read(2, 8.18);
  const auto now = fixture_check(b, fixture).locators[1].pieces;
  ASSERT_EQ(now.size(), 2U);
  EXPECT_NEAR(now[0].play, 0.015, 1e-9);
  EXPECT_TRUE(now[0].goes);
  EXPECT_NEAR(now[1].play, -0.01, 1e-9);
  EXPECT_FALSE(now[1].goes);
}

TEST_F(InAFixture, APinTooThickForTheTightestHoleIsSaid) {
  locator(hole, LocatorKind::pin, 8.22);
  const auto pin = fixture_check(b, fixture).locators.front();
  EXPECT_FALSE(pin.goes);
  EXPECT_NE(pin.text.find("the tightest does not go, by 0.020"), std::string::npos) << pin.text;
}

TEST_F(InAFixture, AColletHasARange) {
  const auto spigot = make(round("spigot", SurfaceKind::boss, {0, 0, 30}, Vec3::UnitZ(), 5.8));
  auto d = dimension(DimensionKind::size, spigot, 0, 5.8);
  d.name = "spigot";
  d.lower = -0.4;
  make(d);
  locator(spigot, LocatorKind::collet, 6, 0.5); // takes 5.5 to 6
  const auto c = fixture_check(b, fixture).locators.front();
  EXPECT_FALSE(c.goes); // 5.4 is too thin
  EXPECT_NE(c.text.find("outside it by 0.100"), std::string::npos) << c.text;
  EXPECT_NE(c.text.find("closes to 5.5"), std::string::npos) << c.text;
}

// 5 mm through mild steel at 0.1 mm a turn: 2100 · 0.1 · 25 / 8 = 656 N·mm; 40 mm out that is 16.4 N.
TEST_F(InAFixture, TheDrillTurnsItAndAStopHolds) {
  EXPECT_NEAR(drilling_torque("mild steel", 5, 0, 0.1), 656.25, 1e-9);
  // A counterbore of 10 over a hole of 5: (100 - 25) / 8.
  EXPECT_NEAR(drilling_torque("mild steel", 10, 5, 0.1), 2100 * 0.1 * 75 / 8, 1e-9);
  locator(hole, LocatorKind::pin, 8.19);
  auto check = fixture_check(b, fixture);
  ASSERT_EQ(check.torques.size(), 1U);
  EXPECT_FALSE(check.torques[0].held);
  EXPECT_NE(check.torques[0].text.find("nothing holds against that"), std::string::npos);
  locator(small, LocatorKind::stop, 0, 0, 40);
  check = fixture_check(b, fixture);
  ASSERT_EQ(check.torques.size(), 1U);
  EXPECT_TRUE(check.torques[0].held);
  EXPECT_NEAR(check.torques[0].force, 656.25 / 40, 1e-9);
  EXPECT_EQ(check.torques[0].text.find("clamp it"), std::string::npos);
  FixtureOptions weak;
  weak.by_hand = 10;
  EXPECT_NE(fixture_check(b, fixture, weak).torques[0].text.find("clamp it"), std::string::npos);
}

TEST_F(InAFixture, WhatIsMissingIsSaidUntilItIsTried) {
  const auto said = [&](const std::string& words) {
    const auto check = fixture_check(b, fixture);
    return std::any_of(check.remarks.begin(), check.remarks.end(),
                       [&](const auto& r) { return r.find(words) != std::string::npos; });
  };
  EXPECT_TRUE(said("nothing says where it takes hold"));
  locator(hole, LocatorKind::pin, 8.19);
  EXPECT_TRUE(said("\"in the jig\" locates from face, and no locator takes that"));
  locator(face_, LocatorKind::pad);
  EXPECT_FALSE(said("no locator takes"));
  EXPECT_TRUE(said("not tried yet"));
  ASSERT_TRUE(b.apply(add_proof(b, {fixture, pieces[1], 0.3, false, "slipped", "now"}).edit));
  EXPECT_TRUE(said("not tried yet"));
  // What needs it says so too, once it is made: it has no operations, so it is.
  const auto remarks = plan_route(b, part).remarks;
  EXPECT_TRUE(std::any_of(remarks.begin(), remarks.end(),
                          [](const auto& r) { return r.find("was not tried yet") != std::string::npos; }));
  ASSERT_TRUE(b.apply(add_proof(b, {fixture, 0, 0.05, true, "", "now"}).edit));
  EXPECT_FALSE(said("not tried yet"));
  EXPECT_TRUE(fixture_check(b, fixture).tried);
}

TEST_F(InAFixture, TheCardSaysWhereItTakesHold) {
  locator(face_, LocatorKind::pad);
  locator(hole, LocatorKind::pin, 8.22);
  const auto card = route_card(b, part);
  ASSERT_EQ(card.setups.size(), 1U);
  const auto& one = card.setups.front();
  EXPECT_NE(one.held.find("Drilling jig"), std::string::npos) << one.held;
  const auto has = [](const std::vector<std::string>& list, const std::string& words) {
    return std::any_of(list.begin(), list.end(),
                       [&](const auto& line) { return line.find(words) != std::string::npos; });
  };
  EXPECT_TRUE(has(one.datums, "pad at face"));
  EXPECT_TRUE(has(one.cautions, "the tightest does not go"));
  EXPECT_TRUE(has(one.cautions, "nothing holds against that"));
  EXPECT_TRUE(has(one.cautions, "was not tried yet"));
}

TEST_F(InAFixture, PlayIsSpread) {
  locator(hole, LocatorKind::pin, 8.19);
  // On the mean of its limits, 8.265: 0.075 of play, anywhere between: 0.075 / (2 √3).
  const auto play = play_at_datums(b, *b.find<build::Setup>(setup), setup);
  ASSERT_EQ(play.size(), 1U);
  EXPECT_NEAR(play.at(hole), 0.075 / (2 * std::sqrt(3.0)), 1e-9);
  auto d = dimension(DimensionKind::distance, hole, small, 40);
  d.name = "centres";
  d.lower = -0.1, d.upper = 0.1;
  make(d);
  build::Setup first;
  first.part = part;
  first.name = "bored";
  first.datums = {face_};
  first.cuts = {hole};
  first.order = -1;
  make(first);
  const auto with = part_spread(b, part).dimensions.front().sigma;
  auto tight = *b.find<Locator>(b.locators_of(fixture).front().first);
  tight.size = 0; // not stated: no play is known
  b.load(b.locators_of(fixture).front().first, tight);
  const auto without = part_spread(b, part).dimensions.front().sigma;
  // Along the centres the hole's locator alone tells: variances add up.
  const double play_alone = std::sqrt(with * with - without * without);
  EXPECT_NEAR(play_alone, 0.075 / (2 * std::sqrt(3.0)), 1e-9);
}

// A pin wants a hole, a nest and a collet something to close on: on the wrong one nothing is told of play.
TEST_F(InAFixture, ALocatorWantsItsOwnKindOfSurface) {
  const Id boss = make(round("boss", SurfaceKind::boss, {60, 0, 0}, Vec3::UnitZ(), 8.25));
  const std::pair<Id, LocatorKind> wrong[] = {{boss, LocatorKind::pin},
                                              {face_, LocatorKind::pin},
                                              {hole, LocatorKind::nest},
                                              {hole, LocatorKind::collet},
                                              {face_, LocatorKind::collet}};
  for (const auto& [surface, kind] : wrong) locator(surface, kind, 8.19);
  locator(boss, LocatorKind::collet, 8.25);
  const auto all = fixture_check(b, fixture).locators;
  ASSERT_EQ(all.size(), 6U);
  for (std::size_t k = 0; k < 5; ++k) {
    EXPECT_FALSE(all[k].goes) << all[k].text;
    EXPECT_EQ(all[k].most_play, 0) << all[k].text;
  }
  EXPECT_NE(all[0].text.find("a pin goes into a hole"), std::string::npos) << all[0].text;
  EXPECT_TRUE(all[5].goes) << all[5].text;
}

// Castings of one pattern differ by 0.2 to 0.3 mm (common practice): a nest over a raw boss is told so, and
// what was read across the rough piece counts.
TEST_F(InAFixture, ARawBossIsReadPieceByPiece) {
  auto boss = round("raw boss", SurfaceKind::boss, {80, 0, 0}, Vec3::UnitZ(), 20);
  boss.machined = false;
  const Id raw = make(boss);
  locator(raw, LocatorKind::nest, 20.2);
  make(SizeReading{pieces[1], raw, 0, 20.3, 0.05, "calliper", 0});
  const auto c = fixture_check(b, fixture).locators.front();
  EXPECT_NE(c.text.find("as cast, pieces differ by 0.2"), std::string::npos) << c.text;
  ASSERT_EQ(c.pieces.size(), 1U);
  EXPECT_EQ(c.pieces[0].number, 2);
  EXPECT_FALSE(c.pieces[0].goes);
  EXPECT_NEAR(c.pieces[0].play, -0.1, 1e-9);
}

TEST_F(InAFixture, ABlockOfADifferentDiameterStandsHigher) {
  const auto shaft = make(round("shaft", SurfaceKind::boss, {0, 0, 0}, Vec3::UnitX(), 12));
  auto d = dimension(DimensionKind::size, shaft, 0, 12);
  d.lower = -0.1, d.upper = 0.1;
  d.name = "shaft";
  make(d);
  locator(shaft, LocatorKind::v_block);
  // r √2 over the bottom of a V of 90°: 0.2 on the diameter is 0.141 in height.
  EXPECT_NE(fixture_check(b, fixture).locators.front().text.find("0.141"), std::string::npos);
}

TEST_F(InAFixture, WhatCannotBeIsRefused) {
  EXPECT_NE(add_locator(b, 0, hole, LocatorKind::pin).wrong.find("choose the fixture"), std::string::npos);
  EXPECT_NE(add_locator(b, fixture, 0, LocatorKind::pin).wrong.find("which surface"), std::string::npos);
  EXPECT_NE(add_locator(b, part, hole, LocatorKind::pin).wrong.find("not of itself"), std::string::npos);
  EXPECT_TRUE(fixture_check(b, 999).locators.empty());
  // Taken away, the fixture takes its locators and trials with it.
  locator(hole, LocatorKind::pin, 8.19);
  ASSERT_TRUE(b.apply(remove(b, fixture, "x")));
  EXPECT_TRUE(b.all<Locator>().empty());
  EXPECT_TRUE(b.find<Operation>(drill)->needs.empty());
}

} // namespace
