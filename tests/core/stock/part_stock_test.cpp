// What a part of a build is made from: metal over its faces by sizes and by calliper, and no touches asked.

#include "stock/part_stock.h"

#include "allowance/plan.h"
#include "build/edit_drawing.h"
#include "casting/survey.h"
#include "casting/survey_gaps.h"
#include "readings/measure.h"

#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

namespace {

/// A block finished 50 long, faces "left" and "right", 30 wide and high; a hole of 8 drilled through.
class PartStock : public test::DrawnPart {
protected:
  void SetUp() override {
    part = make(Part{"Block", "mild steel", 1, 0});
    piece = make(Piece{part, 1});
    left = face("left", {-25, 0, 0}, -Vec3::UnitX(), 30, 30);
    right = face("right", {25, 0, 0}, Vec3::UnitX(), 30, 30);
    face("front", {0, -15, 0}, -Vec3::UnitY(), 50, 30);
    face("back", {0, 15, 0}, Vec3::UnitY(), 50, 30);
    top = face("top", {0, 0, 15}, Vec3::UnitZ(), 50, 30);
    foot = face("foot", {0, 0, -15}, -Vec3::UnitZ(), 50, 30);
    auto drilled = round("hole", SurfaceKind::bore, Vec3::Zero(), Vec3::UnitZ(), 8);
    drilled.height = 30;
    drilled.from_solid = true;
    hole = make(drilled);
    length = make(dimension(DimensionKind::distance, left, right, 50));
  }
  void saw(double length_mm, double width = 32, double thick = 32) {
    Stock s;
    s.part = part;
    s.form = StockForm::block;
    s.length = length_mm;
    s.width = width;
    s.thick = thick;
    ASSERT_TRUE(b.apply(stock::set_stock(b, s, "Made from a block")));
  }
  void read(const char* text, const char* at) {
    readings::MeasureInput in;
    in.made = {length, piece};
    in.text = text;
    in.at = at;
    const auto one = readings::measure(b, in, {});
    ASSERT_TRUE(one.ok) << one.message;
    ASSERT_TRUE(b.apply(readings::keep_measurement(b, one.measurement)));
  }
  allowance::SurfacePlan plan(Id surface) {
    const auto input = casting::piece_input(b, piece);
    for (auto& p : allowance::surface_plans(b, piece, input, {}))
      if (p.surface == surface) return p;
    ADD_FAILURE();
    return {};
  }

  Id piece = 0, left = 0, right = 0, top = 0, foot = 0, hole = 0, length = 0;
};

} // namespace

// Sawn 53 long for 50: 1.5 a side; 32 high for 30: 1; nothing asks for a touch of it.
TEST_F(PartStock, MetalFollowsFromTheSizes) {
  EXPECT_TRUE(stock::needs_touches(b, part)); // a casting until it is said
  saw(53);
  EXPECT_FALSE(stock::needs_touches(b, part));
  const auto metal = stock::raw_metal(b, piece, left);
  ASSERT_TRUE(metal);
  EXPECT_NEAR(metal->most, 1.5, 1e-9);
  EXPECT_NEAR(stock::raw_metal(b, piece, top)->most, 1, 1e-9);
  EXPECT_FALSE(stock::raw_metal(b, piece, hole)); // from solid
  const auto p = plan(left);
  EXPECT_EQ(p.source, allowance::StockSource::sizes);
  EXPECT_NEAR(p.most, 1.5, 1e-9);
  EXPECT_NEAR(p.allowance.skin, 0, 1e-9); // no sand in it
  EXPECT_STREQ(allowance::state_name(p), "as it came");
}

// Read across 52.00 for a finished 50 gives 2.00 for the two faces; 1 each, or as they are put.
TEST_F(PartStock, ACalliperReadingAcrossCountsAtOnce) {
  saw(53);
  read("52.00 mm", "2026-02-03T10:00:00Z");
  auto metal = stock::raw_metal(b, piece, left);
  ASSERT_TRUE(metal);
  EXPECT_TRUE(metal->read);
  EXPECT_NEAR(metal->most, 1, 1e-9);
  EXPECT_NEAR(metal->sum.total(), 1, 1e-9);
  EXPECT_NEAR(plan(right).most, 1, 1e-9);
  // 0.75 of the sawn 3 on the left: a quarter of what was read.
  const auto put = stock::put_in(b, b.stock_of(part)->second, 0, stock::Put::shared, 0.75);
  ASSERT_TRUE(b.apply(stock::set_stock(b, put, "Put")));
  EXPECT_NEAR(stock::raw_metal(b, piece, left)->most, 0.5, 1e-9);
  EXPECT_NEAR(stock::raw_metal(b, piece, right)->most, 1.5, 1e-9);
  // Also where its sizes were never typed.
  ASSERT_TRUE(b.apply(take_away(b, b.stock_of(part)->first)));
  EXPECT_FALSE(stock::raw_metal(b, piece, left)); // a casting again
  Stock unsized;
  unsized.part = part;
  unsized.form = StockForm::block;
  ASSERT_TRUE(b.apply(stock::set_stock(b, unsized, "Made from a block")));
  EXPECT_NEAR(stock::raw_metal(b, piece, left)->most, 1, 1e-9);
}

// The left is cut to size; then it reads 51.2 across: 1.2 are left, all on the right.
TEST_F(PartStock, AfterOneFaceIsCutTheReadingIsTheOthers) {
  saw(53);
  read("52.00 mm", "2026-02-03T10:00:00Z");
  auto cut = allowance::cut_of(plan(left), {}, 0);
  cut.at = "2026-02-03T11:00:00Z";
  make(cut);
  EXPECT_NEAR(stock::raw_metal(b, piece, right)->most, 1, 1e-9); // as it was before anything was cut
  read("51.20 mm", "2026-02-03T11:05:00Z");
  const auto p = plan(right);
  EXPECT_NEAR(p.now, 1.2, 1e-9);
}

// A hole from solid: its drills leave what the boring tool takes; no touches, no seat.
TEST_F(PartStock, AHoleFromSolidAsksForNoTouches) {
  saw(53);
  const auto p = plan(hole);
  EXPECT_EQ(p.source, allowance::StockSource::solid);
  EXPECT_GT(p.most, 0);
  EXPECT_LT(p.most, 2);
  EXPECT_STREQ(allowance::state_name(p), "in the solid");
  // In a casting too: its faces want touches, the hole none.
  ASSERT_TRUE(b.apply(take_away(b, b.stock_of(part)->first)));
  for (const auto& gap : casting::survey_gaps(casting::piece_input(b, piece).seat))
    EXPECT_EQ(gap.text.find("hole"), std::string::npos) << gap.text;
}

TEST_F(PartStock, NothingOfWhatIsBoughtFinishedIsCut) {
  Stock bought;
  bought.part = part;
  bought.form = StockForm::bought;
  ASSERT_TRUE(b.apply(stock::set_stock(b, bought, "Bought")));
  EXPECT_FALSE(stock::needs_touches(b, part));
  EXPECT_TRUE(allowance::surface_plans(b, piece, casting::piece_input(b, piece), {}).empty());
  EXPECT_EQ(stock::stock_text(bought, Unit::mm), "bought finished");
}

TEST_F(PartStock, PutAgainstASideLeavesNoMetalThere) {
  saw(53);
  auto s = stock::put_in(b, b.stock_of(part)->second, 0, stock::Put::against_high);
  auto sides = stock::sides_of(b, s);
  EXPECT_NEAR(sides.low.x(), 3, 1e-9);
  EXPECT_NEAR(sides.high.x(), 0, 1e-9);
  s = stock::put_in(b, s, 0, stock::Put::centred);
  sides = stock::sides_of(b, s);
  EXPECT_NEAR(sides.low.x(), 1.5, 1e-9);
  EXPECT_EQ(stock::stock_text(s, Unit::mm), "32 mm \u00D7 32 mm block, 53 mm long");
}

// Bar and block have no holes: one is from solid without being told so. Of a tube the one along its bore has
// its metal, shifted half a millimetre off unevenly; a cross hole is drilled.
TEST_F(PartStock, AHoleInBarIsFromSolidUnlessItIsTheBoreOfATube) {
  auto cross = round("cross hole", SurfaceKind::bore, Vec3::Zero(), Vec3::UnitY(), 6);
  auto along = round("through", SurfaceKind::bore, Vec3::Zero(), Vec3::UnitX(), 12);
  const Id across_it = make(cross), through = make(along);
  EXPECT_FALSE(stock::made_from_solid(b, through)); // a casting may be cored
  EXPECT_TRUE(stock::made_from_solid(b, hole));     // said of it
  saw(53);
  EXPECT_TRUE(stock::made_from_solid(b, across_it));
  EXPECT_TRUE(stock::made_from_solid(b, through));
  auto tube = b.stock_of(part)->second;
  tube.form = StockForm::tube;
  tube.width = 45;
  tube.bore = 10;
  tube.shift.y() = 0.5;
  ASSERT_TRUE(b.apply(stock::set_stock(b, tube, "Made from tube")));
  EXPECT_TRUE(stock::made_from_solid(b, across_it));
  EXPECT_FALSE(stock::made_from_solid(b, through));
  const auto metal = stock::raw_metal(b, piece, through);
  ASSERT_TRUE(metal);
  EXPECT_NEAR(metal->least, 0.5, 1e-9);
  EXPECT_NEAR(metal->most, 1.5, 1e-9);
}
