#include "route/suggest_setups.h"

#include "tests/core/demo_piece.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;

class SuggestSetups : public test::DemoPiece {};

TEST_F(SuggestSetups, SuggestedSetupsCutEverythingOnceAndLocateFromWhatWasCut) {
  const auto setups = route::suggest_setups(b, part, {surface("foot")});
  ASSERT_FALSE(setups.empty());
  std::vector<Id> cut;
  for (const auto& s : setups) cut.insert(cut.end(), s.cuts.begin(), s.cuts.end());
  for (const auto& [id, s] : b.surfaces_of(part))
    EXPECT_EQ(std::count(cut.begin(), cut.end(), id), s.machined ? 1 : 0) << s.name;
  std::vector<Id> before = setups[0].cuts;
  for (std::size_t k = 1; k < setups.size(); ++k) {
    for (const auto datum : setups[k].datums)
      EXPECT_TRUE(std::count(before.begin(), before.end(), datum)) << setups[k].name << " " << datum;
    before.insert(before.end(), setups[k].cuts.begin(), setups[k].cuts.end());
  }
}

// A bore is reached along its axis, a face from where it looks, by an end mill also from beside (common
// practice): every setup has a way from which all it cuts is reached.
TEST_F(SuggestSetups, WhatASetupCutsIsReachedFromOneSide) {
  for (const auto& s : route::suggest_setups(b, part, {surface("foot")})) {
    const auto reached = [&](const Vec3& way) {
      return std::all_of(s.cuts.begin(), s.cuts.end(), [&](Id id) {
        const auto& f = *b.find<build::PartSurface>(id);
        const double cosine = f.direction.dot(way);
        return f.round() ? std::abs(cosine) > 0.95 : cosine > 0.95 || std::abs(cosine) < 0.3;
      });
    };
    bool any = s.cuts.empty();
    for (const Vec3& axis : {Vec3(1, 0, 0), Vec3(0, 1, 0), Vec3(0, 0, 1)})
      any = any || reached(axis) || reached(-axis);
    EXPECT_TRUE(any) << s.name;
  }
}

// Common practice: what lies behind a larger diameter is turned after turning round.
TEST(SuggestSetupsOfAShaft, AJournalBehindTheBodyIsTurnedFromItsOwnEnd) {
  Build b;
  b.load(2, Part{"Shaft", "mild steel", 1, 1});
  Stock stock;
  stock.part = 2;
  stock.form = StockForm::round;
  b.load(3, stock);
  const auto round = [&](Id id, const char* name, double x, double diameter, double length) {
    PartSurface s;
    s.part = 2;
    s.name = name;
    s.kind = SurfaceKind::boss;
    s.point = Vec3(x, 0, 0);
    s.direction = Vec3::UnitX();
    s.diameter = diameter;
    s.height = length;
    b.load(id, s);
  };
  round(10, "body", 0, 20, 60);
  round(11, "journal A", -42, 12, 24);
  round(12, "journal B", 42, 12, 24);
  const auto setups = route::suggest_setups(b, 2, {});
  ASSERT_EQ(setups.size(), 2U);
  for (const auto& setup : setups)
    EXPECT_FALSE(contains(setup.cuts, 11) && contains(setup.cuts, 12)) << setup.name;
  EXPECT_TRUE(contains(setups[0].cuts, 10));
  EXPECT_EQ(setups[1].name, "turned round");
}
