// Conditions and consequences: every row belongs to a material of the table, and says what it should.

#include "fits/material_change.h"

#include "fits/solids.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;

TEST(MaterialChange, EveryMaterialHasItsTraitsAndEveryConditionItsMaterial) {
  int conditions = 0;
  for (const auto& solid : fits::solids()) {
    for (const auto& condition : fits::conditions_of(solid.name)) {
      const auto* in = fits::find_in_condition(solid.name, condition);
      ASSERT_NE(in, nullptr);
      EXPECT_EQ(in->density, solid.density);
      EXPECT_GT(in->yield, 0);
      ++conditions;
    }
    // Iron in place of anything else says something: no material is without traits.
    if (solid.name != "grey iron") {
      EXPECT_FALSE(fits::consequences(solid.name, "", "grey iron", "").empty()) << solid.name;
    }
    EXPECT_TRUE(fits::consequences(solid.name, "", solid.name, "").empty()) << solid.name;
  }
  EXPECT_GT(conditions, 15);
}

TEST(MaterialChange, HardeningMakesSilverSteelThreeTimesAsStrong) {
  const auto said = fits::consequences("silver steel", "annealed", "silver steel", "hardened and tempered");
  ASSERT_EQ(said.size(), 1U);
  EXPECT_EQ(said[0], "3.0 times as strong before it yields");
}

/// Common practice: iron in place of steel breaks out at edges, is cut dry and does not take solder.
TEST(MaterialChange, IronInPlaceOfSteel) {
  const auto said = fits::consequences("mild steel", "", "cast iron", "");
  const auto has = [&](const char* words) {
    return std::find(said.begin(), said.end(), words) != said.end();
  };
  EXPECT_TRUE(has("75 % as strong before it yields")); // 150 of 250 MPa
  EXPECT_TRUE(has("breaks out where a cut leaves it: chamfer first"));
  EXPECT_TRUE(has("does not take solder"));
  EXPECT_TRUE(has("cut with: dry"));
  EXPECT_FALSE(has("rusts")); // so does steel
}

TEST(MaterialChange, WhatIsUnknownSaysNothing) {
  EXPECT_TRUE(fits::consequences("unobtainium", "", "brass", "").empty());
  EXPECT_EQ(fits::find_in_condition("brass", "no such condition"), fits::find_solid("brass").solid);
  EXPECT_EQ(fits::find_in_condition("unobtainium", ""), nullptr);
  EXPECT_TRUE(fits::conditions_of("gunmetal").empty());
}

// Aluminium, brass and steel were stronger "in the usual soft state" than annealed.
TEST(MaterialChange, TheSolidsAreAsSoftAsTheirSoftestCondition) {
  int looked_at = 0;
  for (const auto& solid : fits::solids()) {
    double softest = 1e9;
    for (const auto& condition : fits::conditions_of(solid.name))
      softest = std::min(softest, fits::find_in_condition(solid.name, condition)->yield);
    if (softest > 1e8) continue;
    ++looked_at;
    EXPECT_NEAR(solid.yield, softest, 1e-9) << solid.name;
  }
  EXPECT_GT(looked_at, 5);
}
