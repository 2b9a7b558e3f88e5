// Every row of ANSI B4.1 held against the grades its fits are made of.

#include "fits/fit.h"
#include "quantity/unit.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <set>
#include <string>
#include <vector>

using namespace datrin;
using namespace datrin::fits;

namespace {

/// Up to and with, inches: the steps of the standard's first table.
const std::vector<double> steps{0.12, 0.24, 0.40, 0.71, 1.19, 1.97, 3.15, 4.73, 7.09, 9.85};

/// ANSI B4.1-1967 (R1999), table 1: standard tolerances by grade, thousandths of an inch; from memory.
const std::map<int, std::vector<double>> grades{
    {4, {0.12, 0.15, 0.15, 0.2, 0.25, 0.3, 0.3, 0.4, 0.5, 0.6}},
    {5, {0.15, 0.20, 0.25, 0.3, 0.4, 0.4, 0.5, 0.6, 0.7, 0.8}},
    {6, {0.25, 0.3, 0.4, 0.4, 0.5, 0.6, 0.7, 0.9, 1.0, 1.2}},
    {7, {0.4, 0.5, 0.6, 0.7, 0.8, 1.0, 1.2, 1.4, 1.6, 1.8}},
    {8, {0.6, 0.7, 0.9, 1.0, 1.2, 1.6, 1.8, 2.2, 2.5, 2.8}},
    {9, {1.0, 1.2, 1.4, 1.6, 2.0, 2.5, 3.0, 3.5, 4.0, 4.5}},
    {10, {1.6, 1.8, 2.2, 2.8, 3.5, 4.0, 4.5, 5.0, 6.0, 7.0}},
    {11, {2.5, 3.0, 3.5, 4.0, 5.0, 6.0, 7.0, 9.0, 10.0, 12.0}},
    {12, {4, 5, 6, 7, 8, 10, 12, 14, 16, 18}},
    {13, {6, 7, 9, 10, 12, 16, 18, 22, 25, 28}},
};

/// The grades of hole and shaft (ANSI B4.1, appendix: the letters it was drawn up with), and the sign of the
/// least clearance: +1 always clear, 0 either, −1 always tight.
struct Made {
  int hole, shaft, sign;
};
const std::map<std::string, Made> fits_of{
    {"RC1", {5, 4, 1}},   {"RC2", {6, 5, 1}},   {"RC3", {7, 6, 1}},    {"RC4", {8, 7, 1}},
    {"RC5", {8, 7, 1}},   {"RC6", {9, 8, 1}},   {"RC7", {9, 8, 1}},    {"RC8", {10, 9, 1}},
    {"RC9", {11, 10, 1}}, {"LC1", {6, 5, 1}},   {"LC2", {7, 6, 1}},    {"LC3", {8, 7, 1}},
    {"LC4", {10, 9, 1}},  {"LC5", {7, 6, 1}},   {"LC6", {9, 8, 1}},    {"LC7", {10, 9, 1}},
    {"LC8", {10, 9, 1}},  {"LC9", {11, 10, 1}}, {"LC10", {12, 12, 1}}, {"LC11", {13, 13, 1}},
    {"LT1", {7, 6, 0}},   {"LT2", {8, 7, 0}},   {"LT3", {7, 6, 0}},    {"LT4", {8, 7, 0}},
    {"LT5", {7, 6, 0}},   {"LT6", {7, 7, 0}},   {"LN1", {6, 5, -1}},   {"LN2", {7, 6, -1}},
    {"LN3", {7, 6, -1}},  {"FN1", {6, 5, -1}},  {"FN2", {7, 6, -1}},   {"FN3", {7, 6, -1}},
    {"FN4", {7, 6, -1}},  {"FN5", {8, 7, -1}}};

} // namespace

// The printed tables are these grades put together, to 9.85 in (FN to 7.88). Named here: what the standard
// prints off them, its first rows and js shafts rounded to what can be written, or not at all; from memory.
TEST(B41, EveryRowIsMadeOfItsGrades) {
  std::set<std::string> off;
  int rows = 0;
  for (const auto& [name, made] : fits_of)
    for (std::size_t k = 0; k < steps.size(); ++k) {
      const double inches = steps[k] * (1 - 1e-9);
      const auto fit = b41_fit(inches * mm_per_inch, name);
      if (!fit.ok) {
        off.insert(name + " to " + fmt::format("{:.2f}", steps[k]) + " none");
        continue;
      }
      ++rows;
      const auto width = [](const Deviations& d) { return (d.upper - d.lower) / mm_per_thou; };
      if (std::abs(width(fit.fit.hole) - grades.at(made.hole)[k]) > 1e-6)
        off.insert(name + " to " + fmt::format("{:.2f}", steps[k]) + " hole");
      if (std::abs(width(fit.fit.shaft) - grades.at(made.shaft)[k]) > 1e-6)
        off.insert(name + " to " + fmt::format("{:.2f}", steps[k]) + " shaft");
      if (made.sign > 0) {
        EXPECT_GE(fit.fit.least(), -1e-12) << name << " " << steps[k];
      }
      if (made.sign < 0) {
        EXPECT_LE(fit.fit.least(), -1e-12) << name << " " << steps[k];
      }
      if (made.sign < 0) {
        EXPECT_LE(fit.fit.most(), 1e-9) << name << " " << steps[k];
      }
    }
  const std::set<std::string> printed_off{
      "FN1 to 0.12 shaft", "LC1 to 0.12 shaft", "LN1 to 0.12 shaft", "RC1 to 0.12 hole",  "RC1 to 0.12 shaft",
      "RC2 to 0.12 shaft", "LN1 to 0.71 shaft", "LN1 to 1.19 shaft", "LN1 to 1.97 shaft", "LT1 to 0.12 shaft",
      "LT1 to 3.15 shaft", "LT1 to 4.73 shaft", "RC9 to 0.24 shaft", "LT3 to 0.12 none",  "LT3 to 0.24 none",
      "LT4 to 0.12 none",  "LT4 to 0.24 none",  "FN3 to 0.12 none",  "FN3 to 0.24 none",  "FN3 to 0.40 none",
      "FN3 to 0.71 none",  "FN1 to 9.85 none",  "FN2 to 9.85 none",  "FN3 to 9.85 none",  "FN4 to 9.85 none",
      "FN5 to 9.85 none"};
  EXPECT_EQ(off, printed_off);
  EXPECT_EQ(rows, 34 * 10 - 13);
}

// Within a fit nothing but the size changes: clearance and interference only grow with it.
TEST(B41, FitsGrowWithTheSize) {
  for (const auto& [name, made] : fits_of) {
    double before_hole = 0, before_reach = 0;
    for (const double up_to : steps) {
      const auto fit = b41_fit(up_to * (1 - 1e-9) * mm_per_inch, name);
      if (!fit.ok) continue;
      const double reach = made.sign > 0 ? fit.fit.most() : fit.fit.shaft.upper;
      EXPECT_GE(fit.fit.hole.upper, before_hole - 1e-12) << name << " " << up_to;
      EXPECT_GE(reach, before_reach - 1e-12) << name << " " << up_to;
      before_hole = fit.fit.hole.upper;
      before_reach = reach;
    }
  }
}

// ANSI B4.1-1967, first rows as printed; from memory.
TEST(B41, FirstRowsAsPrinted) {
  const struct {
    const char* name;
    double inches, hole, least, most; ///< thousandths; least and most clearance
  } rows[] = {{"RC1", 0.1, 0.2, 0.1, 0.45}, {"RC2", 0.1, 0.25, 0.1, 0.55}, {"LC1", 0.1, 0.25, 0, 0.45},
              {"RC9", 0.2, 3.0, 4.5, 9.0},  {"RC3", 0.1, 0.4, 0.3, 0.95},  {"LC11", 0.1, 6, 5, 17}};
  for (const auto& r : rows) {
    const auto fit = b41_fit(r.inches * mm_per_inch, r.name);
    ASSERT_TRUE(fit.ok) << fit.message;
    EXPECT_NEAR(fit.fit.hole.upper / mm_per_thou, r.hole, 1e-9) << r.name;
    EXPECT_NEAR(fit.fit.least() / mm_per_thou, r.least, 1e-9) << r.name;
    EXPECT_NEAR(fit.fit.most() / mm_per_thou, r.most, 1e-9) << r.name;
  }
}

TEST(B41, PastItsTablesIsRefusedWithWhatThereIs) {
  EXPECT_FALSE(b41_fit(300, "RC4").ok);
  EXPECT_FALSE(b41_fit(0, "RC4").ok);
  const auto none = b41_fit(25, "RC10");
  EXPECT_FALSE(none.ok);
  EXPECT_NE(none.message.find("RC"), std::string::npos) << none.message;
}
