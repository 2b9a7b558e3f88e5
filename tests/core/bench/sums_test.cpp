#include "bench/sum_values.h"
#include "bench/sums.h"
#include "quantity/text.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <sstream>
#include <stdexcept>

using namespace datrin;
using namespace datrin::bench;

namespace {

constexpr double an_inch = 25.4, one_thou = 0.0254;

SumValue is(double v) {
  return {true, v, {}};
}
SumValue says(const char* text) {
  return {true, 0, text};
}
const SumValue none{};

/// Line `k` of an answer.
double line(const char* id, const std::vector<SumValue>& values, std::size_t k = 0, Unit unit = Unit::mm) {
  const auto* sum = sum_called(id);
  EXPECT_NE(sum, nullptr) << id;
  if (sum == nullptr) return NAN;
  const auto a = answer(*sum, values, unit);
  EXPECT_TRUE(a.ok) << id << ": " << a.message;
  return k < a.lines.size() ? a.lines[k].value : NAN;
}
std::string words(const char* id, const std::vector<SumValue>& values, Unit unit = Unit::mm) {
  const auto a = answer(*sum_called(id), values, unit);
  return a.ok ? a.words : a.message;
}

} // namespace

// All check values in this file: common practice.
TEST(Sums, StockAndBlanks) {
  EXPECT_NEAR(line("square-from-round", {is(25), none}), 17.68, 0.005);
  EXPECT_NEAR(line("square-from-round", {is(25), none}, 1), 21.65, 0.005); // 0.866 D across flats
  EXPECT_NEAR(line("round-from-square", {is(17.68)}), 25, 0.005);
  EXPECT_NEAR(line("facets", {is(12), none}), 3.53, 0.005);
  EXPECT_NEAR(line("facets", {is(16), none}), 1.96, 0.005);
  EXPECT_NEAR(line("facets", {is(24), none}), 0.86, 0.005);
  // A blank 0.1 in over the finished diameter leaves 0.05 in a side, which bounds the centre's error.
  EXPECT_NEAR(line("sawn-blank", {is(1.1 * an_inch), is(1.0 * an_inch), none, none}, 1), 0.05 * an_inch,
              1e-9);
  EXPECT_NEAR(line("bushing", {is(0.5 * an_inch), is(0.050 * an_inch), is(0.08 * an_inch)}),
              (0.6 + 2 * 0.08) * an_inch, 1e-9);
  EXPECT_EQ(words("nest", {is(3.0 / 16 * an_inch), is(3), is(0.05 * an_inch), is(1 * an_inch)}),
            "They come out of it.");
  EXPECT_NEAR(line("chain-drill", {is(3), none, is(7), none}, 1), 7 * 3 + 6 * 0.005 * an_inch, 1e-9);
  EXPECT_EQ(line("chain-drill", {is(3), none, none, is(20)}), 7);
  EXPECT_NEAR(line("edge-margin", {is(2.75 * an_inch), is(2 * an_inch), is(0.375 * an_inch)}),
              0.375 * an_inch, 1e-9);
  EXPECT_NEAR(line("edge-margin", {is(2.75 * an_inch), is(2 * an_inch), is(0.375 * an_inch)}, 1), 1, 1e-9);
  EXPECT_NEAR(line("bar-length", {is(5.25 * an_inch), is(0), none, none, is(5.5 * an_inch)}, 1),
              0.25 * an_inch, 1e-9);
  EXPECT_EQ(line("protrusion", {is(20), is(12), none}), 8);
}

TEST(Sums, CastingsAndDrawings) {
  EXPECT_NEAR(line("draft", {is(40), is(radians(2))}), 1.397, 5e-4);
  EXPECT_NEAR(line("metal-a-side", {is(1.000 * an_inch), is(1.375 * an_inch), is(1.250 * an_inch)}),
              0.1875 * an_inch, 1e-9);
  EXPECT_NEAR(line("metal-a-side", {is(1.000 * an_inch), is(1.375 * an_inch), is(1.250 * an_inch)}, 2),
              0.0625 * an_inch, 1e-9);
  EXPECT_NEAR(line("bore-map", {says("2.4375 2.436 2.435 in"), is(2.435 * an_inch)}), 2.435 * an_inch, 1e-9);
  EXPECT_NEAR(line("bore-map", {says("2.4375 2.436 2.435 in"), none}, 1), 0.0025 * an_inch, 1e-9);
  EXPECT_EQ(words("bore-map", {says("2.4375 2.436 2.4345 in"), is(2.435 * an_inch)}),
            "The plug stops at reading 3.");
  EXPECT_NEAR(line("split", {is(117 * one_thou), is(15 * one_thou)}), 102 * one_thou, 1e-9);
  EXPECT_NEAR(line("split", {is(117 * one_thou), is(20 * one_thou)}), 97 * one_thou, 1e-9);
  EXPECT_NEAR(line("over-pin", {is(23), is(8.334), none, none, none}), 27.167, 5e-4);
  EXPECT_NEAR(line("between-pins", {is(30), is(6), is(8)}, 1), 23, 1e-9);
  EXPECT_NEAR(line("web", {is(0.250 * an_inch / 2), is(0.078125 * an_inch * 2)}),
              (0.125 - 0.078125) * an_inch, 1e-9);
  EXPECT_NEAR(line("angle-legs", {is(radians(30)), is(7)}), 4.041, 5e-4);
  EXPECT_NEAR(line("angle-legs", {is(radians(30)), is(7)}, 2), 12.124, 5e-4);
  EXPECT_NEAR(line("full-round", {is(3.0 / 8 * an_inch)}), 3.0 / 16 * an_inch, 1e-9);
  EXPECT_GT(line("ball", {is(20), is(16), is(radians(60))}), 0);
}

TEST(Sums, SettingUp) {
  EXPECT_NEAR(line("chuck-offset", {is(2 * one_thou), is(0)}, 1), 1 * one_thou, 1e-9);
  EXPECT_NEAR(line("chuck-offset", {is(0.02), is(0)}, 1), 0.01, 1e-9);
  EXPECT_NEAR(line("two-stations", {says("0.02"), says("0.06"), is(100)}, 2), std::atan(0.04 / 200), 1e-12);
  EXPECT_NEAR(line("pin-clearance", {is(8.19), is(8.20)}), 0.01, 1e-9);
  EXPECT_NEAR(line("pin-clearance", {is(8.19), is(8.33)}), 0.14, 1e-9);
  EXPECT_EQ(words("tram", {is(0), is(0.25 * one_thou), is(100), none}),
            "Enough: what is left is the jaw itself.");
  EXPECT_EQ(words("tram", {is(0), is(1 * one_thou), is(100), none}),
            "Go on: it is more than the jaw's own form.");
  EXPECT_NEAR(degrees(line("taper-strip", {is(1 * an_inch), is(12 * an_inch), none, none})), 4.764, 5e-4);
  EXPECT_EQ(words("angle-blocks", {is(radians(13))}), "10 + 3 = 13\u00B0");
  EXPECT_NEAR(line("sine-bar", {is(100), is(radians(30))}), 50, 1e-9);
  EXPECT_EQ(words("equal-supports", {says("1.0000 in + 1.0004 in + 1.0001 in"), none}), "Equal enough.");
  EXPECT_EQ(words("equal-supports", {says("1.0000 in + 1.0006 in"), none}),
            "Not equal: shim the low ones, or grind the high ones.");
  EXPECT_NEAR(line("height-preset", {is(2.000 * an_inch), is(1.5 * an_inch)}), 0.5 * an_inch, 1e-9);
  EXPECT_NEAR(line("eccentric", {is(0.050 * an_inch)}), 0.100 * an_inch, 1e-9);
  EXPECT_NEAR(line("burr", {is(20 * one_thou)}, 1), 10 * one_thou, 1e-9);
}

TEST(Sums, Cutting) {
  EXPECT_NEAR(
      line("announced", {says("0.0975 in + 0.150 in + 0.150 in + 0.040 in"), is(0.4375 * an_inch)}, 1), 0,
      1e-9);
  EXPECT_EQ(words("announced", {says("0.010 + 0.020 + 0.027"), is(47 * one_thou)}, Unit::inch),
            "The passes announced add up to 0.0570\u202Fin, 0.0100\u202Fin more than there is: the last "
            "would go past size.");
  EXPECT_NEAR(line("remainder", {is(2.4875 * an_inch), is(2.435 * an_inch)}), 0.0525 * an_inch, 1e-9);
  EXPECT_NEAR(line("creep", {is(10)}), 10 - 5 * one_thou, 1e-9); // a hole, unless it is said
  EXPECT_NEAR(line("creep", {is(10)}, 1), 10 - 4 * one_thou, 1e-9);
  EXPECT_NEAR(line("taper-length", {is(1.25 * an_inch), is(0.8125 * an_inch), is(1 * an_inch),
                                    is(12 * an_inch), is(0.125 * an_inch)}),
              5.25 * an_inch, 1e-9);
  EXPECT_NEAR(
      line("taper-length",
           {is(1.25 * an_inch), is(0.8125 * an_inch), is(1 * an_inch), is(12 * an_inch), is(0.125 * an_inch)},
           1),
      0.0104 * an_inch, 1e-3);
  EXPECT_NEAR(line("speed", {is(3 * an_inch), none, none, is(210)}, 1), 165, 0.5);
  EXPECT_NEAR(line("speed", {is(3 * an_inch), none, none, is(660)}, 1), 518, 0.5);
  EXPECT_NEAR(line("speed", {is(0.005 * an_inch), none, none, is(1000)}, 1), 1.31, 0.005);
  EXPECT_NEAR(line("drill-point", {is(0.257 * an_inch), is(radians(118))}), 0.077 * an_inch,
              0.0005 * an_inch);
  EXPECT_NEAR(line("drill-point", {is(0.257 * an_inch), is(radians(135))}), 0.053 * an_inch,
              0.0005 * an_inch);
  EXPECT_NEAR(line("tap-drill", {says("5/16-18"), is(0.257 * an_inch), none}), 77, 0.5);
  EXPECT_NEAR(line("tap-drill", {says("4BA"), is(2.8), none}), 101, 0.5);
  EXPECT_NEAR(line("tap-drill", {says("5BA"), is(2.65), none}), 78, 0.5);
  EXPECT_NEAR(line("tap-drill", {says("3/8-16"), is(5.0 / 16 * an_inch), none}), 77, 0.5);
  EXPECT_NEAR(line("tap-drill", {says("M10"), is(0.339 * an_inch), none}), 71, 0.5);
  // 5/64 under a 3/32 reamer leaves 1/64.
  EXPECT_LE(line("ream-ladder", {is(3.0 / 32 * an_inch), none}, 1, Unit::inch), 1.0 / 64 * an_inch + 1e-9);
  EXPECT_NEAR(line("dial", {is(1)}, 1), 2, 1e-12);
}

TEST(Sums, EveryOneSaysWhatIsMissingOrWrong) {
  std::set<std::string> ids;
  for (const auto& sum : sums()) {
    EXPECT_TRUE(ids.insert(sum.id).second) << sum.id;
    EXPECT_FALSE(sum.words.empty()) << sum.id;
    const auto empty = answer(sum, {});
    EXPECT_FALSE(empty.ok) << sum.id;
    if (!sum.fields[0].may_be_empty) {
      EXPECT_EQ(empty.message, sum.fields[0].name + " is missing");
    }
    std::vector<SumValue> nan;
    for (std::size_t k = 0; k < sum.fields.size(); ++k) nan.push_back(is(NAN));
    EXPECT_EQ(answer(sum, nan).message, sum.fields[0].name + ": not a number");
    // Zero and a negative number: refused, or answered with finite figures.
    for (const double bad : {0.0, -3.0}) {
      std::vector<SumValue> values;
      for (std::size_t k = 0; k < sum.fields.size(); ++k) values.push_back({true, bad, "x"});
      const auto a = answer(sum, values);
      for (const auto& l : a.lines) EXPECT_TRUE(std::isfinite(l.value)) << sum.id << " " << l.label;
      EXPECT_TRUE(a.ok || !a.message.empty()) << sum.id;
    }
  }
  EXPECT_EQ(words("tap-drill", {says("M7.1")}),
            "Thread: \"M7.1\" is not in the table of threads (did you mean \"M1.1\"?)");
  EXPECT_EQ(words("facets", {is(2.5)}), "Flats: a whole number from 1 to 10000 is needed");
}

// Common practice: on the outside the work stands out where the indicator reads higher and is moved away from
// that jaw; in a bore the wall stands in there, and it is moved towards it.
TEST(Sums, FourJawSaysWhichWayByWhatIsRead) {
  EXPECT_EQ(words("chuck-offset", {is(0.06), is(0.02), none}),
            "Read on the outside: move the work away from the jaw that reads first.");
  EXPECT_EQ(words("chuck-offset", {is(0.02), is(0.06), says("outside")}),
            "Read on the outside: move the work away from the jaw that reads second.");
  EXPECT_EQ(words("chuck-offset", {is(0.06), is(0.02), says("bore")}),
            "Read in the bore: move the work towards the jaw that reads first.");
  EXPECT_EQ(words("chuck-offset", {is(0.02), is(0.02), says("bore")}), "It runs true to the indicator.");
  EXPECT_NE(words("chuck-offset", {is(0.06), is(0.02), says("face")}).find("write outside or bore"),
            std::string::npos);
}

// Common practice: blocks of 30, 25, 20, 15, 10, 5, 4, 3, 2, 1, 1/2 and 1/4 degree, each there once, stacked
// up to seven high.
TEST(Sums, AngleBlocksStackToQuarters) {
  for (int quarters = 1; quarters <= 4 * 90; ++quarters) {
    const double wanted = quarters / 4.0;
    const auto text = words("angle-blocks", {is(radians(wanted))});
    const auto equals = text.find(" = ");
    ASSERT_NE(equals, std::string::npos) << wanted << ": " << text;
    double sum = 0;
    int blocks = 0;
    std::set<double> used;
    std::stringstream parts(text.substr(0, equals));
    for (std::string part; std::getline(parts, part, '+'); ++blocks) {
      const double block = number_from(part).value_or(-1);
      EXPECT_TRUE(used.insert(block).second) << text;
      sum += block;
    }
    EXPECT_NEAR(sum, wanted, 1e-9) << text;
    EXPECT_LE(blocks, 7) << text;
  }
  const auto none_such = answer(*sum_called("angle-blocks"), {is(radians(12.3))});
  EXPECT_TRUE(!none_such.ok || none_such.words.find('=') == std::string::npos) << none_such.words;
}

// A sum asks for its values by name; a name that is no field is a mistake in the sum and not in what was
// typed.
TEST(Sums, ValuesAreAskedForByName) {
  const std::vector<SumField> fields{{"Pin"}, {"Hole"}, {"Read on", Quantity::lengths, true}};
  const SumValues v(fields, {is(8.19), is(8.20)});
  EXPECT_EQ(v("Hole"), 8.20);
  EXPECT_FALSE(v.given("Read on"));
  EXPECT_EQ(v.text("Read on"), "");
  EXPECT_THROW(v("Bore"), std::logic_error);
}

// By hand: 22.22 and 0.05 of clearance: a bore climbs to 22.27, a shaft falls to 22.17, by five steps (common
// practice); the sizes used to run down for a hole too, and towards the mate itself.
TEST(Sums, CreepingUpToAFitClimbsForAHoleAndFallsForAShaft) {
  const auto tries = [](const char* of) {
    std::vector<double> sizes;
    const auto a = answer(*sum_called("creep"), {is(22.22), is(0.05), says(of), is(0.02)});
    for (const auto& l : a.lines) sizes.push_back(l.value);
    return sizes;
  };
  const auto hole = tries("hole"), shaft = tries("shaft");
  ASSERT_EQ(hole.size(), 6U);
  EXPECT_NEAR(hole.front(), 22.17, 1e-9);
  EXPECT_NEAR(hole.back(), 22.27, 1e-9);
  EXPECT_TRUE(std::is_sorted(hole.begin(), hole.end()));
  EXPECT_NEAR(shaft.front(), 22.27, 1e-9);
  EXPECT_NEAR(shaft.back(), 22.17, 1e-9);
  EXPECT_TRUE(std::is_sorted(shaft.rbegin(), shaft.rend()));
}

// Morse no. 2: 0.700 in at the large end, 0.59941 in per foot, 2.5625 in deep: 0.572 in at the small end; the
// included angle is 2° 51' 40" (DIN 228 / ASME B5.10, from memory). A pipe thread's cone is 1 in 16: 1° 47'
// 24" a side (ISO 7-1).
TEST(Sums, TapersEveryWayTheyAreGiven) {
  const auto keyed = [](const std::vector<SumValue>& values) {
    std::map<std::string, double> out;
    const auto a = answer(*sum_called("taper"), values);
    EXPECT_TRUE(a.ok) << a.message;
    for (const auto& l : a.lines) out[l.key] = l.value;
    return out;
  };
  auto morse =
      keyed({is(0.700 * an_inch), none, is(2.5625 * an_inch), is(0.59941 * an_inch), none, none, none});
  EXPECT_NEAR(morse["small"] / an_inch, 0.572, 5e-4);
  EXPECT_NEAR(degrees(morse["included"]), 2 + 51 / 60.0 + 40 / 3600.0, 2e-3);
  auto pipe = keyed({none, none, none, none, is(16), none, none});
  EXPECT_EQ(pipe.count("large"), 0U);
  EXPECT_NEAR(degrees(pipe["side"]), 1 + 47 / 60.0 + 24 / 3600.0, 1e-4);
  EXPECT_NEAR(pipe["per_foot"] / an_inch, 0.75, 1e-9);
  // Whatever is taken out of a full answer gives it again.
  const double large = 30, small = 24, along = 60;
  for (int leave = 0; leave < 3; ++leave) {
    std::vector<SumValue> values{is(large), is(small), is(along), none, is(10), none, none};
    values[static_cast<std::size_t>(leave)] = none;
    auto full = keyed(values);
    EXPECT_NEAR(full["large"], large, 1e-9);
    EXPECT_NEAR(full["small"], small, 1e-9);
    EXPECT_NEAR(full["length"], along, 1e-9);
  }
  EXPECT_NE(words("taper", {is(30), is(24), is(60), none, is(12), none, none}).find("do not agree"),
            std::string::npos);
  EXPECT_NE(words("taper", {is(30), none, none, none, none, none, none}).find("Give two ends"),
            std::string::npos);
}

// Six holes on 2 in from 30°: by the sines of 30, 90 and 60 degrees; neighbours stand one radius apart.
TEST(Sums, HolesOnACircle) {
  const auto a = answer(*sum_called("bolt-circle"), {is(50.8), is(6), is(radians(30)), none, none});
  ASSERT_TRUE(a.ok) << a.message;
  ASSERT_EQ(a.lines.size(), 13U);
  EXPECT_NEAR(a.lines[0].value, 25.4 * std::sqrt(3.0) / 2, 1e-9);
  EXPECT_NEAR(a.lines[1].value, 12.7, 1e-9);
  EXPECT_NEAR(a.lines[2].value, 0, 1e-9); // straight up
  EXPECT_NEAR(a.lines[3].value, 25.4, 1e-9);
  EXPECT_NEAR(a.lines[12].value, 25.4, 1e-9);
  EXPECT_EQ(a.lines[12].key, "chord");
}

// 30 m/min at 25 mm: 382 a minute (π D n).
TEST(Sums, SurfaceSpeedEveryWay) {
  const auto a =
      answer(*sum_called("speed"), {is(25), is(30), none, none, says("60 95 150 240 380 600"), none});
  ASSERT_TRUE(a.ok) << a.message;
  EXPECT_EQ(a.lines[0].key, "ft_per_min");
  EXPECT_NEAR(a.lines[0].value, 98.4, 0.05);
  EXPECT_NEAR(a.lines[1].value, 381.97, 0.01);
  EXPECT_EQ(a.lines[2].value, 380);
  EXPECT_FALSE(answer(*sum_called("speed"), {is(25), is(30), is(100), none, none, none}).ok);
  EXPECT_FALSE(answer(*sum_called("speed"), {is(25), is(30), none, none, says("60 fast"), none}).ok);
  EXPECT_FALSE(answer(*sum_called("speed"), {is(25), is(0), none, none, says("60 95"), none}).ok);
}

TEST(Sums, EverySumHasItsWordsAndItsKeysOnce) {
  for (const auto& sum : sums()) {
    EXPECT_FALSE(sum.trade.empty()) << sum.id;
    std::set<std::string> keys;
    for (const auto& field : sum.fields) {
      EXPECT_TRUE(keys.insert(key_of(field)).second) << sum.id << " " << key_of(field);
      EXPECT_EQ(field.choices.empty(), field.quantity != Quantity::choice) << sum.id;
    }
  }
  // Words people use that stand in no title.
  for (const auto& [words, id] : {std::pair{"clock four jaw", "chuck-offset"},
                                  {"PCD", "bolt-circle"},
                                  {"rpm lathe", "speed"},
                                  {"tpf", "taper"},
                                  {"sneak up", "creep"}}) {
    const auto* sum = sum_called(id);
    ASSERT_NE(sum, nullptr);
    EXPECT_TRUE(is_called(*sum, words)) << words;
  }
  EXPECT_FALSE(is_called(*sum_called("speed"), "chutney"));
}

TEST(Sums, ValuesAreReckonedAsInEveryField) {
  const LengthOptions mm{.bare_unit = Unit::mm, .thread_hole = nullptr, .named = {}, .decimal_comma = false};
  EXPECT_NEAR(read_value({"x"}, "3/8 + 2", mm).value.value, 9.525 + 2, 1e-12);
  EXPECT_EQ(read_value({"x"}, "3/8 + 2", mm).understood, "3/8 in + 2 mm");
  EXPECT_NEAR(read_value({"n", Quantity::number}, "360/7", mm).value.value, 360 / 7.0, 1e-12);
  EXPECT_NEAR(read_value({"n", Quantity::number}, "2 x (3 + 4)", mm).value.value, 14, 1e-12);
  EXPECT_FALSE(read_value({"n", Quantity::number}, "3 mm", mm).ok());
  EXPECT_NEAR(read_value({"a", Quantity::angle}, "0.125 in/ft", mm).value.value, std::atan(0.125 / 12),
              1e-12);
  EXPECT_FALSE(read_value({"a", Quantity::angle}, "3 in", mm).ok());
  // 1 in 12 of a cone is its diameter, of a slope one side.
  const auto& fields = sum_called("taper")->fields;
  EXPECT_NEAR(read_value(fields[5], "1 in 12", mm).value.value, 2 * std::atan(1 / 24.0), 1e-12);
  EXPECT_NEAR(read_value(fields[6], "1 in 12", mm).value.value, std::atan(1 / 12.0), 1e-12);
  EXPECT_FALSE(read_value({"x"}, "", mm).value.given);
  // Lists of readings too are typed with a comma where people write one.
  LengthOptions comma = mm;
  comma.decimal_comma = true;
  const SumField list{"r", Quantity::lengths};
  EXPECT_EQ(read_value(list, "0:0,05 22,5:-0,1", comma).value.text, "0:0.05 22.5:-0.1");
  EXPECT_EQ(read_value(list, "0:0,05", mm).value.text, "0:0,05"); // refused by who reads it
}

// Two rows of three on a sheet, the saw between them.
TEST(Sums, ASheetListLaysOutItsPieces) {
  const auto text = [](const char* words) {
    SumValue v;
    v.given = true;
    v.text = words;
    return v;
  };
  for (const char* pieces : {"6 off 98 x 48", "6 x 98 x 48", "98x48, 5 off 98 \u00D7 48 mm"}) {
    EXPECT_EQ(line("sheet-list", {is(298), is(98), text(pieces), is(2), none}, 0), 1) << pieces;
    EXPECT_EQ(line("sheet-list", {is(297), is(98), text(pieces), is(2), none}, 0), 2) << pieces;
  }
  EXPECT_NE(words("sheet-list", {is(298), is(98), text("98"), none, none}).find("write 60 x 40"),
            std::string::npos);
  EXPECT_NE(
      words("sheet-list", {is(298), is(98), text("300 x 20"), none, none}).find("larger than the sheet"),
      std::string::npos);
}

// Four of 60, however "so many" is written; a number that is part of a length counts nothing.
TEST(Sums, ACutListCountsItsPieces) {
  const auto text = [](const char* words) {
    SumValue v;
    v.given = true;
    v.text = words;
    return v;
  };
  for (const char* pieces : {"4 off 60", "4 x 60", "4x60", "4 \u00D7 60", "60, 60, 3 x 60 mm"})
    EXPECT_NEAR(line("cut-list", {text(pieces), is(300), none, none}, 2),
                std::string(pieces).find(',') == 2 ? 10 : 8, 1e-9)
        << pieces;
  EXPECT_NEAR(line("cut-list", {text("1 1/8 in, 2 in"), is(300), none, none}, 2), 4, 1e-9);
  EXPECT_NE(words("cut-list", {text("0 off 60"), is(300), none, none}).find("how many?"), std::string::npos);
}
