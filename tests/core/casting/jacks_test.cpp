// Where jacks can stand and where they stand best: against every triangle there is.

#include "casting/jacks.h"
#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::casting;

namespace {

/// A foot touched at `places` from below, a top and an upright hole above them.
SeatInput standing(const std::vector<Vec2>& places) {
  SeatInput in;
  in.surfaces = {{"foot", {SurfaceKind::plane, Vec3::Zero(), -Vec3::UnitZ(), 0}, true, 0},
                 {"top", {SurfaceKind::plane, {0, 0, 40}, Vec3::UnitZ(), 0}, true, 0},
                 {"bore", {SurfaceKind::bore, {0, 0, 20}, Vec3::UnitX(), 12}, true, 0},
                 {"boss", {SurfaceKind::boss, {0, 0, 20}, Vec3::UnitY(), 30}, false, 0}};
  for (const auto& p : places) {
    in.points.push_back({0, {p.x(), p.y(), -1}, 0.01});
    in.points.push_back({1, {p.x(), p.y(), 41}, 0.01});
  }
  in.points.push_back({2, {5, 0, 14}, 0.01});  // in the hole, its wall looking up
  in.points.push_back({2, {5, 0, 26}, 0.01});  // and down
  in.points.push_back({3, {0, 5, 4.5}, 0.01}); // under the boss
  return in;
}

double area(const Vec2& a, const Vec2& b, const Vec2& c) {
  return std::abs((b - a).x() * (c - a).y() - (b - a).y() * (c - a).x()) / 2;
}

} // namespace

TEST(Jacks, StandUnderMetalThatFacesDownAndInNoHole) {
  const auto in = standing({{-30, -20}, {30, -20}, {0, 25}});
  const auto under = touches_underneath(in, Pose{}, Vec3::UnitZ());
  EXPECT_EQ(under, (std::vector<int>{0, 2, 4, 8})); // the three of the foot, and under the boss
  const auto turned = touches_underneath(in, Pose{}, -Vec3::UnitZ());
  EXPECT_EQ(turned, (std::vector<int>{1, 3, 5}));
}

TEST(Jacks, TakeTheWidestTriangleThatHoldsTheMiddle) {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> where(-40, 40);
  for (int round = 0; round < 30; ++round) {
    std::vector<Vec2> places;
    places.reserve(9);
    for (int k = 0; k < 9; ++k) places.emplace_back(where(random), where(random));
    auto in = standing(places);
    in.points.pop_back(); // the boss: only the foot is stood on
    const auto chosen = choose_jacks({in, Pose{}, Vec3::UnitZ()});
    ASSERT_EQ(chosen.status, JackStatus::chosen) << chosen.message;
    const auto at = [&](int touch) -> Vec2 {
      return in.points[static_cast<std::size_t>(touch)].xyz.head<2>();
    };
    Vec2 middle = Vec2::Zero();
    for (const auto& p : in.points) middle += p.xyz.head<2>() / static_cast<double>(in.points.size());
    const auto holds = [&](const Vec2& a, const Vec2& b, const Vec2& c) {
      return std::abs(area(a, b, middle) + area(b, c, middle) + area(c, a, middle) - area(a, b, c)) < 1e-9;
    };
    double best_inside = -1, best = -1;
    for (std::size_t a = 0; a < places.size(); ++a)
      for (std::size_t b = a + 1; b < places.size(); ++b)
        for (std::size_t c = b + 1; c < places.size(); ++c) {
          const double size = area(places[a], places[b], places[c]);
          best = std::max(best, size);
          if (holds(places[a], places[b], places[c])) best_inside = std::max(best_inside, size);
        }
    const double mine = area(at(chosen.touches[0]), at(chosen.touches[1]), at(chosen.touches[2]));
    EXPECT_NEAR(mine, best_inside > 0 ? best_inside : best, 1e-9);
    EXPECT_EQ(chosen.stands, best_inside > 0);
  }
}

TEST(Jacks, SayWhatIsMissing) {
  auto two = standing({{-30, 0}, {30, 0}});
  two.points.pop_back();
  const auto few = choose_jacks({two, Pose{}, Vec3::UnitZ()});
  EXPECT_EQ(few.status, JackStatus::too_few_underneath);
  EXPECT_EQ(few.message,
            "only 2 of the touches are on the underside this way up; touch at least three places "
            "there, well apart, for the jacks to stand under");
  auto row = standing({{-30, 0}, {0, 0.5}, {30, 0}});
  row.points.pop_back();
  EXPECT_EQ(choose_jacks({row, Pose{}, Vec3::UnitZ()}).status, JackStatus::in_line);
}

TEST(Jacks, WantedTouchesAreKeptAsTheyAre) {
  const auto in = standing({{-30, -20}, {30, -20}, {0, 25}, {0, -25}});
  const auto wanted = choose_jacks({in, Pose{}, Vec3::UnitZ(), {0, 2, 6}});
  EXPECT_EQ(wanted.touches, (std::array<int, 3>{0, 2, 6}));
  EXPECT_EQ(wanted.status, JackStatus::chosen);
  EXPECT_FALSE(wanted.stands); // all three on one side of the middle
}

// Of many thousands only the outermost are tried; the triangle is no smaller for it than a round face allows.
TEST(Jacks, ManyTouchesAreNoTrouble) {
  std::mt19937 random(6);
  std::uniform_real_distribution<double> turn(0, 2 * pi), part(0, 1);
  std::vector<Vec2> places;
  for (int k = 0; k < 5000; ++k) {
    const double a = turn(random), r = 40 * std::sqrt(part(random));
    places.emplace_back(r * std::cos(a), r * std::sin(a));
  }
  const auto in = standing(places);
  const auto chosen = choose_jacks({in, Pose{}, Vec3::UnitZ()});
  ASSERT_EQ(chosen.status, JackStatus::chosen);
  const auto at = [&](int touch) -> Vec2 { return in.points[static_cast<std::size_t>(touch)].xyz.head<2>(); };
  // The largest triangle in a circle of radius r is 3√3/4 r².
  EXPECT_GT(area(at(chosen.touches[0]), at(chosen.touches[1]), at(chosen.touches[2])),
            0.95 * 0.75 * std::sqrt(3.0) * 40 * 40);
}
