#include "allowance/shares.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::allowance;

namespace {
constexpr double thou_mm = 0.0254;
}

// Common practice: 117 thou over two faces, split 15 + 102 or 20 + 97 to go all to one side.
TEST(Shares, AllToOneSide) {
  ShareInput in{60 * thou_mm, 57 * thou_mm, 15 * thou_mm, 15 * thou_mm, 0, 0};
  const auto all = share(in, Share::all_b, Unit::inch);
  ASSERT_TRUE(all.usable());
  EXPECT_NEAR(all.metal_a, 15 * thou_mm, 1e-12);
  EXPECT_NEAR(all.metal_b, 102 * thou_mm, 1e-12);
  EXPECT_EQ(all.text, "117 = 15 + 102 thou");
  in.needed_a = 20 * thou_mm;
  EXPECT_EQ(share(in, Share::all_b, Unit::inch).text, "117 = 20 + 97 thou");
}

TEST(Shares, HalfAndEvenRoom) {
  const ShareInput in{3, 1, 0.5, 1.0, 0, 0};
  const auto half = share(in, Share::half);
  EXPECT_DOUBLE_EQ(half.metal_a, 2);
  EXPECT_DOUBLE_EQ(half.metal_b, 2);
  const auto even = share(in, Share::even_room);
  EXPECT_NEAR(even.room_a, even.room_b, 1e-9);
  EXPECT_NEAR(even.room_a, (3 - 0.5 + 1 - 1.0) / 2, 1e-9);
  EXPECT_EQ(share(in, Share::as_seated).shift, 0);
}

TEST(Shares, ClearingADefectOrSayingThatItCannotBe) {
  ShareInput in{1.0, 3.0, 0.6, 0.6, 1.8, 1.1}; // the hole reaches 1.8 deep, 1.1 of metal is over size there
  const auto clear = share(in, Share::clear_defect);
  ASSERT_TRUE(clear.usable());
  EXPECT_NEAR(clear.shift, 0.7, 1e-9); // no more than it needs
  EXPECT_TRUE(clear.fits);
  in.defect = 6;
  EXPECT_FALSE(share(in, Share::clear_defect).fits);
  in.defect = 0;
  EXPECT_EQ(share(in, Share::clear_defect).message, "no defect with a depth is noted on this face");
}
