// Speeds of the workshop. Common practice: 3 in at 210 and 660 rev/min are 165 and 518 ft/min.

#include "cutting/speed.h"
#include "shop/sheet.h"
#include "tests/core/bench/asked.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::cutting;

TEST(CuttingSpeed, RevolutionsAndSpeedAreOneAnother) {
  constexpr double foot = 0.3048;
  EXPECT_NEAR(revolutions(165 * foot, 3 * 25.4), 210, 0.2);
  EXPECT_NEAR(revolutions(518 * foot, 3 * 25.4), 660, 0.8);
  EXPECT_EQ(revolutions(30, 0), 0);
}

TEST(CuttingSpeed, OfAMetalByWhateverItIsCalled) {
  EXPECT_EQ(cutting_speed("cast iron", ToolMetal::high_speed),
            cutting_speed("grey iron", ToolMetal::high_speed));
  EXPECT_EQ(cutting_speed("Bright mild steel EN1A", ToolMetal::high_speed),
            cutting_speed("mild steel", ToolMetal::high_speed));
  // A longer word tells more than a shorter one in the same name.
  EXPECT_EQ(cutting_speed("phosphor bronze bar", ToolMetal::high_speed), 24);
  EXPECT_EQ(cutting_speed("stainless steel", ToolMetal::high_speed), 14);
  EXPECT_EQ(cutting_speed("unobtainium", ToolMetal::high_speed), 0);
  EXPECT_EQ(cutting_speed("", ToolMetal::carbide), 0);
  // Harder metals go slower, carbide faster: the order of every handbook.
  for (const auto& metal : metals_with_speeds())
    EXPECT_GT(cutting_speed(metal, ToolMetal::carbide), 1.5 * cutting_speed(metal, ToolMetal::high_speed))
        << metal;
  EXPECT_GT(cutting_speed("brass", ToolMetal::high_speed),
            cutting_speed("mild steel", ToolMetal::high_speed));
  EXPECT_GT(cutting_speed("mild steel", ToolMetal::high_speed),
            cutting_speed("stainless", ToolMetal::high_speed));
}

TEST(CuttingSpeed, TheMachineHasTheSpeedsItHas) {
  const auto speeds = speeds_of("60 105 170 320 540 900 1400").speeds;
  ASSERT_EQ(speeds.size(), 7U);
  EXPECT_EQ(speed_below(speeds, 600), 540);
  EXPECT_EQ(speed_below(speeds, 540), 540);
  EXPECT_EQ(speed_below(speeds, 30), 60); // its slowest, faster than wanted
  EXPECT_EQ(speed_below({}, 100), 0);
  EXPECT_NE(speeds_of("fast slow -3").wrong, "");
}

// "200-1100" was kept, and ignored: the bench asked for 59,470 rev/min.
TEST(CuttingSpeed, ARangeOfAMachineIsARange) {
  const auto stepless = speeds_of("200-1100");
  EXPECT_TRUE(stepless.stepless);
  EXPECT_EQ(stepless.below(59470), 1100);
  EXPECT_EQ(stepless.below(640), 640);
  EXPECT_EQ(stepless.below(50), 200);
  EXPECT_EQ(speeds_of("200\u20131100").speeds, stepless.speeds);
  const auto steps = speeds_of("60, 105; 170");
  EXPECT_EQ(steps.speeds, (std::vector<double>{60, 105, 170}));
  EXPECT_EQ(steps.below(120), 105);
  for (const auto* wrong : {"fast", "60 x", "200-", "1100-200", "60 200-1100", "-5", "0", "1e9"})
    EXPECT_NE(speeds_of(wrong).wrong, "") << wrong;
  EXPECT_EQ(speeds_of("").wrong, "");
}

TEST(CuttingSpeed, WhatIsNotUnderstoodIsRefusedWhereItIsTyped) {
  build::Build b;
  build::Machine lathe;
  lathe.name = "lathe";
  b.load(5, lathe);
  for (const auto& column : shop::columns(build::kind_of<build::Machine>)) {
    if (std::string_view(column.field->name) != "speeds") continue;
    EXPECT_TRUE(shop::typed(b.records().at(5), column, "200-1100", Unit::mm).ok());
    EXPECT_FALSE(shop::typed(b.records().at(5), column, "about 500", Unit::mm).ok());
  }
}

// 80 typed for millimetres in an inch build: 14,242 ft/min without a question.
TEST(CuttingSpeed, AnAbsurdOneIsAskedAbout) {
  const test::Asked found("speed", {{"diameter", "80"}, {"rpm", "680"}}, Unit::inch);
  EXPECT_NE(found.answer.words.find("is the diameter, 80.0000"), std::string::npos) << found.answer.words;
  EXPECT_EQ(test::Asked("speed", {{"diameter", "80 mm"}, {"rpm", "680"}}, Unit::inch).answer.words, "");
  EXPECT_NEAR(
      test::Asked("speed", {{"diameter", "10 mm"}, {"m_per_min", "20"}, {"speeds", "200-1100"}})["nearest"],
      636.6, 0.1);
}
