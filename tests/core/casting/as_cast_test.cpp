#include "casting/as_cast.h"

#include "sim/rough_casting.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::casting;

namespace {

/// A block with a cored bore in a boss, made by the stand-in: what was put in is known.
SeatInput casting_with(double draft, const Vec3& drift, double roughness, std::uint64_t seed) {
  std::vector<sim::RoughSurface> rough(3);
  rough[0].finished = {SurfaceKind::plane, {0, 0, 0}, -Vec3::UnitZ(), 0};
  rough[0].width = rough[0].height = 60;
  rough[0].draft = draft;
  rough[1].finished = {SurfaceKind::bore, {0, 0, 40}, Vec3::UnitY(), 30};
  rough[1].drift = drift;
  rough[2].finished = {SurfaceKind::boss, {0, 0, 40}, Vec3::UnitY(), 50};
  rough[2].stock = 0;
  sim::RoughOptions options;
  options.touches = 40;
  options.roughness = roughness;
  options.seed = seed;
  SeatInput in;
  for (const auto& r : rough)
    in.surfaces.push_back({"s", r.finished, r.finished.kind != SurfaceKind::boss, 0.5, 0});
  for (const auto& t : sim::touch_all(rough, {}, options)) in.points.push_back({t.surface, t.xyz, 0.02});
  return in;
}

} // namespace

TEST(AsCast, FindsDraftCoreShiftAndStockWithinTheirUncertainty) {
  int lean_right = 0, core_right = 0, stock_right = 0;
  constexpr int runs = 200;
  for (int k = 0; k < runs; ++k) {
    const auto in = casting_with(radians(1.5), {0.6, 0, -0.4}, 0.1, static_cast<std::uint64_t>(k));
    const auto made = as_cast(in, {});
    ASSERT_TRUE(made.surfaces[0].fitted && made.surfaces[1].fitted);
    lean_right += std::abs(made.surfaces[0].lean.value - radians(1.5)) <= made.surfaces[0].lean.uncertainty;
    stock_right += std::abs(made.surfaces[1].stock.value - 2) <= made.surfaces[1].stock.uncertainty;
    ASSERT_EQ(made.cores.size(), 1U);
    core_right +=
        std::abs(made.cores[0].amount.value - std::hypot(0.6, 0.4)) <= made.cores[0].amount.uncertainty;
  }
  // 95 % of 200, three binomial standard deviations either way (the amount of a shift is not quite normal).
  for (const int right : {lean_right, core_right, stock_right}) EXPECT_NEAR(right, 190, 10);
}

TEST(AsCast, TooFewTouchesSayNothing) {
  auto in = casting_with(0, Vec3::Zero(), 0.1, 1);
  std::erase_if(in.points, [&, n = 0](const SeatPoint& p) mutable { return p.surface != 0 || ++n > 3; });
  const auto made = as_cast(in, {});
  for (const auto& s : made.surfaces) EXPECT_FALSE(s.fitted);
  EXPECT_TRUE(made.cores.empty());
}

TEST(AsCast, ShrinkageThatReallyHappened) {
  // Two faces and a boss of a pattern made for 1 %, shrunk by 1.3 %.
  constexpr double made_for = 0.010, happened = 0.013;
  Pattern pattern;
  pattern.status = ExpectStatus::expected;
  pattern.scale = 1 + made_for;
  std::vector<sim::RoughSurface> rough(3);
  const double half = 60, across = 80;
  rough[0].finished = {SurfaceKind::plane, {half, 0, 0}, Vec3::UnitX(), 0};
  rough[1].finished = {SurfaceKind::plane, {-half, 0, 0}, -Vec3::UnitX(), 0};
  rough[2].finished = {SurfaceKind::boss, {0, 0, 0}, Vec3::UnitZ(), across};
  SeatInput in;
  for (std::size_t k = 0; k < 3; ++k) {
    PatternSurface p;
    p.surface = static_cast<build::Id>(k + 10);
    p.shape.point = rough[k].finished.point * (1 + made_for) + 2 * rough[k].finished.direction * (k < 2);
    p.shape.diameter = (across + 4) * (1 + made_for);
    pattern.surfaces.push_back(p);
    const double pattern_at = k < 2 ? p.shape.point.norm() : p.shape.diameter / 2;
    rough[k].stock = pattern_at * (1 - happened) - (k < 2 ? half : across / 2);
    in.surfaces.push_back({"s", rough[k].finished, true, 0.5, 0});
  }
  sim::RoughOptions options;
  options.touches = 30;
  options.roughness = 0.08;
  for (const auto& t : sim::touch_all(rough, {}, options)) in.points.push_back({t.surface, t.xyz, 0.02});
  const auto found = shrinkage_found(in, as_cast(in, {}), {10, 11, 12}, pattern, made_for);
  ASSERT_TRUE(found.known);
  EXPECT_EQ(found.sizes, 2);
  EXPECT_NEAR(found.shrinkage.value, happened, found.shrinkage.uncertainty);
  EXPECT_LT(found.shrinkage.uncertainty, 0.001);
  EXPECT_TRUE(found.text.ends_with("Next time a size of 100 mm wants 0.30 mm more.") ||
              found.text.ends_with("mm more."))
      << found.text;
}
