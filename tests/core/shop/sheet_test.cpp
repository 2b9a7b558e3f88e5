// The shop typed as sheets: what a cell takes and what it refuses.

#include "shop/sheet.h"

#include "build/build.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

// Which axes count backwards is named by their letters; anything else would silently be none of them.
TEST(ShopSheet, AxesThatCountBackwardsAreNamed) {
  Build b;
  Machine mill;
  mill.name = "mill";
  b.load(5, mill);
  int found = 0;
  for (const auto& column : shop::columns(kind_of<Machine>)) {
    if (std::string_view(column.field->name) != "reversed") continue;
    ++found;
    for (const auto* good : {"X", "x z", "X, Y", ""}) {
      const auto typed = shop::typed(b.records().at(5), column, good, Unit::mm);
      EXPECT_TRUE(typed.ok()) << good << ": " << typed.wrong;
    }
    const auto wrong = shop::typed(b.records().at(5), column, "left", Unit::mm);
    EXPECT_NE(wrong.wrong.find("X, Y, Z"), std::string::npos) << wrong.wrong;
  }
  EXPECT_EQ(found, 1);
}

TEST(ShopSheet, SizesOfAKindInAUnit) {
  Build b;
  Tool block;
  block.kind = ToolKind::gauge_block;
  for (const auto& [id, size] : {std::pair{5, 25.4}, std::pair{6, 1.005}, std::pair{7, 0.0}}) {
    block.size = size;
    b.load(id, block);
  }
  EXPECT_EQ(shop::sizes_of(b, ToolKind::gauge_block, Unit::mm), "25.4 1.005");
  EXPECT_EQ(shop::sizes_of(b, ToolKind::gauge_block, Unit::inch), "1 0.03957");
  EXPECT_EQ(shop::sizes_of(b, ToolKind::angle_block, Unit::mm), "");
}
