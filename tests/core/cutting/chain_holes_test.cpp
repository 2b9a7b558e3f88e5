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
  EXPECT_EQ(found.holes.size(), static_cast<std::size_t>(std::ceil(136 / 5.127)));
  for (const auto& at : found.holes) {
    const double in_by = std::min({at.x(), at.y(), 40 - at.x(), 40 - at.y()});
    EXPECT_NEAR(in_by, 3, 1e-6); // half the drill and what is left
  }
  EXPECT_LE(found.web, in.web + 1e-9);
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
