// Squaring a block. Common practice: 1, then 2 square to it, 3 to size, 4 to size, then the ends; a good face
// to the fixed jaw, a soft rod on the raw side, left out once both are machined; a sloping raw casting is
// packed and not hammered down.

#include "route/squaring.h"

#include <gtest/gtest.h>

using namespace datrin::route;

namespace {

SquaringInput block() {
  SquaringInput in;
  in.size = {100, 40, 25};
  return in;
}

TEST(Squaring, TheUsualRoundOfASawnBlock) {
  const auto r = squaring(block());
  ASSERT_TRUE(r.usable()) << r.message;
  ASSERT_EQ(r.steps.size(), 6U);
  const int order[] = {1, 2, 3, 4, 5, 6}, jaws[] = {2, 1, 1, 2, 1, 1}, down[] = {4, 3, 2, 1, 6, 5};
  const bool rods[] = {true, true, true, false, false, false};
  const bool size[] = {false, false, true, true, false, true};
  for (std::size_t k = 0; k < 6; ++k) {
    EXPECT_EQ(r.steps[k].cut, order[k]);
    EXPECT_EQ(r.steps[k].fixed_jaw, jaws[k]) << k;
    EXPECT_EQ(r.steps[k].down, down[k]) << k;
    EXPECT_EQ(r.steps[k].rod, rods[k]) << k;
    EXPECT_EQ(r.steps[k].to_size, size[k]) << k;
  }
  // The first qualifies nothing yet; each of the others is square to what lies at the fixed jaw.
  EXPECT_EQ(r.steps[0].square_to, 0);
  EXPECT_EQ(r.steps[1].square_to, 1);
  EXPECT_EQ(r.steps[3].square_to, 2);
  EXPECT_EQ(r.steps[3].parallel_to, 1);
  EXPECT_EQ(squaring_text(r.steps[3]),
            "cut 4 to size: 2 to the fixed jaw, 3 at the moving jaw without a rod, hammered down on 1");
}

TEST(Squaring, ARawCastingIsPackedUntilItStandsOnATrueFace) {
  auto in = block();
  in.casting = true;
  in.slope.fill(0.026); // 1.5° of draft
  const auto r = squaring(in);
  ASSERT_EQ(r.steps.size(), 6U);
  EXPECT_EQ(r.steps[0].seating, Seating::packed);
  EXPECT_EQ(r.steps[1].seating, Seating::packed);
  EXPECT_EQ(r.steps[2].seating, Seating::hammered); // on 2, which is true by then
  EXPECT_EQ(r.steps[3].seating, Seating::hammered);
}

TEST(Squaring, GoodFacesAreNotCutAndGoToTheFixedJaw) {
  auto in = block();
  in.good = {false, true, true, false, false, false}; // bright flat bar: its edges are true
  const auto r = squaring(in);
  ASSERT_EQ(r.steps.size(), 4U);
  EXPECT_EQ(r.steps[0].cut, 1);
  EXPECT_FALSE(r.steps[0].rod);
  EXPECT_EQ(r.steps[0].square_to, 2);
  in.good.fill(true);
  const auto none = squaring(in);
  EXPECT_TRUE(none.usable());
  EXPECT_TRUE(none.steps.empty());
  EXPECT_EQ(none.message, "every face is true already");
}

TEST(Squaring, AThreadIsNotHammeredOn) {
  auto in = block();
  in.tapped[0] = true;
  EXPECT_NE(squaring(in).steps[0].care.find("clear of the thread"), std::string::npos);
}

TEST(Squaring, HowTrueIsOnlyAsTheJawAndTheSeatAre) {
  SquaringOptions options;
  options.jaw = 0.0001, options.seat = 0.0004, options.by_square = 0;
  const auto r = squaring(block(), options);
  EXPECT_DOUBLE_EQ(r.steps[1].out_of_square, 0.0001);
  // 3 with a rod: parallel to 2 as both are square to 1: root of two leans.
  EXPECT_DOUBLE_EQ(r.steps[2].out_of_parallel, std::sqrt(2.0) * 0.0001);
  EXPECT_DOUBLE_EQ(r.steps[3].out_of_parallel, 0.0004);
  EXPECT_DOUBLE_EQ(r.worst, 3 * 0.0004 * 100); // three standard deviations over its longest side
}

TEST(Squaring, ABlockWithoutASizeIsRefused) {
  auto in = block();
  in.size[1] = 0;
  EXPECT_EQ(squaring(in).status, SquaringStatus::refused);
}

} // namespace
