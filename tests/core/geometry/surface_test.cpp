#include "geometry/surface.h"

#include "geometry/best_fit.h"
#include "geometry/direction_text.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;

TEST(Surface, StockByItsDefinition) {
  const Surface plane{SurfaceKind::plane, {0, 0, 2}, -Vec3::UnitZ(), 0};
  EXPECT_DOUBLE_EQ(stock_at(plane, {5, 5, 0.5}), 1.5);
  const Surface bore{SurfaceKind::bore, {0, 0, 10}, Vec3::UnitY(), 24};
  EXPECT_DOUBLE_EQ(stock_at(bore, {3, 77, 14}), 7.0);
  const Surface boss{SurfaceKind::boss, {0, 0, 10}, Vec3::UnitY(), 8};
  EXPECT_DOUBLE_EQ(stock_at(boss, {3, -2, 14}), 1.0);
}

TEST(Surface, DirectionIsTheGradientOfStock) {
  const double h = 1e-6;
  for (const auto kind : {SurfaceKind::plane, SurfaceKind::bore, SurfaceKind::boss}) {
    const Surface s{kind, {1, 2, 3}, Vec3(1, 2, -1).normalized(), kind == SurfaceKind::plane ? 0.0 : 12.0};
    const Vec3 at(5, -4, 6);
    const Vec3 direction = stock_direction(s, at);
    for (int k = 0; k < 3; ++k) {
      const Vec3 e = Vec3::Unit(k) * h;
      EXPECT_NEAR(direction[k], (stock_at(s, at + e) - stock_at(s, at - e)) / (2 * h), 1e-8);
    }
  }
}

TEST(Surface, OnTheVeryAxisADirectionAcrossIsChosen) {
  const Surface bore{SurfaceKind::bore, {0, 0, 0}, Vec3::UnitY(), 10};
  const Vec3 direction = stock_direction(bore, {0, 5, 0});
  EXPECT_NEAR(direction.norm(), 1, 1e-12);
  EXPECT_NEAR(direction.y(), 0, 1e-12);
}

TEST(Surface, PatchDirectionsAreSquareAndUpright) {
  for (const Vec3& n : {Vec3(1, 0, 0), Vec3(0, -1, 0), Vec3(0, 0, 1), Vec3(0.6, 0, 0.8)}) {
    const auto [w, h] = patch_directions(n);
    EXPECT_NEAR(w.dot(h), 0, 1e-12);
    EXPECT_NEAR(w.dot(n), 0, 1e-12);
    EXPECT_NEAR(h.norm() * w.norm(), 1, 1e-12);
  }
  EXPECT_NEAR(patch_directions(Vec3::UnitX()).height.z(), 1, 1e-12);
}

TEST(Fit, CircleThroughPointsOnACircle) {
  std::vector<Vec2> points;
  points.reserve(7);
  for (int k = 0; k < 7; ++k) points.emplace_back(3 + 5 * std::cos(0.3 * k), -2 + 5 * std::sin(0.3 * k));
  const auto circle = fit_circle(points);
  ASSERT_TRUE(circle);
  EXPECT_NEAR((circle->centre - Vec2(3, -2)).norm(), 0, 1e-9);
  EXPECT_NEAR(circle->radius, 5, 1e-9);
  EXPECT_FALSE(fit_circle({{0, 0}, {1, 1}, {2, 2}}));
  EXPECT_FALSE(fit_circle({{0, 0}, {1, 1}}));
}

TEST(Fit, LineOfLeastDistances) {
  const auto line = fit_line({{0, 1}, {2, 2}, {4, 3}});
  ASSERT_TRUE(line);
  EXPECT_NEAR(std::abs(line->direction.dot(Vec2(2, 1).normalized())), 1, 1e-12);
  EXPECT_FALSE(fit_line({{1, 1}}));
  EXPECT_FALSE(fit_line({{1, 1}, {1, 1}}));
}

TEST(DirectionText, ReadsAndWrites) {
  EXPECT_EQ(*parse_direction("+x"), Vec3(1, 0, 0));
  EXPECT_EQ(*parse_direction(" \u2212Z "), Vec3(0, 0, -1));
  EXPECT_EQ(*parse_direction("y"), Vec3(0, 1, 0));
  EXPECT_NEAR((*parse_direction("3, 0, 4") - Vec3(0.6, 0, 0.8)).norm(), 0, 1e-12);
  EXPECT_FALSE(parse_direction("0 0 0"));
  EXPECT_FALSE(parse_direction("1 2"));
  EXPECT_FALSE(parse_direction("1 2 3 4"));
  EXPECT_FALSE(parse_direction("up"));
  EXPECT_FALSE(parse_direction(""));
  EXPECT_EQ(direction_text({0, -1, 0}), "\u2212y");
  EXPECT_NEAR(
      (*parse_direction(direction_text(Vec3(1, -2, 2).normalized())) - Vec3(1, -2, 2).normalized()).norm(), 0,
      1e-4);
}

/// One plane or round wherever on it the two are stated; never with the metal on the other side.
TEST(SameSurface, WhereverOnItTheyLie) {
  const Surface top{SurfaceKind::plane, {0, 0, 30}, Vec3::UnitZ(), 0, 0};
  EXPECT_TRUE(same_surface(top, {SurfaceKind::plane, {70, -4, 30}, Vec3::UnitZ(), 0, 0}));
  EXPECT_FALSE(same_surface(top, {SurfaceKind::plane, {0, 0, 30}, -Vec3::UnitZ(), 0, 0}));
  EXPECT_FALSE(same_surface(top, {SurfaceKind::plane, {0, 0, 30.001}, Vec3::UnitZ(), 0, 0}));
  const Surface bore{SurfaceKind::bore, {0, 0, 5}, Vec3::UnitX(), 20, 0};
  EXPECT_TRUE(same_surface(bore, {SurfaceKind::bore, {40, 0, 5}, -Vec3::UnitX(), 20, 0}));
  EXPECT_FALSE(same_surface(bore, {SurfaceKind::boss, {0, 0, 5}, Vec3::UnitX(), 20, 0}));
  EXPECT_FALSE(same_surface(bore, {SurfaceKind::bore, {0, 0, 5}, Vec3::UnitX(), 20.01, 0}));
  // A taper of 1 in 20 on the diameter, stated 40 further on, is 2 wider there.
  const double half = std::atan(0.5 / 20);
  const Surface taper{SurfaceKind::taper_bore, {0, 0, 0}, Vec3::UnitZ(), 12, half};
  EXPECT_TRUE(same_surface(taper, {SurfaceKind::taper_bore, {0, 0, 40}, Vec3::UnitZ(), 14, half}));
  EXPECT_FALSE(same_surface(taper, {SurfaceKind::taper_bore, {0, 0, 40}, Vec3::UnitZ(), 12, half}));
}
