// The sums of paths and places, of V-blocks, form cutters, levels, speeds of a metal. Check values: common
// practice where no source is named.

#include "tests/core/bench/asked.h"

#include <boost/rational.hpp>
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <string>

using namespace datrin;
using datrin::test::Asked;

TEST(PathSums, RoundASlotAPocketABoss) {
  const Asked pocket("cutter-path",
                     {{"of", "pocket"}, {"length", "16"}, {"width", "16"}, {"cutter", "12.7"}, {"x", "20"}});
  EXPECT_NEAR(pocket["x_1"], 20 - 1.65, 1e-9); // (16 − 12.7) / 2
  EXPECT_NEAR(pocket["y_1"], -1.65, 1e-9);
  EXPECT_NEAR(pocket["beside"], 6.35, 1e-9);
  const Asked inches("cutter-path", {{"of", "boss"}, {"length", "1/2"}, {"width", "1/2"}, {"cutter", "1/2"}},
                     Unit::inch);
  EXPECT_NEAR(inches["x_1"], -12.7, 1e-9); // 0.25 + 0.25
  EXPECT_NE(Asked("cutter-path", {{"length", "30"}, {"width", "5"}, {"cutter", "6"}})
                .answer.message.find("does not go in"),
            std::string::npos);
}

TEST(PathSums, HolesInRowsAndAlongArcs) {
  const Asked grid(
      "hole-grid",
      {{"along", "2"}, {"pitch", "64"}, {"across", "2"}, {"pitch_across", "34"}, {"from", "middle"}});
  EXPECT_NEAR(grid["x_1"], -32, 1e-9);
  EXPECT_NEAR(grid["x_3"], 32, 1e-9); // back along the next row
  EXPECT_NEAR(grid["y_3"], 17, 1e-9);
  EXPECT_NEAR(grid["diagonal"], std::hypot(64, 34), 1e-9);
  // A symmetrical pair at ±0.350 in.
  const Asked pair(
      "hole-grid",
      {{"along", "2"}, {"pitch", "0.7"}, {"across", "1"}, {"pitch_across", "0"}, {"from", "middle"}},
      Unit::inch);
  EXPECT_NEAR(pair["x_2"], 0.35 * 25.4, 1e-9);
  // Eight on a circle have a chord of 0.38268 D.
  const Asked arc("arc-holes", {{"radius", "50"}, {"holes", "3"}, {"first", "0"}, {"last", "90"}});
  EXPECT_NEAR(arc["chord"], 0.38268 * 100, 1e-3);
  EXPECT_NEAR(arc["y_3"], 50, 1e-9);
  EXPECT_FALSE(
      Asked("arc-holes", {{"radius", "0"}, {"holes", "3"}, {"first", "0"}, {"last", "90"}}).answer.ok);
}

TEST(PathSums, ACornerFoundByTouches) {
  // A corner at (10, 20), its first edge turned by 5 degrees, touched from outside with a finder of 6: by
  // rotation.
  const double a = radians(5);
  const auto place = [&](double along, double up) {
    return fmt::format("{:.6f},{:.6f}", 10 + along * std::cos(a) - up * std::sin(a),
                       20 + along * std::sin(a) + up * std::cos(a));
  };
  const auto one = place(10, -3) + " " + place(40, -3), other = place(-3, 10) + " " + place(-3, 30);
  const Asked found("corner-touches", {{"one", one}, {"other", other}, {"finder", "6"}});
  EXPECT_NEAR(found["x"], 10, 1e-4);
  EXPECT_NEAR(found["y"], 20, 1e-4);
  EXPECT_NEAR(degrees(found["turn"]), 5, 1e-4);
  EXPECT_NEAR(degrees(found["between"]), 90, 1e-4);
  EXPECT_NE(Asked("corner-touches", {{"one", "0,0 10,0"}, {"other", "0,5 10,5"}, {"finder", "6"}})
                .answer.message.find("parallel"),
            std::string::npos);
}

TEST(PathSums, StairsAndCorners) {
  const Asked edge("stepped-edge", {{"radius", "5"}, {"step", "1"}, {"cutter", "6"}});
  EXPECT_NEAR(edge["in_1"], 5, 1e-9);
  EXPECT_NEAR(edge["in_3"], 5 - 4, 1e-9); // 3-4-5: 2 down, 3 up, 4 across
  EXPECT_NEAR(edge["middle_3"], 3 - 1, 1e-9);
  const Asked corner("corner-rounding", {{"radius", "8"}, {"cutter", "6"}, {"steps", "2"}});
  EXPECT_NEAR(corner["x_2"], 11 * std::sqrt(0.5) - 8, 1e-9);
}

// A 90° V shows three and five lobes twice, an oval once, seven not at all; a 60° V three lobes threefold:
// tables of roundness measuring in V-blocks, from memory.
TEST(TruingSums, LobesOverAVBlock) {
  const auto factor = [](const char* lobes, const char* angle) {
    return std::abs(Asked("v-block", {{"reading", "0.02"}, {"lobes", lobes}, {"angle", angle}})["factor"]);
  };
  EXPECT_NEAR(factor("2", "90"), 1, 1e-9);
  EXPECT_NEAR(factor("3", "90"), 2, 1e-9);
  EXPECT_NEAR(factor("5", "90"), 2, 1e-9);
  EXPECT_NEAR(factor("7", "90"), 0, 1e-9);
  EXPECT_NEAR(factor("3", "60"), 3, 1e-9);
  EXPECT_NE(Asked("v-block", {{"reading", "0.02"}, {"lobes", "7"}, {"angle", "90"}})
                .answer.words.find("does not see"),
            std::string::npos);
}

TEST(TruingSums, TableUnderTheSpindleAndTheRest) {
  // The bore's middle 0.1 towards +x: its wall stands out there, the plunger comes out.
  const Asked table("rotary-table", {{"readings", "-0.1 0 0.1 0"}, {"of", "bore"}});
  EXPECT_NEAR(table["x"], -0.1, 1e-9);
  EXPECT_NEAR(table["y"], 0, 1e-9);
  const Asked boss("rotary-table", {{"readings", "0.1 0 -0.1 0"}, {"of", "outside"}});
  EXPECT_NEAR(boss["x"], -0.1, 1e-9);
  // Corrected by 2 and 3 thou.
  const auto off = [](const char* form, const char* left, const char* right) {
    return Asked("form-cutter", {{"form", form}, {"left", left}, {"right", right}})["off"];
  };
  EXPECT_NEAR(off("standing", "10 thou", "14 thou"), 2 * 0.0254, 1e-9);
  EXPECT_NEAR(off("standing", "14 thou", "8 thou"), -3 * 0.0254, 1e-9);
  // A hollow one moved to the right digs in on the left.
  EXPECT_NEAR(off("hollow", "14 thou", "10 thou"), 2 * 0.0254, 1e-9);
  EXPECT_FALSE(Asked("form-cutter", {{"left", "1"}, {"right", "2"}}).answer.ok); // asked, never guessed
  // Two divisions of 0.05 mm a metre over 400 mm.
  EXPECT_NEAR(Asked("same-bubble",
                    {{"machine", "1"}, {"work", "3"}, {"division", "0.05"}, {"length", "400"}})["raise"],
              0.04, 1e-9);
}

TEST(DividingSums, OpeningsOfAWheel) {
  const Asked found("openings",
                    {{"spokes", "5"}, {"width", "6"}, {"rim", "50"}, {"hub", "15"}, {"cutter", "8"}});
  EXPECT_NEAR(found["outer"], 46, 1e-9);
  EXPECT_NEAR(found["inner"], 19, 1e-9);
  // At either radius the cutter just leaves the spoke: half its width from the middle line.
  for (const auto* at : {"outer", "inner"}) {
    const double beside = found[at] * std::sin(found[std::string(at) + "_from"]);
    EXPECT_NEAR(beside - 4, 3, 1e-9);
    EXPECT_NEAR(degrees(found[std::string(at) + "_from"] + found[std::string(at) + "_to"]), 72,
                1e-9); // 360 / 5
  }
  EXPECT_FALSE(
      Asked("openings", {{"spokes", "12"}, {"width", "6"}, {"rim", "50"}, {"hub", "15"}, {"cutter", "8"}})
          .answer.ok);
}

TEST(CuttingSums, SpeedOfAMetal) {
  const Asked brass("speed", {{"diameter", "10"}, {"metal", "brass"}, {"speeds", "60 500 1400"}});
  EXPECT_NEAR(brass["rpm"] * 0.01 * pi, brass["m_per_min"], 1e-9);
  EXPECT_EQ(brass["nearest"], 1400);
  EXPECT_NE(brass.answer.words.find("sings"), std::string::npos);
  EXPECT_FALSE(Asked("speed", {{"diameter", "10"}, {"metal", "brass"}, {"rpm", "100"}}).answer.ok);
}

// 7 in 5 by 3 in 11 by 13 in 17 wants six wheels.
TEST(DividingSums, SixWheelsWhereFourDoNot) {
  const Asked found("change-wheels",
                    {{"leadscrew", "935 mm"}, {"pitch", "273 mm"}, {"wheels", "70 50 30 110 65 85"}});
  EXPECT_NE(found["error"], 0);
  EXPECT_NE(found.answer.words.find("With six"), std::string::npos) << found.answer.words;
  EXPECT_NE(found.answer.words.find("exact"), std::string::npos) << found.answer.words;
}

// Signed lists in mixed units against exact fractions (Boost.Rational): an inch is 127/5 mm.
TEST(MachineSums, MovesAreExactSums) {
  using Exact = boost::rational<long long>;
  std::mt19937 random(11);
  std::uniform_int_distribution<int> sixteenths(1, 15), whole(0, 6), hundredths(1, 9999), unit(0, 2),
      sign(0, 1);
  for (int trial = 0; trial < 50; ++trial) {
    std::string typed;
    Exact exact = 0;
    for (int k = 0; k < 8; ++k) {
      const int way = k == 0 ? 1 : sign(random) ? 1 : -1;
      typed += k == 0 ? "" : way > 0 ? " + " : " - ";
      if (const int of = unit(random); of == 0) {
        const int inches = whole(random), part = sixteenths(random);
        typed += inches ? fmt::format("{} {}/16 in", inches, part) : fmt::format("{}/16 in", part);
        exact += Exact(way) * (Exact(inches) + Exact(part, 16)) * Exact(127, 5);
      } else {
        const int figure = hundredths(random);
        typed += fmt::format("{}.{:02} {}", figure / 100, figure % 100, of == 1 ? "mm" : "in");
        exact += Exact(way) * Exact(figure, 100) * (of == 1 ? Exact(1) : Exact(127, 5));
      }
    }
    const Asked found("moves", {{"moves", typed}});
    EXPECT_NEAR(found["total"], boost::rational_cast<double>(exact), 1e-9) << typed;
  }
  // 3 + 9.195 + 3.5 = 15.695 mm; from the edge 12.695 = 0.4998 in (common practice).
  EXPECT_NEAR(Asked("moves", {{"moves", "3 mm + 9.195 mm + 3.5 mm"}})["total"], 15.695, 1e-12);
  EXPECT_NEAR(Asked("moves", {{"moves", "15.695 mm - 3 mm"}})["total"] / 25.4, 0.4998, 5e-5);
}

TEST(TruingSums, WhatAHolderLeaves) {
  // 8.19 in 8.20 shifts by 0.005 either way, 0.01 on the indicator; in 8.33 0.14 (common practice).
  EXPECT_NEAR(Asked("held-true", {{"runout_of_it", "0"}, {"bore", "8.20"}, {"mandrel", "8.19"}})["runout"],
              0.01, 1e-9);
  EXPECT_NEAR(Asked("held-true", {{"runout_of_it", "0"}, {"bore", "8.33"}, {"mandrel", "8.19"}})["runout"],
              0.14, 1e-9);
  EXPECT_NEAR(Asked("held-true", {{"runout_of_it", "0.02"}, {"bore", "10"}, {"mandrel", "10"}})["offset"],
              0.01, 1e-9);
  EXPECT_FALSE(Asked("held-true", {{"runout_of_it", "0"}, {"bore", "8"}, {"mandrel", "8.1"}}).answer.ok);
}

TEST(CuttingSums, ASlitInBites) {
  const Asked found("slit", {{"depth", "1/8"}, {"saw", "0.020"}, {"width", "0.030"}}, Unit::inch);
  EXPECT_EQ(found["bites"], 13); // 0.125 by 0.010
  EXPECT_NEAR(found["each"] * 13, 3.175, 1e-9);
  EXPECT_NEAR(found["aside"], 0.005 * 25.4, 1e-9);
  EXPECT_FALSE(Asked("slit", {{"depth", "0"}}).answer.ok);
}

// A taper of half-angle θ and small end D drawn, the pins put against it by geometry: their middles r from
// the plate and from the slope.
TEST(AngleSums, ATaperOverPins) {
  const double half = std::atan(1.0 / 24), small = 20, pin = 6, up = 30; // 1 in 12 on the diameter
  const auto over =
      [&](double lifted) { // the middle is a radius from the slope, whose radius at height z is D/2 + z tan θ
        const double z = lifted + pin / 2;
        return 2 * (small / 2 + z * std::tan(half) + pin / 2 / std::cos(half) + pin / 2);
      };
  const Asked found("taper-over-pins", {{"low", fmt::format("{:.9f}", over(0))},
                                        {"high", fmt::format("{:.9f}", over(up))},
                                        {"up", "30"},
                                        {"pin", "6"}});
  EXPECT_NEAR(found["one_in"], 12, 1e-6);
  EXPECT_NEAR(found["included"], 2 * half, 1e-8);
  EXPECT_NEAR(found["small"], small, 1e-6);
  EXPECT_FALSE(
      Asked("taper-over-pins", {{"low", "33"}, {"high", "30"}, {"up", "30"}, {"pin", "6"}}).answer.ok);
}

TEST(DividingSums, AnglesOnTheRotaryTable) {
  const Asked five("angles", {{"divisions", "5"}, {"worm", "90"}}); // 360 / 5 = 72 (common practice)
  EXPECT_NEAR(degrees(five["step"]), 72, 1e-9);
  EXPECT_NEAR(degrees(five["at_3"]), 144, 1e-9);
  EXPECT_EQ(five["turns_3"], 36); // 4 degrees a turn
  EXPECT_NEAR(five["dial_3"], 0, 1e-9);
  const Asked seven("angles", {{"divisions", "7"}, {"worm", "90"}});
  EXPECT_EQ(seven["turns_2"], 12);
  EXPECT_NEAR(degrees(seven["dial_2"]), 360.0 / 7 - 48, 1e-9);
}

TEST(SetupSums, AngleBlocksThereAre) {
  EXPECT_EQ(Asked("angle-blocks", {{"angle", "13"}}).answer.words, "10 + 3 = 13\u00B0"); // common practice
  EXPECT_EQ(Asked("angle-blocks", {{"angle", "13"}, {"blocks", "9 4 1 12"}}).answer.words,
            "12 + 1 = 13\u00B0");
  EXPECT_FALSE(Asked("angle-blocks", {{"angle", "13"}, {"blocks", "9 3"}}).answer.ok);
  EXPECT_FALSE(Asked("angle-blocks", {{"angle", "13"}, {"blocks", "ten 3"}}).answer.ok);
}
