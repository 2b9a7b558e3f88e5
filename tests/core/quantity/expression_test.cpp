// The reckoner's grammar. Values by hand, or worked out in step with random expressions.

#include "quantity/expression.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace datrin;

namespace {

constexpr double inch = 25.4;

LengthOptions on(Unit dial) {
  LengthOptions options;
  options.bare_unit = dial;
  options.named = [](std::string_view text) -> std::optional<NamedSize> {
    for (const auto& [name, mm] : {std::pair{"big end bore", 12.0}, {"big end", 20.0}, {"bore", 24.0}})
      if (text.starts_with(name)) return NamedSize{std::string_view(name).size(), mm};
    return std::nullopt;
  };
  return options;
}

struct Case {
  const char* text;
  double mm;
};

void expect_all(const std::vector<Case>& cases, Unit dial) {
  for (const auto& [text, mm] : cases) {
    const auto length = parse_length(text, on(dial));
    EXPECT_TRUE(length.ok()) << text << ": " << length.message;
    EXPECT_NEAR(length.mm, mm, 1e-9 * std::max(1.0, std::abs(mm)))
        << text << " understood " << length.understood;
  }
}

} // namespace

TEST(Expression, SumsProductsBracketsAndNames) {
  expect_all(
      {
          {"2 * 3 mm", 6},
          {"3 mm x 2", 6},
          {"2 \u00D7 3", 6},
          {"3x4", 12},
          {"(2 + 3) * 4 mm", 20},
          {"(2 + 3) mm", 5},
          {"2 + 3 * 4", 14},
          {"10 - 2 - 3", 5},
          {"10 - (2 - 3)", 11},
          {"-(2 + 3) + 7", 2},
          {"100 / 8.0 / 2", 6.25},
          {"100/25.4", 100 / 25.4}, // no fraction: was refused at ".4"
          {"24 mm/2/3.0", 4},
          {"3/4/2", 3 / 8.0 * inch},
          {"1 in \u00F7 3/8", inch * 8 / 3},
          {"24 mm / 1 1/2", 16},
          {"(-2)^2", 4},
          {"10 - (-3)", 13},
          {"(1 + sin(30)) x 20 mm", 30},
          {"100 \u00F7 8", 12.5},
          {"bore/2 + 3 mm", 15},
          {"bore / 2 + 3", 15},
          {"big end bore + big end", 32},
          {"(bore - big end bore) / 2", 6},
          {"3 \u00D7 -2 mm + 10", 4},
          {"1 in / 8", inch / 8},
          {"1/2 \u00D7 3 in", 1.5 * inch},
          {"3/8 x 2", 0.75 * inch},
          {"(1/2 + 1/4) \u00D7 2", 1.5 * inch},
          {"1/2 + 3", inch / 2 + 3},
          {"2 1/2 x 3 in", 7.5 * inch},
          {"F x 2", 2 * 0.257 * inch},
          {"(#30 + 1 thou) / 2", 0.1295 / 2 * inch},
      },
      Unit::mm);
  expect_all({{"2 x 3", 6 * inch}, {"100 / 25.4", 100}, {"1 + 2 mm", inch + 2}}, Unit::inch);
}

// Sines of 30, 45 and 60 degrees; a ball of 8 in a 60 degree notch; the hypotenuse of 3 and 4.
TEST(Expression, PowersRootsAnglesAndRates) {
  expect_all(
      {
          {"sqrt(3^2 + 4^2)", 5},
          {"\u221A(9) mm", 3},
          {"sqrt((3 mm)^2 + (4 mm)^2)", 5},
          {"sqrt(9 mm^2)", 3},
          {"sqrt(1 in\u00B2)", inch},
          {"(27 mm^3)^(1/3)", 3},
          {"cbrt(27 mm\u00B3)", 3},
          {"2^3", 8},
          {"2^3^2", 512},
          {"2^-1 mm", 0.5},
          {"20 x sin 30", 10},
          {"20 x sin(30\u00B0)", 10},
          {"sin(30 deg) x 20 mm", 10},
          {"100 mm x cos(60)", 50},
          {"tan(45) * 7 mm", 7},
          {"8 mm / 2 / sin(60 / 2)", 8},
          {"10 mm x atan(1) / 45", 10},
          {"10 mm x asin(0.5) / 30", 10},
          {"10 mm x acos(0.5) / 60", 10},
          {"pi x 10", pi * 10},
          {"\u03C0 \u00D7 1 in", pi * inch},
          {"0.125 in/ft x 5 in", 0.125 * 5 / 12 * inch},
          {"5 in \u00D7 0.125 in per ft", 0.125 * 5 / 12 * inch},
          {"60 mm / 5 in * 1 in", 12},
          {"abs(-3 ) x 1 mm", 3},
      },
      Unit::mm);
}

TEST(Expression, WhatIsNoLengthIsSaidByWhatItIs) {
  const std::pair<const char*, const char*> cases[] = {
      {"2 in \u00D7 3 in", "that is an area; a length is wanted"},
      {"2 in ^ 3", "that is a volume; a length is wanted"},
      {"2 in / 1 in", "that is a bare number, 2.0000; a length is wanted"},
      {"sin(30)", "that is a bare number, 0.5000; a length is wanted"},
      {"pi", "that is a bare number, 3.1416; a length is wanted"},
      {"3/4 \u00F7 1/8", "that is a bare number, 6.0000; a length is wanted"},
      {"2 in^2 + 3 in", "a length cannot be added to an area"},
      {"3 mm + sin(30)", "sin(30) is a bare number, 0.5000; a length is wanted"},
      {"3 mm / 0", "nothing can be divided by 0"},
      // A length was guessed of each of these.
      {"1 + sin(30)", "that is a bare number, 1.5000; a length is wanted"},
      {"1 - 41 in/20 in", "that is a bare number, \u22121.0500; a length is wanted"},
      {"2/4 - 8\u00B0", "that is a bare number, \u22127.5000; a length is wanted"},
      {"1 in/3/8", "two strokes can be taken two ways; write brackets, as in 1 in/(3/8), or \u00F7"},
      {"bore/2/3", "two strokes can be taken two ways; write brackets, as in 1 in/(3/8), or \u00F7"},
      {"sqrt(-4)", "\u22124 is below 0: it has no root"},
      {"asin(2)", "there is no asin of 2"},
      {"sin(3 mm)", "3 mm is a length; sin is of a bare number"},
      {"(2 + 3", "a bracket is not closed; write )"},
      {"2 + 3)", "there is a bracket too many here"},
      {"3 mm *", "the sum ends with \u00D7; a length is missing after it"},
      {"3 mm ^", "the sum ends with ^; a length is missing after it"},
      {"2^(3 mm)", "an exponent is a bare number"},
      {"9^99 x 9^99 mm", "the number is too large to work with"},
      {"3^2 + (1/2)^2", "3^2 and (1/2)^2 are not of one unit; write mm or in after the numbers"},
  };
  for (const auto& [text, message] : cases) {
    const auto length = parse_length(text, on(Unit::mm));
    EXPECT_FALSE(length.ok()) << text << " = " << length.mm;
    EXPECT_EQ(length.message, message) << text;
    EXPECT_GT(length.column, 0U) << text;
  }
  EXPECT_EQ(parse_length("2 x 3", {}).message, "2 \u00D7 3 has no unit; write mm or in after it");
  EXPECT_TRUE(parse_length("2 x 3 mm", {}).ok());
}

TEST(Expression, SaysWhatItUnderstood) {
  const std::pair<const char*, const char*> cases[] = {
      {"bore/2+3", "bore \u00F7 2 + 3 mm"},
      {"(2+3)*4mm", "(2 + 3) \u00D7 4 mm"},
      {"2 x 3", "(2 \u00D7 3) mm"},
      {"sqrt(3^2+4^2)", "sqrt(3^2 + 4^2) mm"},
      {"10 - (2 - 3) mm", "10 mm \u2212 (2 \u2212 3) mm"},
      {"0.125 in/ft x 5 in", "0.125 in \u00F7 ft \u00D7 5 in"},
      {"sqrt((32 in)^2)", "sqrt((32 in)^2)"}, // lost a bracket
      {"(-2)^2 mm", "(\u22122)^2 mm"},        // was told as the square taken off
      {"(41 in / 20 in) mm", "(41 in \u00F7 20 in) mm"},
  };
  for (const auto& [text, understood] : cases)
    EXPECT_EQ(parse_length(text, on(Unit::mm)).understood, understood);
}

// What was understood means the same when it is read again.
TEST(Expression, RandomOnesComeToTheirValueAndReadBack) {
  std::mt19937 random(11);
  const auto one_of = [&](int n) { return static_cast<int>(random() % static_cast<unsigned>(n)); };
  struct Made {
    std::string text;
    double mm;
  };
  const std::function<std::pair<std::string, double>(int)> number = [&](int depth) {
    if (depth > 0 && one_of(3) == 0) {
      const auto [a, x] = number(depth - 1);
      const auto [b, y] = number(depth - 1);
      return one_of(2) ? std::pair{"(" + a + " + " + b + ")", x + y}
                       : std::pair{"(" + a + " * " + b + ")", x * y};
    }
    const int n = 1 + one_of(20);
    return std::pair{std::to_string(n) + ".5", n + 0.5};
  };
  const std::function<Made(int)> length = [&](int depth) -> Made {
    const int kind = depth > 0 ? one_of(7) : 6;
    if (kind == 0) {
      const auto a = length(depth - 1), b = length(depth - 1);
      return {a.text + " + " + b.text, a.mm + b.mm};
    }
    if (kind == 1) {
      const auto a = length(depth - 1), b = length(depth - 1);
      return {a.text + " - (" + b.text + ")", a.mm - b.mm};
    }
    if (kind == 2) {
      const auto [n, x] = number(2);
      const auto a = length(depth - 1);
      return {n + " \u00D7 (" + a.text + ")", x * a.mm};
    }
    if (kind == 3) {
      const auto [n, x] = number(2);
      const auto a = length(depth - 1);
      return {"(" + a.text + ") / " + n, a.mm / x};
    }
    if (kind == 4) {
      const auto a = length(depth - 1), b = length(depth - 1);
      return {"sqrt((" + a.text + ")^2 + (" + b.text + ")^2)", std::hypot(a.mm, b.mm)};
    }
    if (kind == 5) {
      const auto a = length(depth - 1);
      const int degree = 5 + one_of(80);
      return {"(" + a.text + ") * sin(" + std::to_string(degree) + ")", a.mm * std::sin(radians(degree))};
    }
    const int n = 1 + one_of(60);
    switch (one_of(4)) {
    case 0:
      return {std::to_string(n) + " mm", double(n)};
    case 1:
      return {std::to_string(n) + "/64 in", n / 64.0 * inch};
    case 2:
      return {std::to_string(n) + " thou", n * inch / 1000};
    default:
      return {"#" + std::to_string(n), parse_length("#" + std::to_string(n)).mm};
    }
  };
  int read = 0;
  for (int round = 0; round < 2000; ++round) {
    const auto made = length(3);
    if (made.text.size() > 390) continue;
    const auto got = parse_length(made.text, on(Unit::mm));
    if (!got.ok()) {
      EXPECT_TRUE(std::abs(made.mm) > 1e6) << made.text << ": " << got.message; // over 10 km
      continue;
    }
    ++read;
    EXPECT_NEAR(got.mm, made.mm, 1e-8 * std::max(1.0, std::abs(made.mm))) << made.text;
    if (got.understood.size() > 390) continue;
    const auto again = parse_length(got.understood, on(Unit::mm));
    ASSERT_TRUE(again.ok()) << made.text << " understood " << got.understood << ": " << again.message;
    EXPECT_NEAR(again.mm, got.mm, 1e-8 * std::max(1.0, std::abs(got.mm)))
        << made.text << " understood " << got.understood;
  }
  EXPECT_GT(read, 1500);
}

TEST(Expression, NothingIsDeepEnoughToFall) {
  for (const char* piece : {"(", "-", "sqrt ", "2^", "sin(", "1 mm + (", "3 * "}) {
    std::string text;
    while (text.size() + std::string(piece).size() < 398) text += piece;
    EXPECT_FALSE(parse_length(text + "1", {}).ok()) << piece;
  }
}
