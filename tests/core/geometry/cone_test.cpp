// The cone among the shapes: each answer checked against plain trigonometry or against differences of its own
// stock.

#include "geometry/surface.h"

#include "quantity/angle.h"
#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;

namespace {

const double half = std::atan(0.5 / 20); // 1 in 20 on the diameter

Surface shank() {
  return {SurfaceKind::taper_shank, {10, 0, 5}, Vec3::UnitX(), 24, half};
}

Surface bore() {
  auto s = shank();
  s.kind = SurfaceKind::taper_bore;
  return s;
}

Surface leaning(SurfaceKind kind) {
  return {kind, {1, 2, 3}, Vec3(1, 2, -1).normalized(), 12, 0.2};
}

} // namespace

// By hand: 40 mm along, a taper of 1 in 20 has grown by 2 mm on the diameter: 26 mm.
TEST(Cone, GrowsByItsTaperAlongItsAxis) {
  EXPECT_NEAR(2 * radius_at(shank(), 40), 26, 1e-12);
  EXPECT_NEAR(2 * radius_at(shank(), -40), 22, 1e-12);
}

// By hand: 1 mm outside the cone measured across the axis is cos α of that at a right angle to its side.
TEST(Cone, StockIsCountedAtARightAngleToItsSide) {
  const Vec3 at(50, 0, 5 + 13 + 1); // 40 along, 1 mm over the 26 mm diameter there
  EXPECT_NEAR(stock_at(shank(), at), std::cos(half), 1e-12);
  EXPECT_NEAR(stock_at(bore(), at), -std::cos(half), 1e-12);
}

TEST(Cone, DirectionIsTheGradientOfStockAndBendItsSecondDifference) {
  const Vec3 at(5, -4, 6);
  for (const auto kind : {SurfaceKind::taper_bore, SurfaceKind::taper_shank}) {
    const auto s = leaning(kind);
    const Vec3 direction = stock_direction(s, at);
    for (int k = 0; k < 3; ++k) {
      const Vec3 e = Vec3::Unit(k) * 1e-6;
      EXPECT_NEAR(direction[k], (stock_at(s, at + e) - stock_at(s, at - e)) / 2e-6, 1e-8);
    }
    const auto bend = stock_bend(s, at);
    const Vec3 e = bend.tangent * 1e-3;
    EXPECT_NEAR(bend.per_mm, (stock_at(s, at + e) - 2 * stock_at(s, at) + stock_at(s, at - e)) / 1e-6, 1e-6);
  }
}

TEST(Cone, ManyStocksAreTheStocksOfEach) {
  const auto s = leaning(SurfaceKind::taper_shank);
  const Eigen::ArrayXd x = Eigen::ArrayXd::LinSpaced(7, -9, 14), y = x.reverse(), z = x * 0.3 + 2;
  Eigen::ArrayXd stock(7);
  stocks_at(s, x, y, z, stock);
  for (int k = 0; k < 7; ++k) EXPECT_NEAR(stock[k], stock_at(s, {x[k], y[k], z[k]}), 1e-12);
}

TEST(Cone, FootStandsOnTheSurfaceUnderThePlace) {
  for (const auto kind : {SurfaceKind::taper_bore, SurfaceKind::taper_shank}) {
    const auto s = leaning(kind);
    const Chart chart(s);
    const Vec3 at(5, -4, 6), foot = chart.foot(at);
    EXPECT_NEAR(stock_at(s, foot), 0, 1e-12);
    EXPECT_NEAR((chart.place(chart.coordinates(foot)) - foot).norm(), 0, 1e-12);
    EXPECT_TRUE(chart.closes());
  }
}

// By hand: t mm at a right angle to the side is t/cos α on the radius, outwards on a shank, inwards in a
// bore.
TEST(Cone, MetalLeftOnItChangesItsDiameterByTwiceTOverCosine) {
  EXPECT_NEAR(size_with_stock(shank(), 1.5).value(), 24 + 3 / std::cos(half), 1e-12);
  EXPECT_NEAR(size_with_stock(bore(), 1.5).value(), 24 - 3 / std::cos(half), 1e-12);
  for (const auto& s : {shank(), bore()}) {
    EXPECT_NEAR(stock_of_size(s, size_with_stock(s, 0.7).value()).value(), 0.7, 1e-12);
    const auto left = with_stock(s, 0.7);
    EXPECT_NEAR(left.half_angle, s.half_angle, 1e-15);
    EXPECT_NEAR(stock_at(s, Chart(left).place({1.0, 12.0})), 0.7, 1e-12);
  }
}

TEST(Cone, ShapesThatCannotBeAreTold) {
  auto s = shank();
  s.half_angle = 0;
  EXPECT_NE(shape_wrong(s), "");
  s.half_angle = radians(90);
  EXPECT_NE(shape_wrong(s), "");
  s = shank();
  s.diameter = 0;
  EXPECT_NE(shape_wrong(s), "");
  EXPECT_EQ(shape_wrong(shank()), "");
}

TEST(Cone, TaperIsWrittenAsDrawingsGiveItAndReadBack) {
  EXPECT_EQ(taper_text(2 * half), "1 in 20");
  EXPECT_EQ(taper_text(2 * std::atan(0.5 / 20.047)), "1 in 20.047");
  EXPECT_EQ(taper_text(radians(60)), "60\u00B0");
  for (const double whole : {2 * half, radians(60.0), 2 * std::atan(0.5 / 20.047)}) {
    const auto read = parse_angle(taper_text(whole), {.taper = TaperOf::cone});
    ASSERT_TRUE(read.ok) << read.message;
    EXPECT_NEAR(read.radian, whole, 1e-9);
  }
}
