#include "quantity/length.h"

#include "quantity/drills.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;

namespace {

double mm_of(const char* text, std::optional<Unit> unit = std::nullopt) {
  const auto length = parse_length(text, {.bare_unit = unit});
  EXPECT_TRUE(length.ok()) << text << ": " << length.message;
  return length.mm;
}

double inches_of(const char* text) {
  return mm_of(text) / 25.4;
}

} // namespace

TEST(Length, DecimalsAndUnits) {
  EXPECT_DOUBLE_EQ(mm_of("12.5 mm"), 12.5);
  EXPECT_DOUBLE_EQ(mm_of("1.25cm"), 12.5);
  EXPECT_DOUBLE_EQ(mm_of(".4375 in"), 0.4375 * 25.4);
  EXPECT_DOUBLE_EQ(mm_of("500 um"), 0.5);
  EXPECT_DOUBLE_EQ(mm_of("500 \u00B5m"), 0.5);
  EXPECT_DOUBLE_EQ(mm_of("500 \u03BCm"), 0.5);
  EXPECT_DOUBLE_EQ(mm_of("12 thou"), 0.3048);
  EXPECT_DOUBLE_EQ(mm_of("1\""), 25.4);
  EXPECT_DOUBLE_EQ(mm_of("1 inch"), 25.4);
}

TEST(Length, BareNumberTakesTheUnitOfTheDial) {
  EXPECT_DOUBLE_EQ(mm_of("2", Unit::mm), 2.0);
  EXPECT_DOUBLE_EQ(mm_of("2", Unit::inch), 50.8);
  EXPECT_DOUBLE_EQ(mm_of("13/16", Unit::inch), 0.8125 * 25.4);
}

// Common practice: fractions of the inch as read off a rule and turned to decimals in the workshop.
TEST(Length, FractionsAndMixedNumbers) {
  EXPECT_DOUBLE_EQ(inches_of("2 7/16 in"), 2.4375);
  EXPECT_DOUBLE_EQ(inches_of("23/32 in"), 0.71875);
  EXPECT_NEAR(mm_of("21/64 in"), 8.334, 5e-4);
  EXPECT_NEAR(mm_of("0.362 in"), 9.195, 5e-4);
  EXPECT_DOUBLE_EQ(inches_of("1 3/8\""), 1.375);
  EXPECT_DOUBLE_EQ(inches_of("1-3/8 in"), 1.375);
  EXPECT_DOUBLE_EQ(inches_of("1\u00BD in"), 1.5);
  EXPECT_DOUBLE_EQ(inches_of("\u215C in"), 0.375);
  EXPECT_DOUBLE_EQ(mm_of("1/2 mm"), 0.5);
}

TEST(Length, EverySixtyFourth) {
  for (int n = 1; n < 64; ++n) EXPECT_DOUBLE_EQ(inches_of((std::to_string(n) + "/64 in").c_str()), n / 64.0);
}

// Common practice: adding fractions to millimetres, 3 + 9.195 + 3.5 = 15.695, and 1 in less 12 thou.
TEST(Length, SumsInMixedUnits) {
  EXPECT_NEAR(mm_of("3 mm + 0.362 in + 3.5 mm"), 15.695, 5e-4);
  EXPECT_DOUBLE_EQ(mm_of("3 mm + 9/16 in + 3.5 mm"), 3 + 0.5625 * 25.4 + 3.5);
  EXPECT_DOUBLE_EQ(inches_of("1 in - 12 thou"), 0.988);
  EXPECT_DOUBLE_EQ(inches_of("1 in \u2212 12 thou"), 0.988);
  EXPECT_DOUBLE_EQ(mm_of("-0.5 mm"), -0.5);
  EXPECT_DOUBLE_EQ(inches_of("3/32 in - 3/64 in"), 0.046875);
  EXPECT_DOUBLE_EQ(inches_of("1 in - 3/8 in"),
                   0.625); // blanks on both sides: a difference, not a mixed number
}

TEST(Length, SaysWhatItUnderstood) {
  const auto length = parse_length("1-3/8\" - 12thou + F", {});
  ASSERT_TRUE(length.ok());
  EXPECT_EQ(length.understood, "1 3/8 in \u2212 12 thou + letter F");
  ASSERT_EQ(length.terms.size(), 3U);
  EXPECT_DOUBLE_EQ(length.terms[1].mm, -0.3048);
}

// ASME B94.11M, number and letter sizes, written from memory; millimetre columns from handbook tables, from
// memory.
TEST(Length, NumberAndLetterDrills) {
  const std::pair<const char*, double> inch[] = {
      {"#1", .2280},  {"#7", .2010},  {"#21", .1590}, {"#29", .1360}, {"#30", .1285},
      {"#36", .1065}, {"#43", .0890}, {"#50", .0700}, {"#60", .0400}, {"#61", .0390},
      {"#69", .0292}, {"#80", .0135}, {"A", .234},    {"E", .250},    {"F", .257},
      {"I", .272},    {"Q", .332},    {"R", .339},    {"U", .368},    {"Z", .413},
  };
  for (const auto& [name, value] : inch) EXPECT_NEAR(inches_of(name), value, 1e-12) << name;
  const std::pair<const char*, double> metric[] = {
      {"R", 8.611}, {"#1", 5.791}, {"#43", 2.261}, {"#80", 0.343}, {"Z", 10.490}};
  for (const auto& [name, value] : metric) EXPECT_NEAR(mm_of(name), value, 5e-4) << name;
  for (const char* spelling : {"#30", "# 30", "no 30", "No. 30", "number 30"})
    EXPECT_DOUBLE_EQ(inches_of(spelling), .1285) << spelling;
  for (const char* spelling : {"F", "f", "letter F", "Letter f"})
    EXPECT_DOUBLE_EQ(inches_of(spelling), .257) << spelling;
}

TEST(Length, DrillsRunInOrderWithoutGaps) {
  double before = 1e9;
  for (int n = 1; n <= 80; ++n) {
    const auto d = drill_diameter(std::to_string(n));
    ASSERT_TRUE(d) << n;
    EXPECT_LT(*d, before) << n;
    before = *d;
  }
  before = *drill_diameter("1");
  for (char c = 'A'; c <= 'Z'; ++c) {
    const auto d = drill_diameter(std::string(1, c));
    ASSERT_TRUE(d) << c;
    EXPECT_GT(*d, before) << c;
    before = *d;
  }
  EXPECT_FALSE(drill_diameter("98"));
  EXPECT_FALSE(drill_diameter(""));
}

struct Refused {
  const char* text;
  std::size_t column;
  const char* message;
};

TEST(Length, RefusesWithPlaceAndReason) {
  const Refused refusals[] = {
      {"", 1, "nothing was typed; write a length such as 12.5 mm or 1 3/8 in"},
      {"   ", 4, "nothing was typed; write a length such as 12.5 mm or 1 3/8 in"},
      {"3", 2, "3 has no unit; write mm or in after it"},
      {"3 furlongs", 3,
       "\"furlongs\" is not a unit; write mm, cm, m, \u00B5m, in, \", ft, yd, thou or tenths"},
      {"1/0 in", 3, "a fraction cannot have 0 below the stroke"},
      {"1/x in", 3, "a fraction needs a whole number below the stroke, as in 7/32"},
      {"12,5 mm", 3, "a comma is not read as a decimal mark here; write a point"},
      {"1.2.3 mm", 4, "a number has one decimal mark only"},
      {"#98", 2, "there is no number drill \"98\"; they run from #1 to #97"},
      {"abc", 1, "\"abc\" is not a length; write a number, a fraction, or a drill such as #30 or F"},
      {"3 mm +", 7, "the sum ends with a sign; a length is missing after it"},
      {"3 mm 4 mm", 6, "\"4\" was not expected here; write + or \u2212 between two lengths"},
      {"1e400 mm", 2, "\"e400\" is not a unit; write mm, cm, m, \u00B5m, in, \", ft, yd, thou or tenths"},
      {"99999999 mm", 12, "the length is over 10 km"},
      {"nan mm", 1, "\"nan\" is not a length; write a number, a fraction, or a drill such as #30 or F"},
  };
  for (const auto& r : refusals) {
    const auto length = parse_length(r.text, {});
    EXPECT_FALSE(length.ok()) << r.text;
    EXPECT_EQ(length.message, r.message) << r.text;
    EXPECT_EQ(length.column, r.column) << r.text;
  }
}

TEST(Length, RefusesBytesThatAreNotUtf8AndEndlessText) {
  EXPECT_EQ(parse_length("3 \xFFmm", {}).status, LengthStatus::not_utf8);
  EXPECT_EQ(parse_length(std::string(401, '1'), {}).status, LengthStatus::too_large);
}

TEST(Length, DecimalCommaWhereThePersonWritesOne) {
  const LengthOptions comma{.bare_unit = Unit::mm, .decimal_comma = true};
  EXPECT_DOUBLE_EQ(parse_length("12,5", comma).mm, 12.5);
  EXPECT_DOUBLE_EQ(parse_length("12.5", comma).mm, 12.5);
  EXPECT_DOUBLE_EQ(parse_length(",5 mm", comma).mm, 0.5);
  EXPECT_FALSE(parse_length("1,234,5", comma).ok());
}

TEST(Length, NeverCrashesOnRandomText) {
  std::uint64_t state = 1;
  const std::string alphabet = "0123456789 /.-+#inmFthou\",\u00BD\u2212xZ";
  for (int n = 0; n < 20000; ++n) {
    std::string text;
    for (int k = 0; k < 12; ++k) {
      state = state * 6364136223846793005ULL + 1442695040888963407ULL;
      text += alphabet[(state >> 33) % alphabet.size()];
    }
    const auto length = parse_length(text, {.bare_unit = Unit::mm});
    if (length.ok()) {
      EXPECT_LE(std::abs(length.mm), 1e8) << text;
    } else {
      EXPECT_GE(length.column, 1U) << text;
    }
  }
}

// Nobody writes thirteen sixteenths of a millimetre: a vulgar fraction is inches, and that it was taken so is
// told.
TEST(Length, AFractionWithoutAUnitIsInchesOnAnyDial) {
  for (const auto unit : {Unit::mm, Unit::inch}) {
    const auto r = parse_length("13/16", {.bare_unit = unit});
    ASSERT_TRUE(r.ok()) << r.message;
    EXPECT_DOUBLE_EQ(r.mm, 13.0 / 16 * 25.4);
    EXPECT_EQ(r.fraction_as_inches, unit == Unit::mm);
    EXPECT_DOUBLE_EQ(parse_length("1 3/8", {.bare_unit = unit}).mm, 1.375 * 25.4);
  }
  const auto sum = parse_length("1/2 + 3", {.bare_unit = Unit::mm});
  EXPECT_DOUBLE_EQ(sum.mm, 12.7 + 3);
  EXPECT_TRUE(sum.fraction_as_inches);
  for (const char* plain : {"1/2 mm", "0.5", "1/2 in", "12.5"})
    EXPECT_FALSE(parse_length(plain, {.bare_unit = Unit::mm}).fraction_as_inches) << plain;
}

TEST(Length, FeetMetresMilsAndTenths) {
  EXPECT_DOUBLE_EQ(mm_of("1 ft"), 304.8);
  EXPECT_DOUBLE_EQ(mm_of("1.5 m"), 1500);
  EXPECT_DOUBLE_EQ(mm_of("12 mil"), 12 * 0.0254);
  // Common practice: "three tenths" is three tenths of a thousandth of an inch.
  EXPECT_NEAR(mm_of("3 tenths"), 0.0003 * 25.4, 1e-15);
  EXPECT_NEAR(inches_of("1 ft + 1 in"), 13, 1e-12);
  EXPECT_NEAR(mm_of("1 in - 5 tenths"), 25.4 - 0.0127, 1e-12);
}

// BS 3737 (SWG): 0 is 0.324 in, 10 is 0.128 in, 20 is 0.036 in, 30 is 0.0124 in, 40 is 0.0048 in; from
// memory.
TEST(Length, StandardWireGauge) {
  const std::pair<const char*, double> gauges[] = {{"0 swg", 0.324},
                                                   {"10 swg", 0.128},
                                                   {"16 swg", 0.064},
                                                   {"swg 20", 0.036},
                                                   {"18 SWG", 0.048},
                                                   {"30 swg", 0.0124},
                                                   {"40 swg", 0.0048},
                                                   {"22 swg", 0.028},
                                                   // Noughts count: 8.839 and 11.684 mm.
                                                   {"00 swg", 0.348},
                                                   {"0000 awg", 0.46},
                                                   {"000 awg", 0.005 * std::pow(92.0, 38 / 39.0)}};
  for (const auto& [text, inches] : gauges) EXPECT_NEAR(inches_of(text), inches, 1e-9) << text;
}

// ASTM B258: d = 0.005 · 92^((36 − n)/39) in; the table prints it to four figures or so.
TEST(Length, AmericanWireGaugeFollowsItsLaw) {
  for (int n = 0; n <= 40; ++n) {
    const auto d = wire_gauge("awg", std::to_string(n));
    ASSERT_TRUE(d) << n;
    EXPECT_NEAR(*d / 25.4 / (0.005 * std::pow(92, (36.0 - n) / 39)), 1, 0.01) << n;
  }
  EXPECT_NEAR(inches_of("18 awg"), 0.0403, 5e-6);
  EXPECT_FALSE(wire_gauge("awg", "41"));
  EXPECT_FALSE(wire_gauge("swg", "51"));
  EXPECT_FALSE(wire_gauge("stubs", "10"));
}

// ANSI B94.11M, number drills; from memory: #1 0.228, #30 0.1285, #60 0.040, #80 0.0135, #97 0.0059 in.
TEST(Length, NumberDrillsGoToNinetySeven) {
  const std::pair<const char*, double> drills[] = {
      {"1", 0.228},   {"7", 0.201},   {"30", 0.1285}, {"43", 0.089}, {"60", 0.040},
      {"80", 0.0135}, {"97", 0.0059}, {"A", 0.234},   {"F", 0.257},  {"Z", 0.413}};
  for (const auto& [name, inches] : drills)
    EXPECT_NEAR(drill_diameter(name).value_or(0) / 25.4, inches, 1e-9) << name;
  EXPECT_FALSE(drill_diameter("98"));
  EXPECT_FALSE(drill_diameter("0"));
}

// Common practice: jobber sets go by 0.05 mm to 3 mm and by tenths to 10; sixty-fourths with numbers and
// letters in inches.
TEST(Length, ADrawerHoldsWhatADrawerHolds) {
  const auto has = [](Unit unit, double size) {
    const auto& drawer = drill_drawer(unit);
    return std::any_of(drawer.begin(), drawer.end(),
                       [&](const Drill& d) { return std::abs(d.size - size) < 1e-9; });
  };
  for (const double size : {1.25, 2.05, 2.65, 2.95, 3.3, 6.8, 8.5, 10.2, 12.0})
    EXPECT_TRUE(has(Unit::mm, size)) << size;
  for (const double size : {3.05, 6.85}) EXPECT_FALSE(has(Unit::mm, size)) << size;
  EXPECT_TRUE(has(Unit::inch, 37.0 / 64 * 25.4));
  EXPECT_TRUE(has(Unit::inch, 0.201 * 25.4));
  for (const auto unit : {Unit::mm, Unit::inch}) {
    const auto& drawer = drill_drawer(unit);
    for (std::size_t k = 1; k < drawer.size(); ++k) EXPECT_LT(drawer[k - 1].size, drawer[k].size + 1e-12);
  }
}

// Spellings that were refused, or did not read back.
TEST(Length, SpellingsOfTheTrade) {
  const std::pair<const char*, double> all[] = {
      {"1' 6\"", 18},          {"1'-6\"", 18},  {"1' 6 1/2\"", 18.5},  {"2'", 24},
      {"1\u2032 6\u2033", 18}, {"2 yd", 72},    {"1 yard + 1 ft", 48}, {"3 tenths of a thou", 0.0003},
      {"3 tenths", 0.0003},    {"1' 6 in", 18},
  };
  for (const auto& [text, inches] : all) {
    const auto read = parse_length(text, {});
    ASSERT_TRUE(read.ok()) << text << ": " << read.message;
    EXPECT_NEAR(read.mm / 25.4, inches, 1e-9) << text;
  }
  EXPECT_NE(parse_length("1' 6", {}).message.find("after feet come inches"), std::string::npos);
  EXPECT_FALSE(parse_length("1' 6 mm", {}).ok());
}
