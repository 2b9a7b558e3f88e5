#include "quantity/tolerance.h"

#include "quantity/unit.h"

#include <gtest/gtest.h>

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

TEST(Tolerance, WhatIsNotTabledIsRefusedWithItsReason) {
  std::string why;
  EXPECT_FALSE(iso_286(12, "H", &why));
  EXPECT_EQ(why, "\"H\" is no tolerance class; write a letter and a grade, like H7 or g6");
  EXPECT_FALSE(iso_286(12, "H17", &why));
  EXPECT_EQ(why, "there is no grade 17; grades run from 1 to 16");
  EXPECT_FALSE(iso_286(12, "q6", &why));
  EXPECT_EQ(why, "class q6 is not in the tables; d to h, js, k, m, n, p, r, s are");
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
