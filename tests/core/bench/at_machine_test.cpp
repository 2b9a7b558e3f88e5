// The sums of the machine. Check values: common practice where no source is named; handbook tables by name,
// from memory.

#include "tests/core/bench/asked.h"

#include "dividing/change_wheels.h"
#include "dividing/clock_train.h"
#include "dividing/gears.h"
#include "dividing/indexing.h"
#include "truing/balance.h"
#include "truing/runout.h"
#include "truing/three_jaw.h"

#include <boost/math/tools/toms748_solve.hpp>
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <complex>
#include <random>

using namespace datrin;
using datrin::test::Asked;

namespace {

constexpr double degree = pi / 180;

} // namespace

// Readings of a pure offset at any angles give it back; on top a second harmonic and noise, told apart by a
// discrete Fourier transform of readings evenly round.
TEST(TrueInTheChuck, TheFirstHarmonicIsTheOffset) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> unit(-1, 1);
  for (int round = 0; round < 50; ++round) {
    const double x = unit(random), y = unit(random), mean = unit(random);
    std::vector<truing::RunoutReading> some;
    for (int k = 0; k < 5; ++k) {
      const double at = 2 * pi * (k + 0.3 * unit(random)) / 5;
      some.push_back({at, mean + x * std::cos(at) + y * std::sin(at)});
    }
    const auto found = truing::runout({some, false});
    ASSERT_TRUE(found.usable()) << found.message;
    EXPECT_NEAR(found.off.x(), x, 1e-9);
    EXPECT_NEAR(found.off.y(), y, 1e-9);
    EXPECT_NEAR(found.rest, 0, 1e-9);
    // In a bore the wall pushes the plunger where the axis does not lie.
    EXPECT_NEAR(truing::runout({some, true}).off.x(), -x, 1e-9);
  }
  constexpr int n = 12;
  std::vector<truing::RunoutReading> even;
  std::complex<double> first = 0, second = 0;
  for (int k = 0; k < n; ++k) {
    const double at = 2 * pi * k / n;
    const double value = 0.3 * std::cos(at - 0.7) + 0.1 * std::cos(2 * (at - 0.4)) + 0.02 * unit(random);
    even.push_back({at, value});
    first += value * std::polar(2.0 / n, at);
    second += value * std::polar(2.0 / n, 2 * at);
  }
  const auto found = truing::runout({even, false});
  EXPECT_NEAR(found.offset(), std::abs(first), 1e-12);
  EXPECT_NEAR(found.direction(), std::arg(first), 1e-12);
  EXPECT_NEAR(found.second, std::abs(second), 1e-12);
  EXPECT_NEAR(found.second_at, std::arg(second) / 2, 1e-12);
  EXPECT_GT(found.rest, found.form);
}

// Two thou between opposite jaws: a thou of offset; the far jaw goes out, the near one in.
TEST(TrueInTheChuck, FourJawsByReadings) {
  const Asked a("four-jaw",
                {{"readings", "0:0.04 90:0.03 180:-0.04 270:-0.03"}, {"screw", "2"}, {"metal", "0.5"}});
  EXPECT_NEAR(a["offset"], 0.05, 1e-9);
  EXPECT_NEAR(a["direction"], std::atan2(0.03, 0.04), 1e-9);
  EXPECT_NEAR(a["runout"], 0.1, 1e-9);
  EXPECT_NEAR(a["rest"], 0, 1e-9);
  EXPECT_NEAR(a["jaw_1"], 0.04, 1e-9);
  EXPECT_NEAR(a["jaw_2"], 0.03, 1e-9);
  EXPECT_NEAR(a["turns_1"], 0.02, 1e-9); // of 2 mm a turn
  EXPECT_NE(a.answer.words.find("Good enough for the metal"), std::string::npos) << a.answer.words;
  const Asked bad("four-jaw", {{"readings", "0:1 90:0 180:-1 270:0"}, {"metal", "0.5"}});
  EXPECT_NE(bad.answer.words.find("does not clean up"), std::string::npos) << bad.answer.words;
  const Asked in_inches("four-jaw", {{"readings", "0:0.002 90:0 180:-0.002 270:0"}, {"of", "bore"}},
                        Unit::inch);
  EXPECT_NEAR(in_inches["offset"], 0.0508, 1e-9);
  EXPECT_NEAR(in_inches["direction"], pi, 1e-9);
}

TEST(TrueInTheChuck, ReadingsThatCannotBeAreAskedAbout) {
  const auto message = [](const char* readings) {
    return Asked("four-jaw", {{"readings", readings}}).answer.message;
  };
  EXPECT_NE(message("0:0.02 360:0.05 90:0").find("0\u00B0 is read twice"), std::string::npos)
      << message("0:0.02 360:0.05 90:0");
  EXPECT_NE(message("0:0.02 180:0.05").find("at least three"), std::string::npos);
  EXPECT_NE(message("0 0.02 90").find("is no reading"), std::string::npos);
  EXPECT_NE(message("0:a 90:0 180:0").find("at 0\u00B0"), std::string::npos);
  EXPECT_NE(message("0:5000 90:0 180:0").find("more than an indicator"), std::string::npos);
}

TEST(TrueInTheChuck, TwoStationsGiveOffsetAndTilt) {
  const Asked a(
      "two-stations",
      {{"near", "0:0.02 90:0 180:-0.02 270:0"}, {"far", "0:0 90:0.06 180:0 270:-0.06"}, {"between", "100"}});
  EXPECT_NEAR(a["offset_near"], 0.02, 1e-9);
  EXPECT_NEAR(a["offset_far"], 0.06, 1e-9);
  EXPECT_NEAR(a["direction_far"], pi / 2, 1e-9);
  EXPECT_NEAR(a["tilt"], std::atan(std::hypot(0.02, 0.06) / 100), 1e-12);
  // Whole runouts alone: offset is half, tilt (T2 - T1) / (2 dz).
  const Asked b("two-stations", {{"near", "0.02"}, {"far", "0.06"}, {"between", "100"}});
  EXPECT_NEAR(b["offset_near"], 0.01, 1e-12);
  EXPECT_NEAR(b["tilt"], std::atan(0.04 / 200), 1e-12);
  const Asked wobble("face-wobble", {{"readings", "0:0.05 90:0 180:-0.05 270:0"}, {"radius", "50"}});
  EXPECT_NEAR(wobble["tilt"], std::atan(0.001), 1e-12);
}

// Against the chuck itself: the radius the jaws close to, solved by Boost so that the bar touches all three.
TEST(TrueInTheChuck, ThreeJawPackingIsExact) {
  for (const double r : {5.0, 12.5, 20.0})
    for (const double e : {0.5, 2.0, 4.0}) {
      // The bar's middle e from the chuck's, away from jaw 1; narrow jaws 2 and 3 touch where they point.
      const auto gap = [&](double R) {
        const double x = R * std::cos(2 * pi / 3) + e, y = R * std::sin(2 * pi / 3);
        return std::hypot(x, y) - r;
      };
      std::uintmax_t rounds = 100;
      const auto R = boost::math::tools::toms748_solve(gap, r / 2, 2 * r,
                                                       boost::math::tools::eps_tolerance<double>(50), rounds);
      const double packing = R.first - (r - e);
      const auto found = truing::three_jaw_packing({2 * r, e, 0});
      ASSERT_TRUE(found.usable()) << found.message;
      EXPECT_NEAR(found.packing, packing, 1e-9);
      EXPECT_NEAR(found.rule_error, 1.5 * e - packing, 1e-9);
      EXPECT_NEAR(truing::three_jaw_packing({2 * r, e, 100}).packing, 1.5 * e, 1e-12); // wide jaws: the rule
    }
  EXPECT_FALSE(truing::three_jaw_packing({10, 6, 0}).usable()); // the others do not touch it any more
  EXPECT_FALSE(truing::three_jaw_packing({0, 1, 0}).usable());
  const Asked a("three-jaw-packing", {{"bar", "25"}, {"throw", "3"}});
  EXPECT_NEAR(a["packing"], 4.5 - 12.5 + std::sqrt(12.5 * 12.5 - 0.75 * 9), 1e-12);
}

// 0.5 mm of runout on both, towards the pin: 0.25 off each, the webs are to be opened.
TEST(TrueInTheChuck, APressedCrank) {
  const Asked a("crank-true", {{"left", "0:0.25 90:0 180:-0.25 270:0"},
                               {"right", "0:0.25 90:0 180:-0.25 270:0"},
                               {"shaft", "60"},
                               {"rim", "30"}});
  EXPECT_NEAR(a["left"], 0.5, 1e-9);
  EXPECT_NEAR(a["at_rim"], 0.25, 1e-9); // half of 0.5 over 60, at 30 from the pin
  EXPECT_NEAR(a["kink"], 0.25, 1e-9);
  EXPECT_NEAR(a["expected"], 0, 1e-9);
  EXPECT_NE(a.answer.words.find("wedge"), std::string::npos) << a.answer.words;
  for (const auto& [field, value] :
       {std::pair("allowed", "-1"), std::pair("metal", "-0.1")}) { // of a chuck: a limit below 0 is none
    const Asked no("four-jaw", {{"readings", "0:0.25 90:0 180:-0.25 270:0"}, {field, value}});
    EXPECT_NE(no.answer.message.find("must not be below 0"), std::string::npos) << no.answer.message;
  }
  const Asked done("crank-true",
                   {{"left", "0:0.01 90:0 180:-0.01 270:0"}, {"right", "0:0 90:0 180:0"}, {"shaft", "60"}});
  EXPECT_EQ(done.answer.words, "True enough: stop here.");
}

// A single crank: 100 g turning and half of 200 g going to and fro at 20 mm want 80 g at 50 mm.
TEST(Balancing, OneCylinder) {
  const Asked a("balance", {{"crank_radius", "20"},
                            {"rotating", "100"},
                            {"reciprocating", "200"},
                            {"factor", "0.5"},
                            {"radius", "50"},
                            {"thick", "10"},
                            {"density", "7.85"}});
  EXPECT_NEAR(a["mass"], 80, 1e-9);
  // As a hole: 80 g of steel is 10191 mm³, 10 thick that is 36 across.
  EXPECT_NEAR(a["hole"], std::sqrt(4 * 80000 / 7.85 / 10 / pi), 1e-9);
  EXPECT_NEAR(a["left_along"], 0.5 * 200 * 20, 1e-9);
  // Nothing that goes to and fro: all of it is balanced, whatever the factor.
  EXPECT_NEAR(
      Asked("balance",
            {{"crank_radius", "20"}, {"rotating", "100"}, {"reciprocating", "0"}, {"radius", "40"}})["mass"],
      50, 1e-9);
  EXPECT_FALSE(Asked("balance", {{"crank_radius", "20"},
                                 {"rotating", "1"},
                                 {"reciprocating", "1"},
                                 {"factor", "2"},
                                 {"radius", "40"}})
                   .answer.ok);
}

// Machinery's Handbook, simple indexing, worm of 40 (from memory): 7 divisions 5 and 15/21, 24 divisions 1
// and 10/15 (2/3), 9 divisions 4 and 8/18.
TEST(Dividing, SimpleIndexingAsInTheHandbook) {
  const auto in = [](int n) {
    return dividing::IndexingInput{
        n, 40, {15, 16, 17, 18, 19, 20, 21, 23, 27, 29, 31, 33, 37, 39, 41, 43, 47, 49}, {}};
  };
  for (const int n : {2, 7, 9, 24, 36, 49, 100, 360}) {
    const auto found = dividing::indexing(in(n));
    ASSERT_TRUE(found.usable());
    if (n == 360) {
      EXPECT_TRUE(found.exact()); // 3 on 27
    }
    ASSERT_TRUE(found.exact()) << n;
    const auto& s = found.best;
    const double turns = s.turns + (s.circle ? static_cast<double>(s.holes) / s.circle : 0);
    EXPECT_NEAR(turns * n, 40, 1e-12) << n;
  }
  const auto seven = dividing::indexing(in(7)).best;
  EXPECT_EQ(seven.turns, 5);
  EXPECT_NEAR(static_cast<double>(seven.holes) / seven.circle, 5.0 / 7, 1e-12);
  const Asked a("indexing", {{"divisions", "7"}, {"worm", "40"}, {"plates", "15 16 17 18 19 20 21"}});
  EXPECT_EQ(a["turns"], 5);
  EXPECT_EQ(a["holes"], 15);
  EXPECT_EQ(a["circle"], 21);
  EXPECT_EQ(a["error"], 0);
}

TEST(Dividing, WhereOneCircleDoesNotDo) {
  // 77 = 7 · 11: 40/77 is on no circle here; 3/21 and 9/33 together are not, but 9/21 + 3/33 is 0.5195 =
  // 40/77 (Machinery's Handbook, compound indexing; from memory).
  const auto found = dividing::indexing({77, 40, {21, 33}, {}});
  ASSERT_TRUE(found.usable());
  EXPECT_FALSE(found.exact());
  EXPECT_NE(found.best.error, 0);
  EXPECT_LE(std::abs(found.best.error), 360.0 / 40 / 2 / 21 + 1e-12); // half a hole of the coarser circle
  ASSERT_TRUE(found.compound);
  const auto& c = *found.compound;
  EXPECT_NEAR(static_cast<double>(c.holes) / c.circle + static_cast<double>(c.holes_b) / c.circle_b,
              40.0 / 77, 1e-12);
  // 127 by differential: as for 120 or so, and the wheels make up the difference exactly.
  const auto d =
      dividing::indexing({127, 40, {15, 16, 18, 20, 24}, {24, 24, 28, 32, 40, 44, 48, 56, 64, 72, 86, 100}})
          .differential;
  ASSERT_TRUE(d);
  const double crank = d->step.turns + static_cast<double>(d->step.holes) / d->step.circle;
  const double wheels = static_cast<double>(d->driver) / d->driven *
                        (d->driver_b ? static_cast<double>(d->driver_b) / d->driven_b : 1);
  // Over a turn of the work the crank goes 127 times its step past a plate that itself goes round by
  // `wheels`.
  EXPECT_NEAR(127 * crank + (d->with_crank ? 1 : -1) * wheels, 40, 1e-9);
  EXPECT_FALSE(dividing::indexing({0, 40, {15}, {}}).usable());
  EXPECT_NE(Asked("indexing", {{"divisions", "7"}, {"plates", "15 x"}}).answer.message.find("\"x\""),
            std::string::npos);
}

// Machinery's Handbook, measurement over pins of 1.728 in for one diametral pitch, 20° (from memory): 10
// teeth 12.3445, 20 teeth 22.3900.
TEST(Dividing, AGearOverPins) {
  const Asked a("gear", {{"teeth", "20"}, {"dp", "1"}, {"pin", "1.728 in"}}, Unit::inch);
  EXPECT_NEAR(a["pitch"], 20 * 25.4, 1e-9);
  EXPECT_NEAR(a["outside"], 22 * 25.4, 1e-9);
  EXPECT_NEAR(a["depth"], 2.25 * 25.4, 1e-9);
  // A pin of 1.728 / DP touches a standard gear near its pitch circle, whatever the count.
  EXPECT_NEAR(a["touch"], 20 * 25.4, 0.2 * 25.4);
  EXPECT_NEAR(a["over_pins"] / 25.4, 22.3900, 5e-5);
  EXPECT_NEAR(Asked("gear", {{"teeth", "10"}, {"dp", "1"}, {"pin", "1.728 in"}})["over_pins"] / 25.4, 12.3445,
              5e-5);
  // The pin's centre lies where its involute says: gone back over the gap between two teeth.
  const auto gear = dividing::gear({20, 1, 20 * degree, 1.728});
  const double centre = (gear.over_pins - 1.728) / 2, base = 10 * std::cos(20 * degree);
  const double phi = std::acos(base / centre);
  EXPECT_NEAR(dividing::involute(phi), dividing::involute(20 * degree) + 1.728 / (2 * base) - pi / 40, 1e-12);
  for (const double x : {0.1, 0.4, 0.9, 1.2})
    EXPECT_NEAR(dividing::angle_of_involute(dividing::involute(x)), x, 1e-9);
  EXPECT_EQ(gear.cutter, 3); // 17 to 20 teeth, by module
  EXPECT_NE(dividing::gear({10, 1, 20 * degree, 0}).words.find("Fewer than 18"), std::string::npos);
  EXPECT_EQ(dividing::gear({20, 1, 20 * degree, 0.8}).over_pins, 0); // too thin
  EXPECT_FALSE(Asked("gear", {{"teeth", "20"}}).answer.ok);
}

// A leadscrew of 8 to the inch and 127: metric exactly; without it 1.5 mm by the nearest train.
TEST(Dividing, ChangeWheels) {
  const Asked exact("change-wheels",
                    {{"leadscrew", "1/8 in"}, {"pitch", "1.5 mm"}, {"wheels", "20 25 30 40 50 60 80 127"}});
  EXPECT_NEAR(exact["cut"], 1.5, 1e-9);
  EXPECT_EQ(exact["error"], 0);
  EXPECT_EQ(exact["driver_1"], 60); // 60 : 127 is 1.5 / 3.175
  EXPECT_EQ(exact["driven_1"], 127);
  const Asked simple("change-wheels", {{"leadscrew", "2"}, {"pitch", "1"}, {"wheels", "20 25 30 40 50 60"}});
  EXPECT_NEAR(simple["driver_1"] / simple["driven_1"], 0.5, 1e-12);
  EXPECT_EQ(simple.keys.size(), 4U); // two wheels do
  const Asked near(
      "change-wheels",
      {{"leadscrew", "1/8 in"}, {"pitch", "1.5 mm"}, {"wheels", "20 25 30 35 40 45 50 55 60 65"}});
  EXPECT_NE(near["error"], 0);
  EXPECT_LT(std::abs(near["error"]), 0.003);
  // Against every train of four: none is nearer.
  const std::vector<int> wheels{20, 25, 30, 35, 40, 45, 50, 55, 60, 65};
  double best = 1e9;
  for (std::size_t a = 0; a < 10; ++a)
    for (std::size_t b = 0; b < 10; ++b)
      for (std::size_t c = 0; c < 10; ++c)
        for (std::size_t d = 0; d < 10; ++d)
          if (a != b && a != c && a != d && b != c && b != d && c != d)
            best = std::min(best, std::abs(std::log(1.0 * wheels[a] * wheels[c] / wheels[b] / wheels[d] /
                                                    (1.5 / 3.175))));
  EXPECT_LE(std::abs(std::log(near["cut"] / 1.5)), best + 1e-12);
  EXPECT_NE(near.answer.words.find("Stop the lathe"), std::string::npos);
}

// A seconds pendulum: 3600 beats, escape wheel of 30, pinions of 8: 64 into 8 and 60 into 8, the usual
// counts.
TEST(Dividing, TheTrainOfASecondsClock) {
  const auto found = dividing::clock_train({3600, 1, 30, {8}, 2, 40, 120});
  ASSERT_TRUE(found.usable()) << found.message;
  EXPECT_TRUE(found.exact);
  EXPECT_EQ(found.stages[0].wheel * found.stages[1].wheel, 64 * 60);
  EXPECT_EQ(found.stages[0].wheel, 64);
  EXPECT_EQ(found.seconds_a_day, 0);
  EXPECT_NEAR(dividing::depthing(found.stages[0], 0.8), 28.8, 1e-12);
  // A beat no counts make exactly: near, and what it loses is what the beats are over.
  const auto near = dividing::clock_train({3601, 1, 30, {8}, 2, 40, 120});
  ASSERT_TRUE(near.usable());
  EXPECT_FALSE(near.exact);
  EXPECT_NEAR(near.seconds_a_day, 86400 * (3601 / near.beats_an_hour - 1), 1e-9);
  EXPECT_LT(std::abs(near.seconds_a_day), 120);
  const auto three = dividing::clock_train({18000, 1, 15, {6, 7, 8, 10}, 3, 30, 90});
  EXPECT_TRUE(three.usable() && three.exact);
  EXPECT_FALSE(dividing::clock_train({0, 1, 30, {8}, 2, 40, 120}).usable());
}

// Five spokes: 72°; 6 less 2 (half of 4) is 4 beside the middle: spoke 4, cutter 4.
TEST(Dividing, Spokes) {
  const Asked a("spokes", {{"spokes", "5"}, {"width", "4"}, {"cutter", "4"}});
  EXPECT_NEAR(a["step"], 72 * degree, 1e-12);
  EXPECT_NEAR(a["offset"], 4, 1e-12);
  EXPECT_NEAR(a["meet"], 4 / std::sin(36 * degree), 1e-12);
}

TEST(AtTheMachine, MiddlesAndEdges) {
  // 1.62 apart: 0.81; a 5.2 mm slot between walls 11.2 less a 6 mm finder: 2.6 each way, 11.2 wide.
  EXPECT_NEAR(Asked("middle", {{"first", "0"}, {"second", "1.62 in"}})["middle"], 0.81 * 25.4, 1e-9);
  const Asked inside("middle", {{"first", "0"}, {"second", "5.2"}, {"finder", "6"}, {"of", "inside"}});
  EXPECT_NEAR(inside["middle"], 2.6, 1e-12);
  EXPECT_NEAR(inside["size"], 11.2, 1e-12);
  // A burr of 20 thou: the second touch does not agree.
  const Asked burr("middle", {{"first", "0"}, {"second", "50"}, {"finder", "6"}, {"again", "0.020 in"}});
  EXPECT_NE(burr.answer.words.find("do not agree"), std::string::npos);
  EXPECT_FALSE(Asked("middle", {{"first", "0"}, {"second", "5"}, {"finder", "6"}}).answer.ok);
  // A 6 mm finder stands 3 mm short.
  EXPECT_NEAR(Asked("edge", {{"reading", "10"}, {"finder", "6"}})["edge"], 13, 1e-12);
  EXPECT_NEAR(
      Asked("edge", {{"reading", "10"}, {"finder", "6"}, {"towards", "minus"}, {"from", "2"}})["stand"], 5,
      1e-12);
}

TEST(AtTheMachine, ABoreByTouches) {
  const Asked three("circle-touches", {{"touches", "17,3 7,13 -3,3"}, {"finder", "6"}});
  EXPECT_NEAR(three["x"], 7, 1e-9);
  EXPECT_NEAR(three["y"], 3, 1e-9);
  EXPECT_NEAR(three["diameter"], 26, 1e-9);
  EXPECT_NEAR(
      Asked("circle-touches", {{"touches", "17,3 7,13 -3,3"}, {"finder", "6"}, {"of", "boss"}})["diameter"],
      14, 1e-9);
  const Asked four("circle-touches", {{"touches", "10,0 0,10 -10,0 0,-10.2"}});
  EXPECT_GT(four["off"], 0.01);
  EXPECT_NE(Asked("circle-touches", {{"touches", "0,0 5,5 10,10"}}).answer.message.find("one line"),
            std::string::npos);
  EXPECT_NE(Asked("circle-touches", {{"touches", "0,0 5 10,10"}}).answer.message.find("is no place"),
            std::string::npos);
}

// 3 + 9.195 + 3.5 = 15.695 mm, 12.695 of it from the edge is 0.4998 in; mixed units against exact twentieths
// of a thousandth of a millimetre, as whole numbers.
TEST(AtTheMachine, MovesAddUp) {
  const Asked a("moves", {{"moves", "3 + 9.195 + 3.5"}});
  EXPECT_NEAR(a["total"], 15.695, 1e-12);
  EXPECT_NEAR(a["at_2"], 12.195, 1e-12);
  EXPECT_NEAR((a["total"] - 3) / 25.4, 0.4998, 5e-5);
  std::mt19937 random(11);
  for (int round = 0; round < 200; ++round) {
    std::string text;
    long long exact = 0; // of 1/640000 mm: 1/64 in is 254000 of them, 0.001 mm 640
    for (int k = 0; k < 8; ++k) {
      const bool minus = k > 0 && random() % 3 == 0;
      const long long n = 1 + random() % 500;
      const bool inch = random() % 2 == 0;
      text += (k == 0  ? ""
               : minus ? " - "
                       : " + ") +
              (inch ? std::to_string(n) + "/64 in"
                    : std::to_string(n / 1000) + "." + std::to_string(1000 + n % 1000).substr(1) + " mm");
      exact += (minus ? -1 : 1) * (inch ? n * 254000 : n * 640);
    }
    EXPECT_NEAR(Asked("moves", {{"moves", text}})["total"], static_cast<double>(exact) / 640000, 1e-9)
        << text;
  }
}

TEST(AtTheMachine, RowsAndCuttersBesideALine) {
  // Symmetrical at ±0.350 in: two holes 0.700 apart.
  const Asked row("hole-row", {{"holes", "2"}, {"pitch", "0.700 in"}, {"middle", "0"}});
  EXPECT_NEAR(row["x_1"], -0.350 * 25.4, 1e-9);
  EXPECT_NEAR(row["x_2"], 0.350 * 25.4, 1e-9);
  EXPECT_NEAR(Asked("hole-row", {{"holes", "5"}, {"over", "40"}, {"first", "3"}})["x_5"], 43, 1e-12);
  EXPECT_FALSE(Asked("hole-row", {{"holes", "5"}}).answer.ok);
  // (7 - 6) / 2 = 0.5; (16 - 12.7) / 2 = 1.65; of a boss 0.25 + 0.25 = 0.5.
  EXPECT_NEAR(Asked("cutter-offset", {{"width", "7"}, {"cutter", "6"}})["offset"], 0.5, 1e-12);
  EXPECT_NEAR(Asked("cutter-offset", {{"width", "16"}, {"cutter", "12.7"}})["offset"], 1.65, 1e-12);
  EXPECT_NEAR(Asked("cutter-offset", {{"width", "0.5 in"}, {"cutter", "0.5 in"}, {"of", "boss"}})["offset"],
              0.5 * 25.4, 1e-12);
  EXPECT_FALSE(Asked("cutter-offset", {{"width", "5"}, {"cutter", "6"}}).answer.ok);
  // 0.005 in drills 0.007.
  EXPECT_NEAR(Asked("micro-drill", {{"drill", "0.005 in"}})["over"], 0.002 * 25.4, 0.002);
  EXPECT_NEAR(Asked("micro-drill", {{"drill", "0.5"}, {"top", "3000"}})["rpm"], 3000, 1e-9);
}

TEST(AnglesAndTapers, ByBallsPinsAndBlocks) {
  // A cone of 30° built up and measured: balls of 10 and 20 in it.
  const double half = 15 * degree, mouth = 30;
  const auto top = [&](double ball) { // centre where its radius is r / cos a: below the face by (mouth/2 −
                                      // r/cos a) / tan a
    const double r = ball / 2;
    return (mouth / 2 - r / std::cos(half)) / std::tan(half) - r;
  };
  const Asked cone("two-balls", {{"small", "10"},
                                 {"large", "20"},
                                 {"height_small", fmt::format("{:.9f}", top(10))},
                                 {"height_large", fmt::format("{:.9f}", top(20))}});
  EXPECT_NEAR(cone["included"], 30 * degree, 1e-6);
  EXPECT_NEAR(cone["mouth"], 30, 1e-5);
  EXPECT_FALSE(
      Asked("two-balls", {{"small", "10"}, {"large", "20"}, {"height_small", "1"}, {"height_large", "9"}})
          .answer.ok);
  // Dovetail of 60°: narrow + d (1 + cot 30°) = narrow + 2.732 d (Machinery's Handbook; from memory).
  const Asked male("over-pins-dovetail", {{"width", "40"}, {"depth", "8"}, {"angle", "60"}, {"pin", "6"}});
  EXPECT_NEAR(male["over"], 40 - 16 / std::tan(60 * degree) + 6 * 2.7320508, 1e-6);
  const Asked female("over-pins-dovetail",
                     {{"width", "40"}, {"depth", "8"}, {"angle", "60"}, {"pin", "6"}, {"of", "female"}});
  EXPECT_NEAR(female["between"], 40 - 6 * 2.7320508, 1e-6);
  // 1 in 20 on the diameter over 200 between centres: 5 mm, less the cosine.
  EXPECT_NEAR(Asked("tailstock", {{"between", "200"}, {"angle", "1 in 20"}})["over"], 5, 0.002);
  // Twelve thou for each of a 1 in 12 key.
  EXPECT_NEAR(Asked("draw", {{"wider", "0.001 in"}, {"one_in", "12"}})["draw"], 0.012 * 25.4, 1e-12);
  const Asked stack("gauge-stack",
                    {{"height", "41.125"}, {"blocks", "1.005 1.01 1.02 1.12 1.1 1.5 2 3 5 10 20 30 39"}});
  double sum = 0;
  for (std::size_t k = 0; k + 1 < stack.keys.size(); ++k) sum += stack.answer.lines[k].value;
  EXPECT_NEAR(sum, 41.125, 1e-9);
  EXPECT_EQ(stack["wrung"], 2); // 39 + 1.12 + 1.005
  EXPECT_FALSE(Asked("gauge-stack", {{"height", "0.3"}, {"blocks", "1 2 3"}}).answer.ok);
}
