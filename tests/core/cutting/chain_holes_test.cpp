// Chain drilling. Common practice: n holes and n − 1 webs of 0.005 in between them along a line.

#include "cutting/chain_holes.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::cutting;

// A square of 40 with a drill of 5 and half a millimetre left: its middles on a square of 34, 136 round.
TEST(ChainHoles, InsideASquare) {
  ChainHolesInput in;
  in.outline = {Vec2(0, 0), Vec2(40, 0), Vec2(40, 40), Vec2(0, 40)};
  in.drill = 5;
  const auto found = chain_holes(in);
  ASSERT_TRUE(found.usable()) << found.message;
  EXPECT_NEAR(found.length, 136, 1e-6);
  EXPECT_EQ(found.holes.size(), static_cast<std::size_t>(std::floor(136 / 5.127)));
  for (const auto& at : found.holes) {
    const double in_by = std::min({at.x(), at.y(), 40 - at.x(), 40 - at.y()});
    EXPECT_NEAR(in_by, 3, 1e-6); // half the drill and what is left
  }
  for (std::size_t k = 0; k + 1 < found.holes.size(); ++k) { // on a straight never nearer than drill and web
    const Vec2 way = found.holes[k + 1] - found.holes[k];
    if (std::abs(way.x()) < 1e-9 || std::abs(way.y()) < 1e-9) {
      EXPECT_GE(way.norm(), 5.127 - 1e-6);
    }
  }
}

// Holes were rounded up: in 5 of 30 rectangles the pitch on the straights was under the drill itself.
TEST(ChainHoles, ThePitchIsNeverUnderDrillAndWeb) {
  for (double length = 20; length < 80; length += 7)
    for (double width = 16; width <= length; width += 9)
      for (const double drill : {3.0, 4.0, 6.0}) {
        ChainHolesInput in;
        in.outline = {Vec2(0, 0), Vec2(length, 0), Vec2(length, width), Vec2(0, width)};
        in.drill = drill;
        const auto found = chain_holes(in);
        if (!found.usable()) continue;
        EXPECT_GE(found.length / static_cast<double>(found.holes.size()), drill + in.web - 1e-9);
        for (std::size_t k = 0; k < found.holes.size(); ++k) {
          const Vec2 way = found.holes[(k + 1) % found.holes.size()] - found.holes[k];
          if (std::abs(way.x()) < 1e-9 || std::abs(way.y()) < 1e-9) {
            EXPECT_GE(way.norm(), drill + in.web - 1e-6) << length << ' ' << width << ' ' << drill;
          }
        }
      }
}

TEST(ChainHoles, RoundWhatGoesInAndOut) {
  ChainHolesInput in; // an L
  in.outline = {Vec2(0, 0), Vec2(60, 0), Vec2(60, 20), Vec2(20, 20), Vec2(20, 50), Vec2(0, 50)};
  in.drill = 4;
  const auto found = chain_holes(in);
  ASSERT_TRUE(found.usable()) << found.message;
  const auto inside = [](const Vec2& p) {
    return (p.x() > 0 && p.y() > 0) && ((p.x() < 60 && p.y() < 20) || (p.x() < 20 && p.y() < 50));
  };
  for (const auto& at : found.holes)
    for (int k = 0; k < 36; ++k)
      EXPECT_TRUE(inside(at + 2.49 * Vec2(std::cos(k * 0.1745), std::sin(k * 0.1745)))) << at;
  std::reverse(in.outline.begin(), in.outline.end()); // either way round
  EXPECT_EQ(chain_holes(in).holes.size(), found.holes.size());
}

TEST(ChainHoles, WhatDoesNotGoIsSaid) {
  ChainHolesInput in;
  in.outline = {Vec2(0, 0), Vec2(40, 0), Vec2(40, 4), Vec2(0, 4)};
  in.drill = 5;
  EXPECT_NE(chain_holes(in).message.find("does not go in"), std::string::npos);
  in.outline = {Vec2(0, 0), Vec2(40, 40), Vec2(40, 0), Vec2(0, 40)};
  EXPECT_NE(chain_holes(in).message.find("crosses itself"), std::string::npos);
  in.outline = {Vec2(0, 0), Vec2(40, 0)};
  EXPECT_FALSE(chain_holes(in).usable());
  // Two rooms and a neck between them.
  in.outline = {Vec2(0, 0),   Vec2(20, 0),  Vec2(20, 9),  Vec2(30, 9),  Vec2(30, 0),  Vec2(50, 0),
                Vec2(50, 20), Vec2(30, 20), Vec2(30, 11), Vec2(20, 11), Vec2(20, 20), Vec2(0, 20)};
  in.drill = 4;
  EXPECT_NE(chain_holes(in).message.find("narrower than the drill"), std::string::npos);
}
