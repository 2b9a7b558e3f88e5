// The middle of a cutter beside what it leaves. Common practice: 6 − 2 = 4, (7 − 6)/2 = 0.5,
// (16 − 12.7)/2 = 1.65, 0.25 + 0.25 = 0.5. The shape left is checked by walking along the path.

#include "cutting/cutter_path.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

using namespace datrin;
using namespace datrin::cutting;

namespace {

CutterPath path_of(CutOf of, double length, double width, double cutter, double corner = 0) {
  return cutter_path({of, length, width, corner, cutter});
}

/// How far the edge of the cutter comes from the middle along x and y, walking the path.
Vec2 reached(const CutterPath& path, double cutter) {
  Vec2 most = Vec2::Zero();
  for (std::size_t k = 0; k + 1 < path.middles.size(); ++k)
    for (int part = 0; part <= 100; ++part) {
      const Vec2 at = path.middles[k] + part / 100.0 * (path.middles[k + 1] - path.middles[k]);
      for (int spoke = 0; spoke < 360; ++spoke) {
        const double a = radians(spoke);
        most = most.cwiseMax((at + cutter / 2 * Vec2(std::cos(a), std::sin(a))).cwiseAbs());
      }
    }
  return most;
}

/// Twice the area it goes round, counter-clockwise above 0.
double turning(const CutterPath& path) {
  double twice = 0;
  for (std::size_t k = 0; k + 1 < path.middles.size(); ++k)
    twice += path.middles[k].x() * path.middles[k + 1].y() - path.middles[k].y() * path.middles[k + 1].x();
  return twice;
}

} // namespace

TEST(CutterPath, WhatItLeavesHasItsSize) {
  const auto slot = path_of(CutOf::slot, 30, 8, 8);
  ASSERT_TRUE(slot.usable());
  EXPECT_EQ(slot.middles.size(), 2U);
  EXPECT_NEAR((reached(slot, 8) - Vec2(15, 4)).norm(), 0, 1e-9);
  const auto pocket = path_of(CutOf::pocket, 20, 14, 6, 4);
  EXPECT_NEAR((reached(pocket, 6) - Vec2(10, 7)).norm(), 0, 1e-9);
  EXPECT_NE(pocket.left_over.find("a cutter of 8.00"), std::string::npos) << pocket.left_over;
  const auto boss = path_of(CutOf::boss, 40, 25, 10);
  for (const auto& at : boss.middles) EXPECT_NEAR((at.cwiseAbs() - Vec2(25, 17.5)).norm(), 0, 1e-9);
}

TEST(CutterPath, ChecksOfTheTrade) {
  EXPECT_NEAR(path_of(CutOf::slot, 30, 7, 6).middles[0].y(), -0.5, 1e-12);
  EXPECT_NEAR(path_of(CutOf::pocket, 40, 16, 12.7).middles[1].y(), 1.65, 1e-12);
  EXPECT_NEAR(path_of(CutOf::boss, 0.5, 0.5, 0.5).middles[0].x(), -0.5, 1e-12); // 0.25 and half of 0.5
}

// Against the feed with a spindle turning clockwise: clockwise inside, the other way round a boss (common
// practice).
TEST(CutterPath, GoesRoundAgainstTheFeed) {
  EXPECT_LT(turning(path_of(CutOf::pocket, 20, 14, 6)), 0);
  EXPECT_LT(turning(path_of(CutOf::slot, 30, 8, 6)), 0);
  EXPECT_GT(turning(path_of(CutOf::boss, 20, 14, 6)), 0);
  CutterPathOptions climbing;
  climbing.climbing = true;
  EXPECT_GT(turning(cutter_path({CutOf::pocket, 20, 14, 0, 6}, climbing)), 0);
  for (const auto of : {CutOf::pocket, CutOf::boss}) {
    const auto path = path_of(of, 20, 14, 6);
    EXPECT_EQ(path.middles.front(), path.middles.back());
  }
}

TEST(CutterPath, WhatDoesNotGoInIsRefused) {
  EXPECT_NE(path_of(CutOf::slot, 30, 5, 6).message.find("does not go in"), std::string::npos);
  EXPECT_NE(path_of(CutOf::pocket, 20, 14, 6, 8).message.find("7.00"),
            std::string::npos); // half of 14 at most
  EXPECT_NE(path_of(CutOf::pocket, 20, 14, 10, 4).left_over.find("come out 5.00"), std::string::npos);
  EXPECT_NE(path_of(CutOf::slot, 8, 30, 6).message.find("the other way round"), std::string::npos);
  for (const double bad :
       {0.0, -1.0, std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::infinity()})
    EXPECT_FALSE(path_of(CutOf::pocket, 20, 14, bad).usable()) << bad;
  EXPECT_NE(path_of(CutOf::slot, 30, 8, 6).left_over.find("round ends"), std::string::npos);
}

// A pocket of corners larger than the cutter was gouged square, a slot ended in the middle of a smaller
// cutter.
TEST(CutterPath, RoundCornersAndEndsAreReachedAndNotGouged) {
  struct Tried {
    CutOf of;
    double length, width, cutter, corner;
  };
  for (const auto& t : {Tried{CutOf::pocket, 40, 24, 6, 6}, Tried{CutOf::pocket, 60, 40, 3, 10},
                        Tried{CutOf::slot, 30, 8, 6, 4}, Tried{CutOf::slot, 60, 20, 6, 10}}) {
    const auto path = path_of(t.of, t.length, t.width, t.cutter, t.of == CutOf::slot ? 0 : t.corner);
    ASSERT_TRUE(path.usable()) << path.message;
    const double r = t.cutter / 2;
    // How far a place lies inside of what is drawn; below 0: outside.
    const auto inside = [&](const Vec2& at) {
      const Vec2 q = at.cwiseAbs() - Vec2(t.length / 2 - t.corner, t.width / 2 - t.corner);
      const Vec2 out = q.cwiseMax(0);
      return t.corner - out.norm() - std::min(std::max(q.x(), q.y()), 0.0);
    };
    auto all = path.clearing;
    all.insert(all.end(), path.middles.begin(), path.middles.end());
    double least = 1e9;
    for (std::size_t k = 0; k + 1 < all.size(); ++k)
      for (const Vec2& by :
           {all[k], Vec2(all[k + 1].x(), all[k].y()), all[k + 1]}) // x first, as on a machine
        least = std::min(least, inside(by));
    EXPECT_NEAR(least, r, 1e-9) << t.length; // the cutter comes to the line, and not over it
    EXPECT_NEAR((reached(path, t.cutter) - Vec2(t.length / 2, t.width / 2)).norm(), 0, 1e-9) << t.length;
    // Round the corners and ends the drawn line is come to within what stays proud.
    for (int degree = 0; degree <= 90; ++degree) {
      const Vec2 on = Vec2(t.length / 2 - t.corner, t.width / 2 - t.corner) +
                      t.corner * Vec2(std::cos(radians(degree)), std::sin(radians(degree)));
      double nearest = 1e9;
      for (const auto& at : path.middles) nearest = std::min(nearest, (on - at).norm());
      EXPECT_LT(nearest, r + 0.12) << t.length << ' ' << degree;
    }
    EXPECT_NE(path.left_over.find("stays proud"), std::string::npos) << path.left_over;
  }
}

// With the ways round its middle nothing stays: every place of a pocket that a round cutter can come to is
// cut, nothing outside of it is. Looked at place by place.
TEST(CutterPath, NothingStaysInTheMiddle) {
  const auto cut = [](const std::vector<Vec2>& path, const Vec2& at, double radius) {
    double nearest = 1e9;
    for (std::size_t k = 0; k + 1 < path.size(); ++k) {
      // X first, then Y, as it is gone on a machine.
      const Vec2 turn(path[k + 1].x(), path[k].y());
      for (const auto& [from, to] : {std::pair(path[k], turn), std::pair(turn, path[k + 1])}) {
        const Vec2 way = to - from;
        const double along =
            way.squaredNorm() > 0 ? std::clamp((at - from).dot(way) / way.squaredNorm(), 0.0, 1.0) : 0;
        nearest = std::min(nearest, (at - from - along * way).norm());
      }
    }
    return nearest <= radius + 1e-9;
  };
  struct Tried {
    CutOf of;
    double length, width, cutter;
    bool clears;
  };
  for (const auto& t : {Tried{CutOf::pocket, 20, 14, 6, true}, Tried{CutOf::pocket, 80, 50, 10, true},
                        Tried{CutOf::pocket, 33, 33, 4, true}, Tried{CutOf::pocket, 20, 11, 6, false},
                        Tried{CutOf::slot, 60, 20, 6, true}, Tried{CutOf::slot, 30, 8, 6, false}}) {
    const auto path = path_of(t.of, t.length, t.width, t.cutter);
    ASSERT_TRUE(path.usable());
    EXPECT_EQ(!path.clearing.empty(), t.clears) << t.length;
    auto all = path.clearing;
    all.insert(all.end(), path.middles.begin(), path.middles.end());
    const double r = t.cutter / 2;
    // Round corners and ends are what the cutter leaves: looked at inside of them.
    const double x = t.length / 2 - (t.of == CutOf::slot ? t.width / 2 : r), y = t.width / 2 - 1e-6;
    for (double px = -x; px <= x; px += t.length / 61)
      for (double py = -y; py <= y; py += t.width / 41) EXPECT_TRUE(cut(all, {px, py}, r)) << px << ' ' << py;
    for (const auto& at : all) {
      EXPECT_LE(std::abs(at.x()) + r, t.length / 2 + 1e-9);
      EXPECT_LE(std::abs(at.y()) + r, t.width / 2 + 1e-9);
    }
  }
}

// A cutter of 1 in a pocket of 200 would go round for days: another is wanted first.
TEST(CutterPath, TooSmallACutterForTheMiddleIsSaid) {
  const auto path = path_of(CutOf::pocket, 200, 100, 1);
  ASSERT_TRUE(path.usable());
  EXPECT_TRUE(path.clearing.empty());
  EXPECT_NE(path.left_over.find("clear that first with a larger cutter"), std::string::npos);
}
