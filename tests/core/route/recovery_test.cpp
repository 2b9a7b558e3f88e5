// After a slip: the ways there are, judged by numbers, and taken in one step. Common practice: bore out and
// bush, sleeve, liner, mate made to suit, build up, scrap.

#include "route/recovery.h"

#include "build/edits.h"
#include "route/plan_route.h"
#include "tests/core/demo_piece.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

class AfterASlip : public test::DemoPiece {
protected:
  /// A cut of that surface that left `left` mm a side.
  std::vector<RecoveryWay> after_cut(const char* name, double left) {
    Cut cut;
    cut.piece = piece;
    cut.surface = surface(name);
    cut.left = left;
    cut.place = Vec3::Zero();
    cut.order = 99;
    EXPECT_TRUE(b.apply(add(b, cut, "x")));
    return ways(name);
  }
  std::vector<RecoveryWay> ways(const char* name) {
    const auto plans = allowance::surface_plans(b, piece, input(), pose());
    return recoveries(b, piece, input(), pose(), plans, surface(name), "2026-11-27T10:00:00Z");
  }
  static const RecoveryWay* find(const std::vector<RecoveryWay>& ways, Recovery way) {
    const auto found = std::find_if(ways.begin(), ways.end(), [&](const auto& w) { return w.way == way; });
    return found == ways.end() ? nullptr : &*found;
  }
};

TEST_F(AfterASlip, NothingIsOfferedWhereNothingIsWrong) {
  EXPECT_TRUE(ways("bore").empty());
  EXPECT_TRUE(ways("no such").empty());
}

TEST_F(AfterASlip, ABoreTooLargeIsBushedWhereThereIsMetal) {
  const auto all = after_cut("bore", -0.4);
  ASSERT_FALSE(all.empty());
  const auto* bush = find(all, Recovery::bush);
  ASSERT_TRUE(bush);
  // 31 across, the barrel 45: a bush a tenth of the diameter thick (3.1) and the slip want 38.5 or so; (45 -
  // 38.5) / 2 stay.
  EXPECT_TRUE(bush->works) << bush->text;
  EXPECT_NEAR(bush->room, (45 - 38.5) / 2, 0.3) << bush->text;
  EXPECT_NE(bush->text.find("38."), std::string::npos) << bush->text;
  EXPECT_EQ(bush->minutes, 45); // bored, turned, pressed, bored
  EXPECT_NE(bush->text.find("45 min: bore 15, turn 10, press 5, bore 15"), std::string::npos) << bush->text;
  auto taken = b;
  ASSERT_TRUE(taken.apply(bush->edit));
  EXPECT_EQ(taken.operations_of(part).size(), b.operations_of(part).size() + 4);
  EXPECT_EQ(taken.decisions_of(part).size(), b.decisions_of(part).size() + 1);
  const auto plan = plan_route(taken, part); // the plan made anew can work
  EXPECT_TRUE(plan.best.usable()) << plan.best.message;
  ASSERT_TRUE(taken.apply(reversed(bush->edit)));
  EXPECT_EQ(taken.records(), b.records());
  EXPECT_FALSE(find(all, Recovery::sleeve)); // of a hole
}

TEST_F(AfterASlip, ScrapSaysWhatIsLostAndComesLast) {
  const auto all = after_cut("bore", -0.4);
  ASSERT_FALSE(all.empty());
  EXPECT_EQ(all.back().way, Recovery::scrap);
  auto taken = b;
  ASSERT_TRUE(taken.apply(all.back().edit));
  EXPECT_NE(taken.find<Piece>(piece)->rejected.find("bore cut"), std::string::npos);
  // The foot and the bore have been cut: their operations are lost, 8 to face, 15 to bore, 15 to lap.
  EXPECT_EQ(all.back().minutes, 8 + 15 + 15);
}

TEST_F(AfterASlip, IronIsNotWelded) {
  const auto all = after_cut("bore", -0.4);
  ASSERT_TRUE(find(all, Recovery::build_up));
  EXPECT_FALSE(find(all, Recovery::build_up)->works); // cast iron
  auto steel = *b.find<Part>(part);
  steel.material = "mild steel";
  ASSERT_TRUE(b.apply(replace(b, part, steel, "x")));
  EXPECT_TRUE(find(ways("bore"), Recovery::build_up)->works);
}

TEST_F(AfterASlip, EveryWayThatWorksCanBeTakenAndTakenBack) {
  for (const char* name : {"bore", "port face"}) {
    const auto all = after_cut(name, -0.6);
    for (const auto& way : all) {
      EXPECT_FALSE(way.text.empty());
      EXPECT_EQ(way.works, !way.edit.changes.empty()) << recovery_name(way.way);
      if (!way.works) continue;
      auto taken = b;
      ASSERT_TRUE(taken.apply(way.edit)) << recovery_name(way.way);
      ASSERT_TRUE(taken.apply(reversed(way.edit)));
      EXPECT_EQ(taken.records(), b.records()) << recovery_name(way.way);
    }
  }
}

} // namespace
