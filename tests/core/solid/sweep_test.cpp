// Tools swept against metal: boxes whose distances are known by hand; and a cloud of boxes against points
// sampled on their walls, which a swept tool must not swallow.

#include "solid/sweep.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

using namespace datrin;
using namespace datrin::solid;

namespace {

void add_box(Mesh& mesh, const Vec3& low, const Vec3& high) {
  const auto base = static_cast<std::uint32_t>(mesh.at.size());
  for (int k = 0; k < 8; ++k)
    mesh.at.push_back({static_cast<float>(k & 1 ? high.x() : low.x()),
                       static_cast<float>(k & 2 ? high.y() : low.y()),
                       static_cast<float>(k & 4 ? high.z() : low.z())});
  static constexpr std::uint32_t sides[12][3] = {{0, 2, 1}, {1, 2, 3}, {4, 5, 6}, {5, 7, 6},
                                                 {0, 1, 4}, {1, 5, 4}, {2, 6, 3}, {3, 6, 7},
                                                 {0, 4, 2}, {2, 4, 6}, {1, 3, 5}, {3, 7, 5}};
  for (const auto& side : sides) mesh.triangles.push_back({base + side[0], base + side[1], base + side[2]});
}

TEST(Sweep, TheChuckComesDownOnALug) {
  Mesh mesh;
  add_box(mesh, {-50, -50, -10}, {50, 50, 0});
  add_box(mesh, {20, -10, 0}, {40, 10, 30}); // a lug 30 high, its side 20 from the axis
  SweepOptions exact;
  exact.touching = 0;
  // The tip goes to -10: a drill of 8, the chuck 36 across 35 above the tip, at 25: 5 below the lug's top.
  // Its radius of 18 passes the lug at 20.
  EXPECT_EQ(sweep(mesh, {{0, 0, -10}, Vec3::UnitZ(), {{35, 18}}}, exact).step, -1);
  const auto hit = sweep(mesh, {{0, 0, -10}, Vec3::UnitZ(), {{35, 21}}}, exact);
  ASSERT_TRUE(hit.hits());
  EXPECT_NEAR(hit.into, 5, 1e-6);
  EXPECT_FALSE(sweep(mesh, {{0, 0, -10}, Vec3::UnitZ(), {{40, 21}}}, exact).hits()); // stands out enough
}

TEST(Sweep, TheDeeperOfItsStepsIsTold) {
  Mesh mesh;
  add_box(mesh, {-50, 5, 0}, {50, 50, 20});
  SweepOptions exact;
  exact.touching = 0;
  const auto hit = sweep(mesh, {{0, 0, 0}, Vec3::UnitZ(), {{15, 6}, {5, 6}}}, exact);
  ASSERT_TRUE(hit.hits());
  EXPECT_EQ(hit.step, 1);
  EXPECT_NEAR(hit.into, 15, 1e-6);
}

TEST(Sweep, ALidOverTheAxisIsMetWhateverItsTriangles) {
  Mesh mesh;
  add_box(mesh, {-200, -200, 30}, {200, 200, 40}); // no corner near the axis
  const auto hit = sweep(mesh, {{0, 0, 0}, Vec3::UnitZ(), {{1, 3}}});
  ASSERT_TRUE(hit.hits());
  EXPECT_GT(hit.into, 28);
  EXPECT_FALSE(sweep(mesh, {{0, 0, 0}, -Vec3::UnitZ(), {{1, 3}}}).hits()); // it comes from below
}

TEST(Sweep, TouchingIsNoClash) {
  Mesh mesh;
  add_box(mesh, {5, -5, 0}, {10, 5, 20});
  EXPECT_FALSE(
      sweep(mesh, {{0, 0, 0}, Vec3::UnitZ(), {{0, 5.2}}}).hits()); // 0.2 into it: the mesh is not round
  EXPECT_TRUE(sweep(mesh, {{0, 0, 0}, Vec3::UnitZ(), {{0, 5.5}}}).hits());
  EXPECT_FALSE(sweep({}, {{0, 0, 0}, Vec3::UnitZ(), {{0, 5}}}).hits());
}

// Told to hit, or not, as some point of some wall lies within: sampled densely.
TEST(Sweep, AgreesWithPointsOnTheWalls) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> place(-30, 30), size(2, 12), unit(0, 1);
  SweepOptions exact;
  exact.touching = 0;
  int hits = 0, clear = 0;
  for (int round = 0; round < 60; ++round) {
    Mesh mesh;
    for (int k = 0; k < 4; ++k) {
      const Vec3 low(place(random), place(random), place(random));
      add_box(mesh, low, low + Vec3(size(random), size(random), size(random)));
    }
    const Vec3 way = Vec3(unit(random) - 0.5, unit(random) - 0.5, unit(random) - 0.5).normalized();
    const SweptTool tool{
        Vec3(place(random), place(random), place(random)) / 3, way, {{4, 3 + 6 * unit(random)}}};
    const auto hit = sweep(mesh, tool, exact);
    double deepest = 0;
    for (const auto& t : mesh.triangles) {
      const auto corner = [&](int k) {
        const auto& at = mesh.at[t[static_cast<std::size_t>(k)]];
        return Vec3(at[0], at[1], at[2]);
      };
      for (int a = 0; a <= 12; ++a)
        for (int c = 0; c + a <= 12; ++c) {
          const Vec3 at = corner(0) + a / 12.0 * (corner(1) - corner(0)) + c / 12.0 * (corner(2) - corner(0));
          const Vec3 off = at - tool.tip;
          const double up = off.dot(way);
          if ((off - up * way).norm() < tool.steps[0].radius && up > 4) deepest = std::max(deepest, up - 4);
        }
    }
    EXPECT_TRUE(hit.hits() || deepest == 0) << round; // no point within it is overlooked
    EXPECT_GE(hit.into, 0.5 * deepest) << round;
    (hit.hits() ? hits : clear) += 1;
  }
  EXPECT_GT(hits, 10);
  EXPECT_GT(clear, 10);
}

} // namespace
