// What places count from, with the metal that is still over it. Worked by hand.

#include "steps/places.h"

#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;
using datrin::test::read_in;

// Sawn 62 by 42 by 12, 1 mm on every side: the finder touches the metal, not the drawing, and the drill
// begins at it. Worked by hand.
TEST_F(OnTheMill, MetalStillToComeOffIsInTheNumbers) {
  for (const Id id : {foot, left, front}) uncut(id);
  const Id bar = b.all<Stock>().front().first;
  auto stock = *b.find<Stock>(bar);
  stock.length = 62, stock.width = 42, stock.thick = 12;
  b.load(bar, stock);
  const Id top = face("top", {0, 0, 10}, Vec3::UnitZ(), 60, 40);
  const auto id = std::to_string(drill);
  const auto x = step("go-" + id + "-1-x");
  EXPECT_NEAR(*x.number, 16, 1e-9);
  ASSERT_EQ(x.sum.lines.size(), 2U);
  EXPECT_EQ(x.sum.lines[1].label, "still to come off left");
  EXPECT_NEAR(*step("go-" + id + "-1-y").number, 21, 1e-9);
  // Through 10 and the 1 at either end, 1.5 of point, 1 clear.
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -14.5, 1e-9);
  EXPECT_NEAR(step("deep-" + id + "-1").sum.total(), -14.5, 1e-9);
  at_size(top);
  at_size(left);
  EXPECT_NEAR(*step("go-" + id + "-1-x").number, 15, 1e-9);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -13.5, 1e-9);
}

// What stands over a face nobody has measured is no number: a hole counted from it would be out by it.
TEST_F(OnTheMill, NothingIsCountedFromMetalThatNobodyMeasured) {
  uncut(left);
  const auto id = std::to_string(drill);
  const auto x = step("go-" + id + "-1-x");
  EXPECT_FALSE(x.number);
  EXPECT_NE(x.words.find("left is not cut yet, and nothing says how much is over it"), std::string::npos)
      << x.words;
  EXPECT_NEAR(*step("go-" + id + "-1-y").number, 20, 1e-9);
  // As a casting that was never touched the same, and what is left as cast stays so.
  const Id bar = b.all<Stock>().front().first;
  auto stock = *b.find<Stock>(bar);
  stock.form = StockForm::casting;
  b.load(bar, stock);
  EXPECT_FALSE(step("go-" + id + "-1-x").number);
  auto as_cast = *b.find<PartSurface>(front);
  as_cast.machined = false;
  b.load(front, as_cast);
  EXPECT_FALSE(step("go-" + id + "-1-y").number);
}

// A datum that is milled in the same setup goes away from under its zero.
TEST_F(OnTheMill, AFaceThatIsCutHereIsNoDatumHere) {
  auto s = *b.find<build::Setup>(setup);
  s.cuts = {left};
  b.load(setup, s);
  EXPECT_NE(step("go-" + std::to_string(drill) + "-1-x").words.find("Nothing locates it along X"),
            std::string::npos);
}
