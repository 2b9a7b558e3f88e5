// Warming and chilling against sums done by hand, and the solids they use.

#include "fits/heat.h"
#include "fits/press.h"
#include "fits/solids.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

using namespace datrin;
using namespace datrin::fits;

namespace {

const Solid& solid(const char* name) {
  const auto found = find_solid(name);
  EXPECT_NE(found.solid, nullptr) << found.message;
  static const Solid none;
  return found.solid != nullptr ? *found.solid : none;
}

} // namespace

// DIN 7190-1:2017: steel contracts by 8.5 millionths a kelvin in the cold, grey iron 8, copper alloys 15 to
// 16, light alloys 18; from memory.
TEST(Solids, ContractLessThanTheyExpand) {
  EXPECT_DOUBLE_EQ(solid("steel").contraction, 8.5e-6);
  EXPECT_DOUBLE_EQ(solid("grey iron").contraction, 8e-6);
  EXPECT_DOUBLE_EQ(solid("brass").contraction, 16e-6);
  EXPECT_DOUBLE_EQ(solid("aluminium").contraction, 18e-6);
  for (const auto& s : solids()) EXPECT_LT(s.contraction, s.expansion) << s.name;
}

// Densities, g/cm³, of general engineering tables; from memory, within 2 %.
TEST(Solids, DensitiesAsAnyTableHasThem) {
  const std::pair<const char*, double> tabled[] = {{"steel", 7.85},
                                                   {"grey iron", 7.2},
                                                   {"brass", 8.5},
                                                   {"copper", 8.96},
                                                   {"cast aluminium", 2.7},
                                                   {"magnesium", 1.8},
                                                   {"titanium", 4.5},
                                                   {"zinc", 6.7},
                                                   {"white metal", 7.4},
                                                   {"PTFE", 2.18},
                                                   {"acetal", 1.41},
                                                   {"stainless steel", 7.9},
                                                   {"phosphor bronze", 8.8},
                                                   {"wrought aluminium", 2.7},
                                                   {"martensitic stainless steel", 7.75},
                                                   {"silver steel", 7.85},
                                                   {"hardened steel", 7.8}};
  for (const auto& [name, density] : tabled) EXPECT_NEAR(solid(name).density / density, 1, 0.02) << name;
  for (const auto& s : solids()) {
    EXPECT_GT(s.density, 1) << s.name;
    EXPECT_GT(s.modulus, 0.1) << s.name;
    EXPECT_GT(s.yield, 1) << s.name;
    EXPECT_GT(s.poisson, 0.2) << s.name;
    EXPECT_LT(s.poisson, 0.5) << s.name;
  }
}

TEST(Solids, EveryNameADrawingUsesIsOneMetalOnly) {
  std::set<std::string> names;
  for (const auto& s : solids()) EXPECT_TRUE(names.insert(s.name).second) << s.name;
  EXPECT_EQ(solid("cast iron").name, "grey iron");
  EXPECT_EQ(solid("Tool Steel").name, "hardened steel");
  EXPECT_EQ(solid("babbitt").name, "white metal");
  const auto none = find_solid("wood");
  EXPECT_EQ(none.solid, nullptr);
  EXPECT_NE(none.message.find("grey iron"), std::string::npos) << none.message;
}

// By hand: an aluminium hub on a steel shaft of 30 mm, 60 K colder: the hub closes by 30 · 60 · 18e-6 =
// 0.0324, the shaft by 30 · 60 · 8.5e-6 = 0.0153.
TEST(Heat, InTheColdTheContractionsCount) {
  const HeatInput in{30, 0.05, &solid("aluminium"), &solid("steel"), -40, -40};
  const auto cold = clearance_hot(in);
  ASSERT_TRUE(cold.ok) << cold.message;
  EXPECT_NEAR(cold.clearance, 0.05 - 0.0324 + 0.0153, 1e-12);
  EXPECT_NEAR(cold.why.total(), cold.clearance, 1e-12);
}

TEST(Heat, AtTwentyDegreesNothingChanges) {
  for (const auto& hub : solids())
    for (const auto& shaft : solids()) {
      const auto same = clearance_hot({25, 0.01, &hub, &shaft, 20, 20});
      ASSERT_TRUE(same.ok);
      EXPECT_NEAR(same.clearance, 0.01, 1e-15);
    }
}

// By hand: 0.06 of interference and 0.05 of play on 50 mm of grey iron: 0.11 / (50 · 10.5e-6) = 209.5 K.
TEST(Heat, WarmingIsReckonedForTheMostThereMayBe) {
  const auto a = assembly({50, 0.06, 0.05, &solid("grey iron"), &solid("steel"), -18});
  ASSERT_TRUE(a.ok) << a.message;
  EXPECT_NEAR(a.warm_to, 20 + 0.11 / (50 * 10.5e-6), 1e-9);
  EXPECT_NEAR(a.chill_to, 20 - 0.11 / (50 * 8.5e-6), 1e-9);
  EXPECT_TRUE(a.warm_allowed);
  EXPECT_FALSE(a.chill_possible); // far below dry ice
  // Both at once: what the freezer takes off the shaft (38 K · 8.5e-6 · 50) the hub need not grow by.
  EXPECT_NEAR(a.warm_with_cold, 20 + (0.11 - 50 * 38 * 8.5e-6) / (50 * 10.5e-6), 1e-9);
}

TEST(Heat, MetalsAreNotWarmedPastWhatTheyStand) {
  for (const auto& s : solids()) {
    const auto little = assembly({100, 0.001, 0.001, &s, &solid("steel"), -18});
    ASSERT_TRUE(little.ok) << s.name << little.message;
    EXPECT_EQ(little.warm_allowed, little.warm_to <= s.most_temperature) << s.name;
  }
}

// Common practice: turned and reamed metal is rough by 6 µm Rz; DIN 7190-1 takes 0.8 (Rz + Rz) of the
// interference off.
TEST(Press, TakesOffTheUsualRoughnessWhereNoneIsStated) {
  PressInput in;
  in.diameter = 20;
  in.hub_outside = 40;
  in.length = 20;
  in.interference = 0.030;
  in.hub = &solid("steel");
  in.shaft = &solid("steel");
  const auto usual = press(in);
  ASSERT_TRUE(usual.usable()) << usual.message;
  EXPECT_NEAR(usual.loss, 0.8 * (0.006 + 0.006), 1e-12);
  EXPECT_NEAR(usual.interference, 0.030 - usual.loss, 1e-12);
  in.hub_roughness = in.shaft_roughness = 0;
  EXPECT_EQ(press(in).loss, 0);
  EXPECT_GT(press(in).pressure, usual.pressure);
}
