// Bars, plates and blocks as bodies: metal over a finished part, against sums by hand.

#include "stock/stock_body.h"

#include "tests/core/stock/faces.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

using namespace datrin;
using namespace datrin::stock;
using namespace datrin::test;

namespace {

/// A box 60 x 40 x 20 about the origin.
std::vector<Patch> box_part() {
  return {flat_face({30, 0, 0}, Vec3::UnitX(), 40, 20), flat_face({-30, 0, 0}, -Vec3::UnitX(), 40, 20),
          flat_face({0, 20, 0}, Vec3::UnitY(), 60, 20), flat_face({0, -20, 0}, -Vec3::UnitY(), 60, 20),
          flat_face({0, 0, 10}, Vec3::UnitZ(), 60, 40), flat_face({0, 0, -10}, -Vec3::UnitZ(), 60, 40)};
}

Stock sawn(StockForm form, double width, double thick, double length) {
  Stock s;
  s.form = form;
  s.width = width;
  s.thick = thick;
  s.length = length;
  return s;
}

} // namespace

// A block 64 x 43 x 22 about a part 60 x 40 x 20: 2, 1.5 and 1 a side; put 0.5 along its width, 1 and 2.
TEST(StockBody, ABlockLeavesHalfTheDifferenceASide) {
  const auto part = box_part();
  auto s = sawn(StockForm::block, 43, 22, 64);
  const auto box = finished_box(part, axes_of(s));
  EXPECT_EQ(box.size(), Vec3(60, 40, 20));
  const auto metal = [&](std::size_t k) { return *metal_over(StockBody(s, box), part[k], part); };
  EXPECT_NEAR(metal(0).most, 2, 1e-9);
  EXPECT_NEAR(metal(2).least, 1.5, 1e-9);
  EXPECT_NEAR(metal(4).least, 1, 1e-9);
  s.shift.y() = 0.5;
  EXPECT_NEAR(metal(2).most, 2, 1e-9);
  EXPECT_NEAR(metal(3).most, 1, 1e-9);
  EXPECT_NEAR(StockBody(s, box).volume(), 64.0 * 43 * 22, 1e-6);
  s.thick = 19; // too thin: it lacks half a millimetre a side
  EXPECT_NEAR(metal(4).least, -0.5, 1e-9);
}

// Face 20 above the axis of a 50 bar, 30 wide: 5 in its middle, sqrt(25^2 - 15^2) - 20 = 0 at its edges.
TEST(StockBody, AFlatOnARoundBarHasLessAtItsEdges) {
  const auto flat = flat_face({0, 0, 20}, Vec3::UnitZ(), 40, 30); // level is y: width across, height along
  const auto s = sawn(StockForm::round, 50, 0, 60);
  FinishedBox box;
  box.known = true;
  const StockBody body(s, box);
  EXPECT_NEAR(body.to_outside({0, 0, 20}, Vec3::UnitZ()), 5, 1e-9);
  EXPECT_NEAR(body.to_outside({0, 15, 20}, Vec3::UnitZ()), 0, 1e-9);
  EXPECT_NEAR(body.to_outside({0, 24, 20}, Vec3::UnitZ()), 25 - std::hypot(24.0, 20.0),
              1e-9); // outside of it
  const auto metal = *metal_over(body, flat, {flat});
  EXPECT_NEAR(metal.most, 5, 1e-9);
  EXPECT_LE(metal.least, 0.0);
}

// A round of 18 out of a hexagon of 20 across flats: 1 at the flats, 20/sqrt 3 - 9 at the corners; a square
// of 20: 1 and 10 sqrt 2 - 9. The hexagon's section is sqrt 3/2 x 20^2.
TEST(StockBody, ARoundFromHexagonAndSquare) {
  const Patch boss{{SurfaceKind::boss, {0, 0, 0}, Vec3::UnitX(), 18}, 0, 30};
  const auto hexagon = sawn(StockForm::hexagon, 20, 0, 40), square = sawn(StockForm::square, 20, 0, 40);
  const auto box = finished_box({boss}, axes_of(hexagon));
  EXPECT_NEAR(box.size().y(), 18, 1e-9);
  EXPECT_NEAR(box.size().x(), 30, 1e-9);
  EXPECT_NEAR(metal_over(StockBody(hexagon, box), boss, {boss})->least, 1, 1e-9);
  EXPECT_NEAR(metal_over(StockBody(hexagon, box), boss, {boss})->most, 20 / std::sqrt(3.0) - 9, 1e-9);
  EXPECT_NEAR(metal_over(StockBody(square, box), boss, {boss})->least, 1, 1e-9);
  EXPECT_NEAR(metal_over(StockBody(square, box), boss, {boss})->most, 10 * std::sqrt(2.0) - 9, 1e-9);
  EXPECT_NEAR(StockBody(hexagon, box).volume(), std::sqrt(3.0) / 2 * 400 * 40, 1e-6);
}

TEST(StockBody, ATubeHasItsBoreAndItsSection) {
  auto s = sawn(StockForm::tube, 30, 0, 50);
  s.bore = 20;
  const Patch bore{{SurfaceKind::bore, {0, 0, 0}, Vec3::UnitX(), 22}, 0, 50};
  FinishedBox box;
  box.known = true;
  const StockBody body(s, box);
  EXPECT_NEAR(metal_over(body, bore, {bore})->most, 1, 1e-9);
  EXPECT_NEAR(body.volume(), std::numbers::pi / 4 * (900 - 400) * 50, 1e-6);
  s.bore = 31;
  EXPECT_EQ(sizes_wrong(s), "a tube needs a bore smaller than its outside");
}

TEST(StockBody, SizesAreAskedForByTheirForm) {
  EXPECT_EQ(sizes_wrong(sawn(StockForm::round, 0, 0, 10)), "it needs its diameter");
  EXPECT_EQ(sizes_wrong(sawn(StockForm::hexagon, 0, 0, 10)), "it needs its size across the flats");
  EXPECT_EQ(sizes_wrong(sawn(StockForm::plate, 10, 0, 10)), "it needs its thickness");
  EXPECT_EQ(sizes_wrong(sawn(StockForm::round, 10, 0, 0)), "it needs the length it is sawn to");
  EXPECT_EQ(sizes_wrong(sawn(StockForm::casting, 0, 0, 0)), "");
}

// The end of a bar of 20 drawn 20 x 20 is a disc: it asks for no square's corners. A shoulder is no end.
TEST(StockBody, TheEndOfARoundIsADiscAndAShoulderIsNoEnd) {
  const Patch rod{{SurfaceKind::boss, {0, 0, 0}, Vec3::UnitX(), 20}, 0, 40},
      seat{{SurfaceKind::boss, {30, 0, 0}, Vec3::UnitX(), 10}, 0, 20};
  const auto end = flat_face({40, 0, 0}, Vec3::UnitX(), 10, 10),
             shoulder = flat_face({20, 0, 0}, Vec3::UnitX(), 20, 20),
             foot = flat_face({-20, 0, 0}, -Vec3::UnitX(), 20, 20);
  const std::vector<Patch> part{rod, seat, end, shoulder, foot};
  const auto s = sawn(StockForm::round, 20, 0, 63);
  const auto box = finished_box(part, axes_of(s));
  EXPECT_NEAR(box.size().y(), 20, 1e-9);
  EXPECT_NEAR(box.size().x(), 60, 1e-9);
  EXPECT_NEAR(metal_over(StockBody(s, box), foot, part)->least, 1.5, 1e-9);
  EXPECT_TRUE(is_shoulder(shoulder, part));
  EXPECT_FALSE(is_shoulder(end, part));
  EXPECT_FALSE(is_shoulder(foot, part));
}
