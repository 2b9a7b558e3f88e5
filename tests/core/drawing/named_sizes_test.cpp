#include "drawing/named_sizes.h"

#include "demo/mill_engine.h"

#include <gtest/gtest.h>

using namespace datrin;

TEST(NamedSizes, TheLongestNameThatEndsWithAWord) {
  const auto b = demo::mill_engine().build;
  build::Id rod = 0;
  for (const auto& [id, part] : b.parts())
    if (part.name == "Connecting rod") rod = id;
  ASSERT_NE(rod, 0);
  double bore = 0;
  for (const auto& [id, d] : b.all<build::Dimension>())
    if (d.part == rod && d.name == "big end bore") bore = d.nominal;
  ASSERT_GT(bore, 0);
  for (const char* text :
       {"big end bore", "Big End Bore/2", "big end bore + 3 mm", "connecting rod, big end bore"}) {
    const auto found = drawing::size_named(b, rod, text);
    ASSERT_TRUE(found) << text;
    EXPECT_EQ(found->mm, bore) << text;
  }
  EXPECT_TRUE(drawing::size_named(b, 0, "Connecting rod, big end bore")); // from anywhere
  const auto other = drawing::size_named(b, rod, "big end bores");
  EXPECT_TRUE(!other || other->bytes < std::string_view("big end bore").size());
  EXPECT_FALSE(drawing::size_named(b, rod, "big"));
  EXPECT_FALSE(drawing::size_named(b, rod, ""));
}
