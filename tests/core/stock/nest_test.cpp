// Pieces on sheets: nothing overlaps, nothing leaves the sheet, the saw has room; against layouts known to be
// perfect.

#include "stock/nest.h"

#include <gtest/gtest.h>

#include <random>

using namespace datrin::stock;

namespace {

void expect_sound(const NestInput& in, const NestResult& r) {
  ASSERT_TRUE(r.usable()) << r.message;
  ASSERT_EQ(r.placed.size(), in.pieces.size());
  std::vector<int> seen(in.pieces.size());
  const auto box = [&](const NestedPiece& n) {
    const auto& p = in.pieces[static_cast<std::size_t>(n.piece)];
    return std::pair{n.turned ? p.width : p.length, n.turned ? p.length : p.width};
  };
  for (std::size_t a = 0; a < r.placed.size(); ++a) {
    const auto& one = r.placed[a];
    ++seen[static_cast<std::size_t>(one.piece)];
    const auto [w, h] = box(one);
    EXPECT_GE(one.x, in.edge - 1e-9);
    EXPECT_GE(one.y, in.edge - 1e-9);
    EXPECT_LE(one.x + w, in.sheet_length - in.edge + 1e-9);
    EXPECT_LE(one.y + h, in.sheet_width - in.edge + 1e-9);
    EXPECT_TRUE(in.may_turn || !one.turned);
    for (std::size_t b = 0; b < a; ++b) {
      const auto& other = r.placed[b];
      if (other.sheet != one.sheet) continue;
      const auto [ow, oh] = box(other);
      const bool apart = one.x + w + in.kerf <= other.x + 1e-9 || other.x + ow + in.kerf <= one.x + 1e-9 ||
                         one.y + h + in.kerf <= other.y + 1e-9 || other.y + oh + in.kerf <= one.y + 1e-9;
      EXPECT_TRUE(apart) << a << " " << b;
    }
  }
  for (const int n : seen) EXPECT_EQ(n, 1);
  EXPECT_GE(r.sheets, r.least_sheets);
}

} // namespace

TEST(Nest, FourPlatesFillASheetToTheSawsCut) {
  NestInput in;
  in.pieces.assign(4, {49, 24});
  in.sheet_length = 100;
  in.sheet_width = 50;
  const auto r = nest(in);
  expect_sound(in, r);
  EXPECT_EQ(r.sheets, 1);
  in.kerf = 2.1; // a tenth more of saw, and one must go to the next
  expect_sound(in, nest(in));
  EXPECT_EQ(nest(in).sheets, 2);
}

/// Two squares of 60 and three of 40 on 120 by 100: a layout without waste.
TEST(Nest, APerfectLayoutIsFound) {
  NestInput in;
  in.pieces = {{60, 60}, {40, 40}, {60, 60}, {40, 40}, {40, 40}};
  in.sheet_length = 120;
  in.sheet_width = 100;
  in.kerf = 0;
  const auto r = nest(in);
  expect_sound(in, r);
  EXPECT_EQ(r.sheets, 1);
  EXPECT_NEAR(r.used, 1, 1e-12);
}

TEST(Nest, TheGrainKeepsPiecesFromTurning) {
  NestInput in;
  in.pieces.assign(2, {30, 90});
  in.sheet_length = 100;
  in.sheet_width = 62;
  in.kerf = 2;
  expect_sound(in, nest(in));
  EXPECT_EQ(nest(in).sheets, 1);
  in.may_turn = false;
  EXPECT_EQ(nest(in).message, "piece 1, 30 × 90 mm, is larger than the sheet");
}

TEST(Nest, ByChanceItIsSoundAndNearTheBound) {
  std::mt19937 random(5);
  int over = 0;
  for (int k = 0; k < 30; ++k) {
    NestInput in;
    in.sheet_length = 1000;
    in.sheet_width = 500;
    in.edge = k % 3 * 5.0;
    for (int n = 0; n < 40; ++n)
      in.pieces.push_back(
          {30.0 + static_cast<double>(random() % 170), 30.0 + static_cast<double>(random() % 120)});
    const auto r = nest(in);
    expect_sound(in, r);
    over += r.sheets - r.least_sheets;
  }
  EXPECT_LE(over, 20); // seldom more than one sheet over the area alone
}

TEST(Nest, WhatCannotBeIsSaid) {
  NestInput in;
  EXPECT_EQ(nest(in).message, "say how long and how wide the sheet is");
  in.sheet_length = in.sheet_width = 100;
  EXPECT_EQ(nest(in).message, "say which pieces are wanted");
  in.pieces = {{10, 0}};
  EXPECT_EQ(nest(in).message, "piece 1 has no size");
}
