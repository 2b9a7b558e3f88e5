#include "fits/press.h"

#include "fits/bearing.h"
#include "fits/heat.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::fits;

namespace {

const Solid& metal(const char* name) {
  const auto found = find_solid(name);
  EXPECT_NE(found.solid, nullptr) << found.message;
  return *found.solid;
}

PressInput steel_on_steel() {
  return {50, 100, 20, 40, 0.05, 0, 0, &metal("steel"), &metal("steel"), 0.12};
}

} // namespace

TEST(Solids, AnswerToTheNamesDrawingsUse) {
  EXPECT_EQ(metal("Cast Iron").name, "grey iron");
  EXPECT_EQ(metal(" drill rod ").name, "silver steel");
  EXPECT_EQ(metal("aluminium").name, "wrought aluminium");
  EXPECT_EQ(metal("ptfe").name, "PTFE");
  EXPECT_NE(find_solid("brss").message.find("did you mean \"brass\""), std::string::npos);
}

// Shigley's Mechanical Engineering Design, press and shrink fits, both members of one metal (from memory):
// p = E δ_r (r_o² − R²)(R² − r_i²) / (2 R³ (r_o² − r_i²)), δ_r the radial interference.
TEST(Press, OneMetalAsTheHandbookHasIt) {
  const auto in = steel_on_steel();
  const double ro = 50, r = 25, ri = 10, e = metal("steel").modulus, radial = 0.025;
  const double p = e * radial * (ro * ro - r * r) * (r * r - ri * ri) / (2 * r * r * r * (ro * ro - ri * ri));
  const auto result = press(in);
  ASSERT_TRUE(result.usable()) << result.message;
  EXPECT_NEAR(result.pressure, p, 1e-9 * p);
  EXPECT_NEAR(result.hub_hoop, p * (ro * ro + r * r) / (ro * ro - r * r), 1e-9 * p);
  EXPECT_NEAR(result.shaft_hoop, -p * (r * r + ri * ri) / (r * r - ri * ri), 1e-9 * p);
  EXPECT_NEAR(result.push_force, 0.12 * p * 2 * pi * r * 40, 1e-6);
  EXPECT_NEAR(result.torque, result.push_force * r, 1e-6);
}

// Solid shaft of the hub's metal: p = E δ_r (r_o² − R²) / (2 R r_o²); the same source.
TEST(Press, SolidShaftIsTheLimitOfASmallBore) {
  auto in = steel_on_steel();
  in.shaft_bore = 0;
  const double e = metal("steel").modulus;
  const double p = e * 0.025 * (50.0 * 50 - 25 * 25) / (2 * 25 * 50.0 * 50);
  EXPECT_NEAR(press(in).pressure, p, 1e-9 * p);
  auto thin = steel_on_steel();
  thin.shaft_bore = 0.001;
  EXPECT_NEAR(press(thin).pressure, p, 1e-3 * p);
}

// Displacements must add up to the interference: hub's bore out, shaft in (Lamé, any handbook).
TEST(Press, DisplacementsCloseTheInterference) {
  PressInput in{20, 32, 8, 18, 0.021, 0, 0, &metal("grey iron"), &metal("steel"), 0};
  const auto r = press(in);
  ASSERT_TRUE(r.usable());
  const double hub = in.diameter / in.hub->modulus * (r.hub_hoop + in.hub->poisson * r.pressure);
  const double shaft = in.diameter / in.shaft->modulus * (r.shaft_hoop + in.shaft->poisson * r.pressure);
  EXPECT_NEAR(hub - shaft, in.interference, 1e-12);
  EXPECT_GT(r.hub_grows, 0);
  EXPECT_GT(r.bore_shrinks, 0);
}

// DIN 7190-1 (from memory): 0.8 (Rz + Rz) of the interference is lost; a solid shaft stands 2/√3 of its yield
// stress, the hub (1 − Q²)/√3.
TEST(Press, RoughnessAndYield) {
  auto in = steel_on_steel();
  in.hub_roughness = 0.01;
  in.shaft_roughness = 0.006;
  const auto rough = press(in);
  EXPECT_NEAR(rough.loss, 0.8 * 0.016, 1e-12);
  EXPECT_NEAR(rough.interference, 0.05 - 0.0128, 1e-12);
  in.shaft_bore = 0;
  const auto solid = press(in);
  EXPECT_NEAR(solid.most_pressure, metal("steel").yield * (1 - 0.25) / std::sqrt(3.0), 1e-9);
  in.interference = solid.most_interference * 1.001;
  EXPECT_TRUE(press(in).yields());
  EXPECT_NE(press(in).verdict.find("The hub yields"), std::string::npos);
  in.interference = solid.most_interference * 0.999;
  EXPECT_FALSE(press(in).yields());
  in.interference = 0.01;
  EXPECT_EQ(press(in).verdict, "The roughness takes all of it: nothing holds.");
}

TEST(Press, NonsenseIsRefused) {
  auto in = steel_on_steel();
  in.hub_outside = 50;
  EXPECT_EQ(press(in).message, "the outside of the hub must be larger than the joint");
  in = steel_on_steel();
  in.shaft_bore = 50;
  EXPECT_EQ(press(in).message, "the bore of the shaft must be smaller than the joint");
  in = steel_on_steel();
  in.interference = -0.01;
  EXPECT_EQ(press(in).status, PressStatus::refused);
  in = steel_on_steel();
  in.hub = nullptr;
  EXPECT_EQ(press(in).message, "the metals of hub and shaft must be known");
}

// Δd = d α Δt, with the usual 23.5 and 11.5 millionths (general engineering tables, from memory).
TEST(Heat, ClearanceFollowsTheMetals) {
  const HeatInput in{25, 0.02, &metal("aluminium"), &metal("steel"), 90, 90};
  const auto hot = clearance_hot(in);
  ASSERT_TRUE(hot.ok);
  EXPECT_NEAR(hot.clearance, 0.02 + 25 * (23.5 - 11.5) * 1e-6 * 70, 1e-12);
  EXPECT_NEAR(hot.why.total(), hot.clearance, 1e-15);
  auto past = in;
  past.shaft_temperature = 900;
  EXPECT_NE(clearance_hot(past).message.find("past what steel is to be counted on"), std::string::npos);
  past.shaft_temperature = -300;
  EXPECT_NE(clearance_hot(past).message.find("colder than liquid nitrogen"), std::string::npos);
}

TEST(Heat, AssemblyByWarmingOrChilling) {
  const auto a = assembly({40, 0.04, 0, &metal("steel"), &metal("steel"), -18});
  ASSERT_TRUE(a.ok);
  EXPECT_NEAR(a.warm_to, 20 + (0.04 + 0.04) / 40 / 11.5e-6, 1e-9); // interference and a thousandth of play
  // In the cold steel shrinks by 8.5 millionths a kelvin (DIN 7190-1, from memory), less than it grows by
  // when warmed.
  EXPECT_NEAR(20 - a.chill_to, (0.04 + 0.04) / 40 / 8.5e-6, 1e-9);
  EXPECT_NEAR(a.warm_to - a.warm_with_cold, 38 * 8.5 / 11.5,
              1e-9); // what the freezer does, the flame need not
  EXPECT_FALSE(a.chill_possible);
  EXPECT_NE(a.verdict.find("not promised"), std::string::npos);
  EXPECT_FALSE(assembly({40, -0.04, 0, &metal("steel"), &metal("steel"), -18}).ok);
  const auto zinc = assembly({40, 0.1, 0, &metal("zinc"), &metal("steel"), -18});
  EXPECT_FALSE(zinc.warm_allowed);
}

// The inner raceway grows by the interference times d over its own diameter when shaft and ring are of one
// metal and the shaft is solid: common practice in bearing makers' guides, and what Lamé's equations give.
TEST(Bearing, WhatIsLeftInside) {
  BearingInput in;
  in.bore = 20;
  in.outside = 42;
  in.shaft = &metal("steel");
  in.housing = &metal("steel");
  in.shaft_interference = 0.010;
  const auto r = bearing_clearance(in);
  ASSERT_TRUE(r.ok) << r.message;
  EXPECT_NEAR(r.inner_grows, 0.010 * 20 / (20 + 0.2 * 22), 2e-5);
  EXPECT_EQ(r.outer_shrinks, 0);
  EXPECT_NEAR(r.before_least, 0.005, 1e-12); // ISO 5753-1, normal, over 18 to 24: 5 to 20, from memory
  EXPECT_NEAR(r.before_most, 0.020, 1e-12);
  EXPECT_NEAR(r.cold_least, 0.005 - r.inner_grows, 1e-12);
  in.inner_hotter = 10;
  EXPECT_NEAR(bearing_clearance(in).hot_most, r.cold_most - 11.5e-6 * 10 * 31, 1e-9);
  in.housing_interference = 0.008;
  EXPECT_GT(bearing_clearance(in).outer_shrinks, 0);
  in.group = BearingGroup::c3;
  EXPECT_NEAR(bearing_clearance(in).before_most, 0.028, 1e-12);
  in.outside = 21;
  EXPECT_FALSE(bearing_clearance(in).ok);
  in.bore = 130;
  in.outside = 200;
  EXPECT_EQ(bearing_clearance(in).message,
            "clearances are tabled for bores up to 120 mm; take them from the maker's list");
}
