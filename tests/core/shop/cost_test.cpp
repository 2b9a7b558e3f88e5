// What a cutting edge costs. Common practice: 17 to 18 for 20 edges, 0.85 to 0.90 an edge.

#include "shop/sheet.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

TEST(CostPerEdge, OfPriceAndEdges) {
  EXPECT_NEAR(*shop::cost_per_edge(17, 20), 0.85, 1e-12);
  EXPECT_NEAR(*shop::cost_per_edge(18, 20), 0.90, 1e-12);
  EXPECT_FALSE(shop::cost_per_edge(0, 20));
  EXPECT_FALSE(shop::cost_per_edge(17, 0));
  EXPECT_FALSE(shop::cost_per_edge(-1, 4));
}

TEST(CostPerEdge, IsToldOfToolsAndSupplies) {
  Supply s;
  s.name = "inserts";
  EXPECT_EQ(shop::cost_text(s), "");
  s.price = 17;
  s.edges = 20;
  EXPECT_EQ(shop::cost_text(s), "17.00 for 20 edges: 0.85 an edge");
  Tool t;
  t.price = 4.5;
  t.edges = 1;
  EXPECT_EQ(shop::cost_text(t), "4.50 for 1 edge: 4.50 an edge");
  EXPECT_EQ(shop::cost_text(Machine{}), "");
}

TEST(CostPerEdge, IsTypedIntoTheSheet) {
  Build b;
  b.load(5, Supply{"inserts", SupplyKind::to_buy, 0, false, 1, "", 0});
  for (const auto& column : shop::columns(kind_of<Supply>)) {
    const std::string_view name = column.field->name;
    if (name != "price" && name != "edges") continue;
    EXPECT_EQ(shop::cell_text(b.records().at(5), column, Unit::mm), ""); // 0 says nothing
    const auto typed = shop::typed(b.records().at(5), column, name == "price" ? "17" : "20", Unit::mm);
    ASSERT_TRUE(typed.ok()) << typed.wrong;
    b.load(5, typed.record);
    EXPECT_FALSE(shop::typed(b.records().at(5), column, "-2", Unit::mm).ok());
  }
  EXPECT_EQ(shop::cost_text(b.records().at(5)), "17.00 for 20 edges: 0.85 an edge");
}
