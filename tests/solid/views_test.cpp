// Edges of known solids counted, sections against closed forms, the thinnest metal against where it must be.

#include "bodies.h"

#include "solid/thickness.h"
#include "solid/views.h"

#include <Eigen/Geometry>
#include <gtest/gtest.h>

#include <cmath>

namespace datrin::solid_test {
namespace {

using R = BodyRole;
using S = BodyShape;

int count(const std::vector<DrawnLine>& lines, LineKind kind) {
  return static_cast<int>(
      std::count_if(lines.begin(), lines.end(), [&](const DrawnLine& l) { return l.kind == kind; }));
}

double length(const std::vector<DrawnLine>& lines, LineKind kind) {
  double sum = 0;
  for (const auto& line : lines)
    for (std::size_t k = 1; line.kind == kind && k < line.at.size(); ++k)
      sum += (line.at[k] - line.at[k - 1]).norm();
  return sum;
}

TEST(Views, ABlockFromTheFrontIsARectangle) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  const auto lines = drawn_lines(b.made(), {});
  EXPECT_EQ(count(lines, LineKind::sharp), 4);
  EXPECT_NEAR(length(lines, LineKind::sharp), 180, 1e-6);
  for (const auto& line : lines)
    for (const auto& at : line.at) {
      EXPECT_LE(std::abs(at.x()), 30 + 1e-6); // right is +x, up is z
      EXPECT_GE(at.y(), -1e-6);
      EXPECT_LE(at.y(), 30 + 1e-6);
    }
}

TEST(Views, OnTheSkewNineEdgesAreSeenAndThreeHidden) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  const Vec3 toward = Vec3(1, 2, -1.2).normalized();
  const Vec3 up = (Vec3::UnitZ() - toward.z() * toward).normalized();
  const auto lines = drawn_lines(b.made(), {toward, up});
  EXPECT_EQ(count(lines, LineKind::sharp), 9);
  EXPECT_EQ(count(lines, LineKind::hidden), 3);
}

TEST(Views, ADrilledHoleIsTwoHiddenLinesFromTheSide) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  auto& hole = b.add("hole", S::hole, {{R::diameter, 10}, {R::along, 12}}, Bodies::id(0));
  hole.through = true;
  const auto lines = drawn_lines(b.made(), {});
  double low = 1e9, high = -1e9, sum = 0;
  for (const auto& line : lines)
    if (line.kind == LineKind::hidden && std::abs(line.at[0].x() - line.at.back().x()) < 1e-6) {
      low = std::min(low, line.at[0].x());
      high = std::max(high, line.at[0].x());
      sum += std::abs(line.at[0].y() - line.at.back().y());
    }
  EXPECT_NEAR(low, 7, 1e-6);
  EXPECT_NEAR(high, 17, 1e-6);
  EXPECT_NEAR(sum, 60, 1e-5);
}

TEST(Views, ASectionHasItsArea) {
  Bodies b;
  b.add("tube", S::tube, {{R::diameter, 30}, {R::bore, 20}, {R::height, 40}});
  const auto tube = b.made();
  const auto across = section(tube, {0, 0, 10}, Vec3::UnitZ());
  EXPECT_NEAR(across.area, pi * 125, 1e-6);
  EXPECT_EQ(across.outlines.size(), 2U);
  const auto along = section(tube, {0, 0, 0}, Vec3::UnitX());
  EXPECT_NEAR(along.area, 2 * 5 * 40, 1e-6);
  EXPECT_EQ(along.outlines.size(), 2U);
  EXPECT_EQ(section(tube, {0, 0, 50}, Vec3::UnitZ()).message, "it meets no metal there");
}

TEST(Thickness, OfABlockItsLeast) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 7}});
  const auto thin = thinnest(b.made());
  ASSERT_EQ(thin.status, ThicknessStatus::found) << thin.message;
  EXPECT_NEAR(thin.least, 7, 1e-9);
}

TEST(Thickness, BetweenAHoleAndTheSide) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 30}});
  auto& hole = b.add("hole", S::hole, {{R::diameter, 10}, {R::along, 3}}, Bodies::id(0));
  hole.through = true;
  hole.from_along = PlaceFrom::low_edge;
  hole.set_size({R::along, 0, 8});
  const auto thin = thinnest(b.made());
  ASSERT_EQ(thin.status, ThicknessStatus::found) << thin.message;
  EXPECT_NEAR(thin.least, 3, 1e-4); // 8 to the middle, less its half
  EXPECT_NEAR(std::min(thin.from.x(), thin.to.x()), -30, 1e-3);
}

/// A bore out of the middle of a round: the wall is the difference of the radii less the eccentricity.
TEST(Thickness, OfAnEccentricBore) {
  Bodies b;
  b.add("bush", S::round, {{R::diameter, 30}, {R::height, 40}});
  auto& bore = b.add("bore", S::hole, {{R::diameter, 20}, {R::along, 1.5}, {R::across, 0.8}}, Bodies::id(0));
  bore.through = true;
  const auto thin = thinnest(b.made());
  EXPECT_NEAR(thin.least, 5 - std::hypot(1.5, 0.8), 1e-5);
}

/// A blind hole's point over a face: the least metal is under its tip.
TEST(Thickness, UnderTwoHolesThatNearlyMeet) {
  Bodies b;
  b.add("block", S::block, {{R::length, 60}, {R::width, 40}, {R::height, 40}});
  b.add("down", S::hole, {{R::diameter, 10}, {R::depth, 20}}, Bodies::id(0));
  auto& side = b.add("in", S::hole, {{R::diameter, 8}, {R::across, -6}}, Bodies::id(0), BodyFace::front);
  side.through = true;
  // The floor stands at z = 20; the cross hole's axis at 20 − 6, its top at 18.
  const auto thin = thinnest(b.made());
  EXPECT_NEAR(thin.least, 2, 1e-4);
}

/// Against brute force: rays from every triangle's middle of a fine mesh of a part without symmetry.
TEST(Thickness, AgreesWithRaysOverAFineMesh) {
  Bodies b;
  b.add("block", S::block, {{R::length, 50}, {R::width, 40}, {R::height, 24}});
  auto& hole = b.add("hole", S::hole, {{R::diameter, 12}, {R::along, 9}, {R::across, 7}, {R::tilt, 0.25}},
                     Bodies::id(0));
  hole.through = true;
  b.add("pocket", S::pocket,
        {{R::length, 20}, {R::width, 15}, {R::depth, 16}, {R::corner, 3}, {R::along, -10}, {R::across, -6}},
        Bodies::id(0));
  const auto s = b.made({.deflection = 0.03, .angular_deflection = 0.2});
  const auto at = [&](std::uint32_t k) { return Vec3(s.mesh.at[k][0], s.mesh.at[k][1], s.mesh.at[k][2]); };
  double brute = 1e9;
  const auto ray = [&](const Vec3& from, const Vec3& way, std::size_t own) {
    double nearest = 1e9, facing = 0;
    for (std::size_t t = 0; t < s.mesh.triangles.size(); ++t) {
      if (t == own) continue;
      const auto& [i, j, k] = s.mesh.triangles[t];
      const Vec3 e1 = at(j) - at(i), e2 = at(k) - at(i), p = way.cross(e2); // Möller and Trumbore, 1997
      const double det = e1.dot(p);
      if (std::abs(det) < 1e-12) continue;
      const Vec3 o = from - at(i);
      const double u = o.dot(p) / det;
      const Vec3 q = o.cross(e1);
      const double v = way.dot(q) / det, d = e2.dot(q) / det;
      if (u < 0 || v < 0 || u + v > 1 || d < 1e-3 || d > nearest) continue;
      nearest = d;
      facing = e1.cross(e2).normalized().dot(way);
    }
    if (facing > 0.5) brute = std::min(brute, nearest);
  };
  for (std::size_t t = 0; t < s.mesh.triangles.size(); ++t) {
    const auto& [i, j, k] = s.mesh.triangles[t];
    const Vec3 normal = (at(j) - at(i)).cross(at(k) - at(i)).normalized();
    ray((at(i) + at(j) + at(k)) / 3, -normal, t);
    ray(0.98 * at(i) + 0.01 * at(j) + 0.01 * at(k), -normal, t);
  }
  const auto thin = thinnest(s);
  EXPECT_LE(thin.least, brute + 0.02);
  EXPECT_GT(thin.least, brute - 0.6);
}

} // namespace
} // namespace datrin::solid_test
