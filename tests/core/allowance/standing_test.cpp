// How a piece of bar or block stands on the plate, by sums a person would do.

#include "allowance/standing.h"

#include "build/edit_making.h"
#include "build/edits.h"
#include "casting/marking_out.h"
#include "stock/stock_body.h"

#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;

namespace {

class StandingOnThePlate : public test::DrawnPart {
protected:
  /// 50 × 30 × 20, out of a block 54 × 34 × 25 with 1 mm under the foot and 4 over the top.
  StandingOnThePlate() {
    part = make(Part{"Block", "mild steel", 1, 0});
    piece = make(Piece{part, 1});
    foot = face("foot", {0, 0, -10}, -Vec3::UnitZ(), 50, 30);
    top = face("top", {0, 0, 10}, Vec3::UnitZ(), 50, 30);
    face("left", {-25, 0, 0}, -Vec3::UnitX(), 30, 20);
    face("right", {25, 0, 0}, Vec3::UnitX(), 30, 20);
    face("front", {0, -15, 0}, -Vec3::UnitY(), 50, 20);
    face("back", {0, 15, 0}, Vec3::UnitY(), 50, 20);
    Stock stock;
    stock.part = part;
    stock.form = StockForm::block;
    stock.width = 34;
    stock.thick = 25;
    stock.length = 54;
    stock.shift = {0, 0, 1.5};
    stock_id = make(stock);
  }
  Id piece = 0, foot = 0, top = 0, stock_id = 0;
};

} // namespace

TEST_F(StandingOnThePlate, OnTheMetalThatIsStillThere) {
  auto stands = allowance::standing(b, piece, Vec3::UnitZ());
  ASSERT_EQ(stands.wrong, "");
  EXPECT_NEAR(stands.low, -11, 1e-9);
  EXPECT_NEAR(stands.high, 14, 1e-9);
  EXPECT_EQ(stands.low_sum.title, "foot as it is now");
  // The foot is milled to size: it stands on that.
  Cut cut;
  cut.piece = piece;
  cut.surface = foot;
  cut.left = 0;
  cut.at = "2026-05-01T10:00:00Z";
  cut.place = {0, 0, -10};
  ASSERT_TRUE(b.apply(log_cut(b, cut)));
  stands = allowance::standing(b, piece, Vec3::UnitZ());
  EXPECT_NEAR(stands.low, -10, 1e-9);
  EXPECT_NEAR(stands.high, 14, 1e-9);
  EXPECT_NEAR(allowance::standing(b, piece, -Vec3::UnitZ()).low, -14, 1e-9); // upside down on its top
}

TEST_F(StandingOnThePlate, AFaceThatIsGoodAsItComesIsStoodOn) {
  auto good = *b.find<PartSurface>(foot);
  good.machined = false;
  ASSERT_TRUE(b.apply(replace(b, foot, good, "x")));
  EXPECT_NEAR(allowance::standing(b, piece, Vec3::UnitZ()).low, -10, 1e-9);
}

TEST_F(StandingOnThePlate, WithoutSizesItSaysWhatIsMissing) {
  auto bare = *b.find<Stock>(stock_id);
  bare.thick = 0;
  ASSERT_TRUE(b.apply(replace(b, stock_id, bare, "x")));
  EXPECT_EQ(allowance::standing(b, piece, Vec3::UnitZ()).wrong, "it needs its thickness");
  ASSERT_TRUE(b.apply(remove(b, stock_id, "x")));
  EXPECT_EQ(allowance::standing(b, piece, Vec3::UnitZ()).wrong, "it is not said what it is made from");
}

TEST(StockReach, OfRoundHexagonAndFlat) {
  stock::FinishedBox box;
  box.low = {-10, -5, -5};
  box.high = {10, 5, 5};
  box.known = true;
  Stock s;
  s.form = StockForm::round;
  s.width = 12;
  s.length = 30;
  const stock::StockBody round(s, box);
  EXPECT_NEAR(round.reach(Vec3::UnitZ()), 6, 1e-12);
  EXPECT_NEAR(round.reach(Vec3::UnitX()), 15, 1e-12);
  EXPECT_NEAR(round.reach(Vec3(1, 0, 1).normalized()), (15 + 6) / std::sqrt(2.0), 1e-12);
  s.form = StockForm::hexagon;
  const stock::StockBody hexagon(s, box);
  EXPECT_NEAR(hexagon.reach(Vec3::UnitY()), 6, 1e-12);                   // a flat to the width
  EXPECT_NEAR(hexagon.reach(Vec3::UnitZ()), 12 / std::sqrt(3.0), 1e-12); // a corner square to it
  s.form = StockForm::flat;
  s.thick = 8;
  const stock::StockBody flat(s, box);
  EXPECT_NEAR(flat.reach(-Vec3::UnitZ()), 4, 1e-12);
  EXPECT_NEAR(flat.reach(Vec3(0, 1, 1).normalized()), (6 + 4) / std::sqrt(2.0), 1e-12);
}

// On the plate at 0, 1 mm of metal under the foot: the foot's line stands at 1, a bore 10 above it at 11.
TEST(MarkingOutFlat, LinesStandAboveTheUndersideWithoutJacks) {
  casting::MarkingInput input;
  input.part.surfaces = {{"foot", {SurfaceKind::plane, {0, 0, -10}, -Vec3::UnitZ(), 0}, true, 0.5},
                         {"bore", {SurfaceKind::bore, Vec3::Zero(), Vec3::UnitY(), 8}, true, 0.5},
                         {"top", {SurfaceKind::plane, {0, 0, 10}, Vec3::UnitZ(), 0}, true, 0.5}};
  input.underside = -11;
  input.top = 14;
  input.base_height = 0;
  auto result = casting::mark_out(input);
  ASSERT_TRUE(result.usable()) << result.message;
  EXPECT_TRUE(result.jacks.empty());
  ASSERT_EQ(result.lines.size(), 3U);
  EXPECT_NEAR(result.lines[0].height, 1, 1e-12);
  EXPECT_NEAR(result.lines[1].height, 11, 1e-12);
  EXPECT_NEAR(result.lines[2].height, 21, 1e-12);
  EXPECT_NEAR(result.top_height.value(), 25, 1e-12);
  EXPECT_EQ(result.lines[1].reckoning.lines[0].label, "underside stands at");
  // On parallels, 30 up.
  input.base_height = 30;
  EXPECT_NEAR(casting::mark_out(input).lines[1].height, 41, 1e-12);
  // The bore's centre line at 5: the underside would be below the plate.
  input.reference = 1;
  input.base_height = 5;
  result = casting::mark_out(input);
  EXPECT_NE(result.caution.find("raise the base height"), std::string::npos);
}
