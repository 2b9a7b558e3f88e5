// Gears, indexing and clock teeth as they are asked for.

#include "tests/core/bench/asked.h"

#include "quantity/angle.h"

#include <fmt/format.h>

using namespace datrin;
using namespace datrin::test;

// DIN 3972, from memory: sets by module count up from the fewest teeth (no. 6 cuts 35 to 54); by diametral
// pitch no. 1 is the rack's (common practice).
TEST(DividingSums, TheCutterOfTheSetOfEightByItsKind) {
  const Asked module("gear", {{"teeth", "40"}, {"module", "1"}});
  EXPECT_EQ(module["cutter"], 6);
  const Asked pitch("gear", {{"teeth", "40"}, {"dp", "20"}});
  EXPECT_EQ(pitch["cutter"], 3);
  for (const auto* one : {&module, &pitch})
    for (const auto& line : one->answer.lines)
      if (line.key == "cutter") {
        EXPECT_EQ(line.how, "it cuts 35 to 54 teeth");
      }
  EXPECT_EQ(Asked("gear", {{"teeth", "12"}, {"module", "1"}})["cutter"], 1);
  EXPECT_EQ(Asked("gear", {{"teeth", "12"}, {"dp", "20"}})["cutter"], 8);
  EXPECT_EQ(Asked("gear", {{"teeth", "200"}, {"module", "1"}})["cutter"], 8);
}

// Handbooks of gears: 14½° full depth 2.157 / DP; 20° full depth 2.25 / DP.
TEST(DividingSums, TheOlderToothIsLessDeep) {
  EXPECT_NEAR(Asked("gear", {{"teeth", "40"}, {"dp", "20"}, {"pressure", "14.5"}})["depth"],
              2.157 / 20 * 25.4, 1e-9);
  EXPECT_NEAR(Asked("gear", {{"teeth", "40"}, {"dp", "20"}, {"pressure", "20"}})["depth"], 2.25 / 20 * 25.4,
              1e-9);
  EXPECT_NEAR(Asked("gear", {{"teeth", "40"}, {"module", "1"}, {"pressure", "14.5"}})["depth"], 2.25, 1e-9);
}

// 69 by the usual plates: 14/21 − 2/23 of a turn (handbooks of milling). One plate is on the head at a time.
TEST(DividingSums, BothCirclesOfACompoundAreOnOnePlate) {
  const Asked found("indexing", {{"divisions", "69"},
                                 {"plates", "15 16 17 18 19 20; 21 23 27 29 31 33; 37 39 41 43 47 49"}});
  EXPECT_NE(found.answer.words.find("14 holes on 21, back 2 on 23"), std::string::npos) << found.answer.words;
  EXPECT_NEAR(14. / 21 - 2. / 23, 40. / 69, 1e-12);
  const Asked parted("indexing", {{"divisions", "69"}, {"plates", "21; 23"}});
  EXPECT_EQ(parted.answer.words.find("On two circles"), std::string::npos) << parted.answer.words;
}

// BS 978-2, from memory: a leaf's tip 0.525 m of 10, 0.625 m from 11 on; 1.05 and 1.25 m thick.
TEST(DividingSums, LeavesOfElevenAndMore) {
  const Asked twelve("clock-teeth", {{"wheel", "72"}, {"pinion", "12"}, {"module", "1"}});
  EXPECT_NEAR(twelve["pinion_outside"], 12 + 2 * 0.625, 1e-9);
  EXPECT_NEAR(twelve["leaf"], 1.25, 1e-9);
  const Asked ten("clock-teeth", {{"wheel", "60"}, {"pinion", "10"}, {"module", "1"}});
  EXPECT_NEAR(ten["pinion_outside"], 10 + 2 * 0.525, 1e-9);
  EXPECT_NEAR(ten["leaf"], 1.05, 1e-9);
}

// Which way a jaw moves was in words only: a program that reads the JSON got the figure without its sign.
TEST(DividingSums, JawsMoveWithASign) {
  const Asked found("four-jaw", {{"readings", "0:0.02 90:0.00 180:-0.02 270:0.00"}});
  EXPECT_NEAR(found["jaw_1"], -found["jaw_3"], 1e-12);
  EXPECT_NEAR(std::abs(found["jaw_1"]), 0.02, 1e-9);
  EXPECT_LT(found["jaw_1"] * found["jaw_3"], 0);
}

// Edges of 100° were told as 80.
TEST(DividingSums, ACornerOfAHundredDegrees) {
  // One edge along x, the other 100° from it; the finder's middle 3 outside of both.
  const double a = radians(100);
  const auto place = [&](double along) { // outside: to the left of the way up the edge
    return fmt::format("{},{}", along * std::cos(a) - 3 * std::sin(a), along * std::sin(a) + 3 * std::cos(a));
  };
  const Asked found("corner-touches",
                    {{"one", "10,-3 40,-3"}, {"other", place(10) + " " + place(30)}, {"finder", "6"}});
  EXPECT_NEAR(degrees(found["between"]), 100, 1e-6);
  EXPECT_NEAR(found["x"], 0, 1e-9);
}
