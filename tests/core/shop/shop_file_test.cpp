// A shop written to a file and taken again.

#include "shop/shop_file.h"

#include "build/build.h"
#include "shop/sheet.h"
#include "tests/core/random_records.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

namespace {

/// Every field of every kind of row, by chance; two tools of one name among them.
Build by_chance(unsigned seed) {
  test::RandomRecords chance(seed);
  Build b;
  Id id = 2;
  for (const int kind : shop::kinds())
    for (int k = 0; k < 6; ++k)
      if (auto record = chance.make(kind, b);
          record && (kind == kind_of<Offcut> || name_of(*record) != description(kind).name))
        b.load(id++, *record); // a row without a name is none
  for (const auto& [machine, m] : b.machines()) {
    auto known = m;
    known.speeds = "60 105 170"; // others are refused where they are typed
    b.load(machine, known);
  }
  Tool drill;
  drill.name = "drill 6";
  drill.size = 6;
  drill.made = {{6, 6.02, "2026-01-02T10:00:00Z"}, {6, 6.03, ""}};
  drill.order = 7.5;
  b.load(id++, drill);
  drill.size = 6.1;
  b.load(id++, drill);
  return b;
}

} // namespace

// "14 changed": what a tool really made was emptied, and the order of rows was 0.
TEST(ShopFile, WrittenAndTakenAgainNothingDiffers) {
  for (unsigned seed = 0; seed < 40; ++seed) {
    const auto b = by_chance(seed);
    for (const auto& text : {shop::shop_json(b), shop::shop_csv(b)}) {
      const auto again = shop::take_shop(b, text, "shop");
      ASSERT_TRUE(again.ok()) << again.wrong;
      EXPECT_EQ(again.added, 0) << seed << text.front();
      EXPECT_EQ(again.changed, 0) << seed << text.front();
      EXPECT_TRUE(again.edit.changes.empty()) << seed;
      Build fresh;
      const auto first = shop::take_shop(fresh, text, "shop");
      ASSERT_TRUE(first.ok()) << first.wrong;
      ASSERT_TRUE(fresh.apply(first.edit));
      for (const int kind : shop::kinds()) {
        const auto was = shop::rows(b, kind), is = shop::rows(fresh, kind);
        ASSERT_EQ(was.size(), is.size()) << seed;
        for (std::size_t k = 0; k < was.size(); ++k) {
          EXPECT_EQ(name_of(was[k].second), name_of(is[k].second)) << seed; // in their order
          if (text.starts_with("{")) {
            EXPECT_TRUE(was[k].second == is[k].second) << seed;
          }
        }
      }
    }
  }
}

TEST(ShopFile, WhatAFileSaysNothingOfStays) {
  Build b;
  Tool drill;
  drill.name = "drill 6";
  drill.made = {{6, 6.02, ""}};
  drill.order = 3;
  b.load(5, drill);
  const auto read = shop::take_shop(b, "sheet,name,size\ntool,drill 6,6.1\n", "mine.csv");
  ASSERT_TRUE(read.ok()) << read.wrong;
  EXPECT_EQ(read.changed, 1);
  ASSERT_TRUE(b.apply(read.edit));
  EXPECT_EQ(b.find<Tool>(5)->size, 6.1);
  EXPECT_EQ(b.find<Tool>(5)->order, 3);
  EXPECT_EQ(b.find<Tool>(5)->made.size(), 1U);
  EXPECT_EQ(shop::take_shop(b, "sheet,name,made\ntool,drill 6,seven\n", "mine.csv").wrong,
            "mine.csv: line 2: made: \"seven\" cannot be read");
}

// 20,000 tools took 75 seconds: each was compared with every other.
TEST(ShopFile, AShopHasAnEnd) {
  std::string text = "sheet,name,size\n";
  for (int k = 0; k < 20000; ++k) text += fmt::format("tool,drill {},{}\n", k, 1 + k * 0.001);
  const auto read = shop::take_shop({}, text, "large.csv");
  EXPECT_EQ(read.added, 20000) << read.wrong;
  for (int k = 0; k < 40000; ++k) text += "tool,drill,1\n";
  EXPECT_EQ(shop::take_shop({}, text, "large.csv").wrong,
            "large.csv: a shop has at most 50,000 machines, tools and other rows");
}

// Each offcut was looked for among all of them, and two alike were taken for one.
TEST(ShopFile, OffcutsAreTakenAsTheyAre) {
  std::string text = "sheet,form,width,length\n";
  for (int k = 0; k < 20000; ++k) text += fmt::format("offcut,round bar,{},100\n", 1 + k / 2 * 0.01);
  Build b;
  const auto first = shop::take_shop(b, text, "bars.csv");
  ASSERT_TRUE(first.ok()) << first.wrong;
  EXPECT_EQ(first.added, 20000);
  ASSERT_TRUE(b.apply(first.edit));
  const auto again = shop::take_shop(b, text, "bars.csv");
  EXPECT_EQ(again.same, 20000);
  EXPECT_EQ(again.added, 0);
}
