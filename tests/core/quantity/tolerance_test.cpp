#include "quantity/tolerance.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cctype>
#include <cmath>
#include <string>

using namespace datrin;

namespace {

void expect_class(double nominal, const char* name, double lower_um, double upper_um) {
  const auto found = iso_286(nominal, name);
  ASSERT_TRUE(found) << name;
  EXPECT_NEAR(found->lower * 1000, lower_um, 1e-6) << nominal << " " << name;
  EXPECT_NEAR(found->upper * 1000, upper_um, 1e-6) << nominal << " " << name;
}

} // namespace

// ISO 286-1:2010, table 1, and ISO 286-2:2010, limits of holes and shafts; from memory.
TEST(Tolerance, Iso286OfHolesAndShafts) {
  expect_class(12, "H7", 0, 18);
  expect_class(25, "H7", 0, 21);
  expect_class(25, "g6", -20, -7);
  expect_class(25, "f7", -41, -20);
  expect_class(30, "h6", -13, 0);
  expect_class(50, "k6", 2, 18);
  expect_class(50, "p6", 26, 42);
  expect_class(60, "s6", 53, 72);
  expect_class(25, "JS7", -10.5, 10.5);
  expect_class(25, "N7", -28, -7); // with Δ: −15 + 8 − 21
  expect_class(25, "P7", -35, -14);
  expect_class(25, "K7", -15, 6);
  expect_class(25, "M7", -21, 0);
  expect_class(2, "N7", -14, -4); // no Δ up to 3 mm
}

// ISO 286-2:2010, tables 2 to 32: letters a to zc, fine and coarse grades, and both sides of steps of size;
// from memory.
TEST(Tolerance, EveryLetterAndBothSidesOfTheSteps) {
  const struct {
    double nominal;
    const char* name;
    double lower, upper;
  } rows[] = {
      {30, "a11", -430, -300}, {50, "A11", 320, 480},  {40, "b11", -330, -170}, {50, "B11", 180, 340},
      {18, "c11", -205, -95},  {50, "C11", 130, 290},  {10, "cd8", -78, -56},   {18, "d9", -93, -50},
      {50, "D10", 80, 180},    {120, "e8", -126, -72}, {50, "E9", 50, 112},     {10, "ef7", -33, -18},
      {100, "f7", -71, -36},   {50, "F8", 25, 64},     {10, "fg6", -17, -8},    {50, "g6", -25, -9},
      {18, "G7", 6, 24},       {80, "h9", -74, 0},     {80, "H11", 0, 190},     {6, "j6", -2, 6},
      {18, "j6", -3, 8},       {30, "j7", -8, 13},     {3, "j8", -6, 8},        {25, "J6", -5, 8},
      {50, "J7", -11, 14},     {100, "J8", -20, 34},   {80, "js9", -37, 37},    {40, "k7", 2, 27},
      {40, "k8", 0, 39},       {25, "K8", -23, 10},    {10, "m6", 6, 15},       {25, "M8", -29, 4},
      {300, "M6", -41, -9},    {3, "n6", 4, 10},       {25, "N8", -36, -3},     {25, "N9", -52, 0},
      {3, "p6", 6, 12},        {25, "P6", -31, -18},   {65, "r6", 41, 60},      {80, "r6", 43, 62},
      {50, "R7", -50, -25},    {65, "s6", 53, 72},     {80, "s6", 59, 78},      {50, "S7", -59, -34},
      {25, "S6", -44, -31},    {30, "t6", 41, 54},     {30, "T7", -54, -33},    {50, "u6", 70, 86},
      {25, "U7", -61, -40},    {18, "v6", 39, 50},     {20, "v6", 47, 60},      {25, "x6", 64, 77},
      {25, "X8", -97, -64},    {25, "y6", 75, 88},     {25, "z7", 88, 109},     {25, "za7", 118, 139},
      {25, "zb8", 160, 193},   {25, "zc9", 218, 270},  {18, "H7", 0, 18},       {18.01, "H7", 0, 21},
      {3, "H7", 0, 10},        {3.01, "H7", 0, 12},    {500, "h6", -40, 0},     {100, "H01", 0, 1},
      {100, "h0", -1.5, 0},    {500, "H18", 0, 9700},  {14, "x6", 40, 51},      {14.01, "x6", 45, 56},
  };
  for (const auto& r : rows) expect_class(r.nominal, r.name, r.lower, r.upper);
}

// The formulas of ISO 286-1's annex (D the geometric mean of a step): the tables are these, rounded by its
// rules.
TEST(Tolerance, TablesFollowTheFormulas) {
  const double steps[] = {3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500};
  for (std::size_t k = 0; k + 1 < std::size(steps); ++k) {
    const double d = std::sqrt(steps[k] * steps[k + 1]), size = (steps[k] + steps[k + 1]) / 2;
    const double i = 0.45 * std::cbrt(d) + 0.001 * d; // the standard tolerance unit, micrometres
    const double multiples[] = {7, 10, 16, 25, 40, 64, 100, 160, 250, 400, 640, 1000, 1600, 2500};
    for (int grade = 5; grade <= 18; ++grade)
      EXPECT_NEAR(it_grade(size, grade).value_or(0) * 1000 / (multiples[grade - 5] * i), 1, 0.1)
          << size << " IT" << grade;
    const std::pair<const char*, double> clearances[] = {{"d11", 16 * std::pow(d, 0.44)},
                                                         {"e11", 11 * std::pow(d, 0.41)},
                                                         {"f11", 5.5 * std::pow(d, 0.41)},
                                                         {"g11", 2.5 * std::pow(d, 0.34)}};
    for (const auto& [name, by] : clearances)
      EXPECT_NEAR(-iso_286(size, name)->upper * 1000, by, std::max(1.0, 0.06 * by)) << size << " " << name;
  }
  // The letters of heavy interference go by the finer steps: the whole of the table is walked.
  const double fine[] = {24,  30,  40,  50,  65,  80,  100, 120, 140, 160,
                         180, 200, 225, 250, 280, 315, 355, 400, 450, 500};
  for (std::size_t k = 0; k + 1 < std::size(fine); ++k) {
    const double d = std::sqrt(fine[k] * fine[k + 1]), size = (fine[k] + fine[k + 1]) / 2;
    const double it7 = it_grade(size, 7).value_or(0) * 1000, it8 = it_grade(size, 8).value_or(0) * 1000,
                 it9 = it_grade(size, 9).value_or(0) * 1000, it10 = it_grade(size, 10).value_or(0) * 1000;
    const std::pair<const char*, double> presses[] = {
        {"t6", it7 + 0.63 * d},  {"u6", it7 + d},      {"v6", it7 + 1.25 * d},
        {"x6", it7 + 1.6 * d},   {"y6", it7 + 2 * d},  {"z6", it7 + 2.5 * d},
        {"za6", it8 + 3.15 * d}, {"zb6", it9 + 4 * d}, {"zc6", it10 + 5 * d}};
    for (const auto& [name, by] : presses)
      EXPECT_NEAR(iso_286(size, name)->lower * 1000, by, std::max(3.2, 0.045 * by)) << size << " " << name;
    const double a = size <= 120 ? 265 + 1.3 * d : 3.5 * d;
    EXPECT_NEAR(-iso_286(size, "a11")->upper * 1000, a, 0.05 * a) << size;
    const double b = size <= 160 ? 140 + 0.85 * d : 1.8 * d;
    EXPECT_NEAR(-iso_286(size, "b11")->upper * 1000, b, 0.05 * b) << size;
    if (size > 40) {
      EXPECT_NEAR(-iso_286(size, "c11")->upper * 1000, 95 + 0.8 * d, 0.05 * (95 + 0.8 * d)) << size;
    }
  }
}

TEST(Tolerance, WhatIsNotTabledIsRefusedWithItsReason) {
  std::string why;
  EXPECT_FALSE(iso_286(12, "H", &why));
  EXPECT_EQ(why, "\"H\" is no tolerance class; write a letter and a grade, like H7 or g6");
  EXPECT_FALSE(iso_286(12, "H19", &why));
  EXPECT_EQ(why, "there is no grade 19; grades run from 01, 0, 1 to 18");
  EXPECT_FALSE(iso_286(12, "q6", &why));
  EXPECT_EQ(why, "there is no class q6 at 12 mm; the letters there are a, b, c, cd, d, e, ef, f, fg, g, h, "
                 "j, js, k, m, n, "
                 "p, r, s, u, x, z, za, zb, zc");
  EXPECT_FALSE(iso_286(20, "t6", &why)); // t begins above 24 mm
  EXPECT_FALSE(iso_286(12, "K9", &why));
  EXPECT_EQ(why, "K is stated to grade 8 only");
  EXPECT_FALSE(iso_286(12, "j9", &why));
  EXPECT_EQ(why, "j9 is not stated; j goes with grades 5 to 8, J with 6 to 8");
  EXPECT_FALSE(iso_286(1, "H14", &why));
  EXPECT_EQ(why, "grade 14 is not used for sizes up to 1 mm");
  EXPECT_FALSE(iso_286(0.8, "a11", &why));
  EXPECT_FALSE(iso_286(12, "H7x", &why));
  EXPECT_FALSE(iso_286(900, "H7", &why));
  EXPECT_EQ(why, "tolerance classes are tabled for sizes up to 500 mm");
}

// ISO 2768-1:1989, tables 1 to 3; from memory.
TEST(Tolerance, GeneralTolerances) {
  EXPECT_EQ(general_tolerance(GeneralOf::linear, 25, 'm'), 0.2);
  EXPECT_EQ(general_tolerance(GeneralOf::linear, 30, 'm'), 0.2);
  EXPECT_EQ(general_tolerance(GeneralOf::linear, 30.01, 'm'), 0.3);
  EXPECT_EQ(general_tolerance(GeneralOf::linear, 200, 'c'), 1.2);
  EXPECT_EQ(general_tolerance(GeneralOf::linear, 0.5, 'f'), 0.05);
  EXPECT_FALSE(general_tolerance(GeneralOf::linear, 2, 'v'));
  EXPECT_FALSE(general_tolerance(GeneralOf::linear, 0.2, 'f'));
  EXPECT_EQ(general_tolerance(GeneralOf::edge, 5, 'm'), 0.5);
  EXPECT_NEAR(general_tolerance(GeneralOf::angle, 60, 'm').value_or(0), radians(1.0 / 3), 1e-12);
  EXPECT_FALSE(general_tolerance(GeneralOf::linear, 25, 'x'));
}

// ISO 286-1:2010 and ISO 286-2:2010: at 1 mm and below N is not stated in grades 9 and coarser; K, M, N, P in
// grades 1 and 2 have no Δ above 3 mm; a grade is written without a leading nought except 01.
TEST(Tolerance, ClassesTheStandardDoesNotStateAreRefused) {
  std::string why;
  for (const char* name : {"N9", "N10", "N11"}) {
    EXPECT_FALSE(iso_286(0.9, name, &why)) << name;
    EXPECT_FALSE(why.empty()) << name;
    EXPECT_FALSE(iso_286(1.0, name)) << name;
    EXPECT_TRUE(iso_286(2.0, name)) << name;
  }
  for (const char* name : {"K1", "M1", "N2", "P2", "R1"}) {
    EXPECT_FALSE(iso_286(25, name, &why)) << name;
    EXPECT_FALSE(why.empty()) << name;
  }
  for (const char* name : {"H07", "g06", "h00", "H007"}) EXPECT_FALSE(iso_286(25, name, &why)) << name;
  EXPECT_TRUE(iso_286(25, "H01"));
  EXPECT_TRUE(iso_286(25, "H0"));
  EXPECT_TRUE(iso_286(25, "H1"));
}

// Whatever is given has a width of its grade, and a refusal always says why.
TEST(Tolerance, EveryClassIsItsGradeWideOrRefusedWithAReason) {
  const char* letters[] = {"a", "b", "c", "d", "e", "f", "g", "h", "js", "k",  "m",  "n",
                           "p", "r", "s", "t", "u", "v", "x", "y", "z",  "za", "zb", "zc"};
  int given = 0;
  for (const double size : {0.7, 2.5, 5.0, 12.0, 25.0, 47.0, 75.0, 110.0, 220.0, 390.0})
    for (const char* letter : letters)
      for (int grade = 1; grade <= 18; ++grade)
        for (const bool hole : {false, true}) {
          std::string name = letter;
          if (hole)
            for (auto& c : name) c = static_cast<char>(std::toupper(c));
          name += std::to_string(grade);
          std::string why;
          const auto d = iso_286(size, name, &why);
          if (!d) {
            EXPECT_FALSE(why.empty()) << name << " " << size;
            continue;
          }
          ++given;
          EXPECT_NEAR(d->upper - d->lower, it_grade(size, grade).value_or(-1), 1e-12) << name << " " << size;
          // A shaft of a letter before h is under size, from k on at or over it; a hole the other way round.
          const bool before_h = std::string(letter) < "h" && std::string(letter) != "js";
          if (before_h) {
            EXPECT_LE(hole ? -d->lower : d->upper, 1e-12) << name << " " << size;
          }
        }
  EXPECT_GT(given, 3000);
}
