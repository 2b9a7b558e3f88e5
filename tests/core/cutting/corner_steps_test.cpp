// Rounded corners by places of a cutter: what stays is found again by looking along rays. Common practice:
// facets of a round stand proud by 3.53 % of its radius with 12, 1.96 % with 16.

#include "cutting/corner_steps.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::cutting;

namespace {

/// Along a ray from the corner's centre, how far out the metal still stands when the cutter was at every
/// place.
double stands_at(const CornerSteps& steps, double radius, double cutter, double angle) {
  const Vec2 centre(-radius, -radius), way(std::cos(angle), std::sin(angle));
  double out = 2 * radius;
  for (const auto& at : steps.middles) {
    const Vec2 to = at - centre;
    const double along = to.dot(way), aside2 = to.squaredNorm() - along * along, r2 = cutter * cutter / 4;
    if (aside2 < r2) out = std::min(out, along - std::sqrt(r2 - aside2));
  }
  return out;
}

} // namespace

TEST(CornerSteps, APlatesCornerStaysAsProudAsItSays) {
  for (const int n : {3, 6, 11}) {
    CornerInput in;
    in.radius = 8, in.cutter = 6, in.steps = n;
    const auto steps = corner_steps(in);
    ASSERT_TRUE(steps.usable());
    ASSERT_EQ(steps.middles.size(), static_cast<std::size_t>(n + 1));
    double most = 0;
    for (int k = 0; k <= 9000; ++k) {
      const double stands = stands_at(steps, 8, 6, radians(k / 100.0)) - 8;
      EXPECT_GT(stands, -1e-9); // never into the round
      most = std::max(most, stands);
    }
    EXPECT_NEAR(steps.proud, most, 1e-6) << n;
    // At both ends it touches the finished sides: half the cutter off them.
    EXPECT_NEAR(steps.middles.front().x(), 3, 1e-12);
    EXPECT_NEAR(steps.middles.back().y(), 3, 1e-12);
  }
}

TEST(CornerSteps, AsManyAsItWants) {
  CornerInput in;
  in.radius = 8, in.cutter = 6, in.proud = 0.02;
  const auto steps = corner_steps(in);
  EXPECT_LE(steps.proud, 0.02);
  in.steps = static_cast<int>(steps.middles.size()) - 2;
  EXPECT_GT(corner_steps(in).proud, 0.02); // one fewer would not do
}

TEST(CornerSteps, InAPocketTheCutterIsSmaller) {
  CornerInput in;
  in.radius = 8, in.cutter = 10, in.inside = true, in.steps = 6;
  const auto steps = corner_steps(in);
  ASSERT_TRUE(steps.usable());
  EXPECT_NEAR(steps.middles.front().x(), -5, 1e-12);
  EXPECT_GT(steps.proud, 0);
  in.cutter = 16;
  EXPECT_NE(corner_steps(in).message.find("leaves its own corner"), std::string::npos);
  in.cutter = 0;
  EXPECT_FALSE(corner_steps(in).usable());
}

// On the circle at every step: (r − in)² + (r − down)² = r².
TEST(CornerSteps, AnEdgeInStairs) {
  const auto stairs = rounded_edge_stairs(5, 0.254); // 0.010 in a step (common practice)
  ASSERT_EQ(stairs.size(), 21U);
  EXPECT_NEAR(stairs.front().in, 5, 1e-12);
  EXPECT_EQ(stairs.back().in, 0);
  for (const auto& s : stairs) EXPECT_NEAR(std::hypot(5 - s.in, 5 - s.deep), 5, 1e-9);
  EXPECT_TRUE(rounded_edge_stairs(5, 0).empty());
  EXPECT_TRUE(rounded_edge_stairs(5, 0.001).empty());
}
