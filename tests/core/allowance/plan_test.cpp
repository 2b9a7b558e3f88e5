#include "allowance/plan.h"

#include "build/edit_drawing.h"
#include "build/edits.h"
#include "tests/core/demo_piece.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::allowance;

class Planning : public test::DemoPiece {
protected:
  std::vector<SurfacePlan> plans() { return surface_plans(b, piece, input(), pose()); }
  SurfacePlan plan(const char* name) {
    for (auto& p : plans())
      if (p.drawn.name == name) return p;
    ADD_FAILURE() << name;
    return {};
  }
  void log(const char* name, double left) {
    ASSERT_TRUE(b.apply(add(b, cut_of(plan(name), pose(), left), "x")));
  }
  MistakeResult mistake(const char* name) {
    const auto p = plan(name);
    return absorb_mistake(b, input(), pose(), plans(), p, p.now);
  }
};

TEST_F(Planning, LimitsOfADimensionSayWhenASurfaceIsFinished) {
  const auto bore = plan("bore"); // 31 H7: 0 to +0.025 on the diameter
  EXPECT_NEAR(bore.low, -0.0125, 1e-9);
  EXPECT_NEAR(bore.high, 0, 1e-9);
  EXPECT_NEAR(bore.size_with(0.5).value_or(0), 30, 1e-12);
  log("bore", -0.01);
  EXPECT_EQ(plan("bore").state, SurfaceState::finished);
  log("bore", -0.02);
  EXPECT_EQ(plan("bore").state, SurfaceState::spoilt);
}

// Common practice: 2.4875 measured where 2.435 is wanted leaves 0.0525 in on the diameter.
TEST_F(Planning, ReadingsBecomeMetalLeft) {
  auto bore = plan("bore");
  bore.drawn.kind = SurfaceKind::boss;
  bore.drawn.diameter = 2.435 * 25.4;
  EXPECT_NEAR(2 * left_by_reading(b, bore, ReadingOf::size, 2.4875 * 25.4).value_or(0) / 25.4, 0.0525, 1e-9);
  std::string why;
  EXPECT_FALSE(left_by_reading(b, plan("foot"), ReadingOf::size, 3, &why));
  EXPECT_EQ(why, "a plane has no diameter");
  EXPECT_FALSE(left_by_reading(b, bore, ReadingOf::size, -3, &why));
  EXPECT_EQ(why, "a diameter must be above 0");
  EXPECT_FALSE(left_by_reading(b, bore, ReadingOf::distance, 3, &why));
  EXPECT_EQ(why, "a round surface is read by its diameter");
}

TEST_F(Planning, AFaceThatWasCutStaysWhereItIsWhenTheSeatMoves) {
  const double before = plan("foot").now, other = plan("end A").most;
  auto [id, seat] = *b.seat_of(piece);
  auto moved = seat;
  moved.pose.translation += Vec3(0, 0, -0.3); // the foot faces −z: more metal over it
  ASSERT_TRUE(b.apply(replace(b, id, moved, "x")));
  EXPECT_NEAR(plan("foot").now, before + 0.3, 1e-9);
  EXPECT_EQ(plan("foot").state, SurfaceState::roughed);
  EXPECT_NEAR(plan("end A").most, other, 1e-9);
}

TEST_F(Planning, TheSkinIsGoneOnceTheCutIsUnderIt) {
  const auto fresh = plan("end A");
  log("end A", fresh.most - 0.2); // not yet under it: the next cut takes the rest of the skin at least
  EXPECT_GE(plan("end A").rest.passes.front().depth, fresh.allowance.skin - 0.2 - 1e-9);
  log("end A", 0.6);
  EXPECT_TRUE(plan("end A").rest.cleans_up);
}

TEST_F(Planning, AMistakeEndsThePieceWhenNothingCanTakeIt) {
  log("end B", 0.0);
  log("end A", -0.9);
  const auto found = mistake("end A");
  EXPECT_TRUE(found.ends);
  EXPECT_NEAR(found.over, 0.6, 1e-9); // ISO 2768-m lets 82 mm be 0.3 short; from memory
}

// It "ended the piece" by 0.05 that nobody gave.
TEST_F(Planning, ASurfaceWithoutLimitsIsNeverTooDeep) {
  for (const auto& [id, d] : b.dimensions_of(part))
    if (d.name == "length") {
      auto free = d;
      free.lower = free.upper = 0;
      free.tolerance.clear();
      ASSERT_TRUE(b.apply(replace(b, id, free, "x")));
    }
  log("end B", 0.0);
  log("end A", -0.9);
  EXPECT_FALSE(plan("end A").limited);
  EXPECT_EQ(plan("end A").state, SurfaceState::finished);
  const auto found = mistake("end A");
  EXPECT_FALSE(found.ends);
  EXPECT_EQ(found.verdict,
            "end A has no limits: give it some, and it is said whether 0.90\u202Fmm is too deep.");
}

TEST_F(Planning, MetalIsExpectedWhereNothingWasTouched) {
  for (const auto& [id, p] : b.parts())
    if (p.name == "Cylinder cover") piece = b.pieces_of(id).front().first;
  const auto all = plans();
  ASSERT_FALSE(all.empty());
  for (const auto& p : all) {
    EXPECT_EQ(p.source, StockSource::expected);
    EXPECT_GT(p.most, p.least);
    EXPECT_TRUE(p.plan.usable()) << p.drawn.name << ": " << p.plan.message;
  }
}

// Common practice: a dial in inches is divided in thousandths, one in millimetres in hundredths; what begins
// a plan is a round figure on it. 0.035 in is on such a dial, the 0.89 mm it is nearly is not.
TEST(InchWorkshop, BeginsWithFiguresItsDialsHave) {
  EXPECT_NEAR(usual_graduation(Unit::inch), 0.0254, 1e-12);
  EXPECT_NEAR(usual_graduation(Unit::mm), 0.01, 1e-12);
  EXPECT_EQ(dial_text(0.03453 * 25.4, {false, Unit::inch, usual_graduation(Unit::inch)}), "0.035");

  Build b;
  ASSERT_TRUE(b.apply(work_in(b, Unit::inch)));
  const auto edit = add_part(b, "Cover");
  ASSERT_TRUE(b.apply(edit.edit));
  const auto surface = add_surface(b, edit.id, SurfaceKind::bore);
  ASSERT_TRUE(b.apply(surface.edit));
  const auto* bore = b.find<PartSurface>(surface.id);
  EXPECT_NEAR(bore->required / 25.4, 0.02, 1e-12);
  EXPECT_NEAR(bore->diameter / 25.4, 0.75, 1e-12);
  const auto usual = usual_allowance(b, b.pieces_of(edit.id).front().first, surface.id);
  EXPECT_NEAR(usual.rough / 25.4, 0.06, 1e-12);
  EXPECT_NEAR(usual.finish / 25.4, 0.012, 1e-12);
  EXPECT_NEAR(usual.skin, bore->required, 1e-12);
}
