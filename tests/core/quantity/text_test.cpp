#include "quantity/text.h"

#include <gtest/gtest.h>

using namespace datrin;

// RFC 3629 section 3 and 10: overlong forms, surrogates and anything past U+10FFFF are not UTF-8.
TEST(Text, KnowsUtf8) {
  EXPECT_TRUE(is_utf8("plain"));
  EXPECT_TRUE(is_utf8("\u00B5m \u2212 \U0001F527"));
  EXPECT_FALSE(is_utf8("\x80"));
  EXPECT_FALSE(is_utf8("\xC0\x80"));
  EXPECT_FALSE(is_utf8("\xE0\x80\x80"));
  EXPECT_FALSE(is_utf8("\xED\xA0\x80"));
  EXPECT_FALSE(is_utf8("\xF4\x90\x80\x80"));
  EXPECT_FALSE(is_utf8("\xE2\x88"));
}

TEST(Text, DidYouMean) {
  const std::vector<std::string> names{"foot", "bore", "boss", "cheek left"};
  EXPECT_EQ(did_you_mean("boor", names), " (did you mean \"bore\"?)");
  EXPECT_EQ(nearest_name("BORE", names), "bore");
  EXPECT_EQ(nearest_name("flywheel", names), "");
  EXPECT_EQ(nearest_name("xy", names), "");
}

TEST(Text, Slug) {
  EXPECT_EQ(slug("Cheek left (far)"), "cheek_left_far");
  EXPECT_EQ(slug("  "), "unnamed");
}

TEST(Text, CountsInWords) {
  EXPECT_EQ(counted(1, "joint", "joints"), "1 joint");
  EXPECT_EQ(counted(0, "touch", "touches"), "0 touches");
  EXPECT_EQ(counted(300, "piece", "pieces"), "300 pieces");
}
