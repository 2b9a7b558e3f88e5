// Beams by Euler and Bernoulli. Check values: the closed forms worked by hand for round numbers; the fixed
// and simply held beam loaded in its middle by 7 F L³ / 768 E I (Roark's Formulas for Stress and Strain,
// table of straight beams, one end fixed, one simply supported; from memory) against the same beam put
// together from two cantilever solutions.

#include "route/stiffness.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

using namespace datrin::route;

namespace {

TEST(Stiffness, ACantileverBar) {
  // 10 mm steel, 100 mm out, 100 N: I = π 10⁴/64 = 490.87 mm⁴; 100 · 10⁶ / (3 · 206000 · 490.87) = 0.3296.
  EXPECT_NEAR(bar_gives(100, 100, 10, 206000), 0.32964, 1e-5);
  // Half as far out, an eighth; twice as thick, a sixteenth.
  EXPECT_NEAR(bar_gives(100, 50, 10, 206000), 0.32964 / 8, 1e-6);
  EXPECT_NEAR(bar_gives(100, 100, 20, 206000), 0.32964 / 16, 1e-6);
}

TEST(Stiffness, AWallIsAStripOfPlate) {
  // 3 mm of steel, 30 high and 100 long, 50 N at its edge over a strip of 30: I = 30 · 27 / 12 = 67.5;
  // 50 · 27000 · 0.91 / (3 · 206000 · 67.5) = 0.02945.
  EXPECT_NEAR(wall_gives(50, 30, 100, 3, 206000), 0.029450, 1e-5);
  EXPECT_NEAR(wall_gives(50, 30, 10, 3, 206000), 3 * wall_gives(50, 30, 100, 3, 206000), 1e-9);
  EXPECT_EQ(wall_gives(50, 30, 100, 0, 206000), 0); // not known
}

// A cantilever of length L under F at L/2 sinks at its end by 5FL³/48EI, at L/2 by FL³/24EI; the centre
// pushes back with R = 5F/16, which lifts the middle by 5RL³/48EI.
TEST(Stiffness, ACentreHoldsTheEnd) {
  const double F = 80, L = 120, d = 12, E = 206000, I = std::numbers::pi * std::pow(d, 4) / 64;
  const double R = 5 * F / 16;
  const double middle = F * std::pow(L, 3) / (24 * E * I) - 5 * R * std::pow(L, 3) / (48 * E * I);
  EXPECT_NEAR(shaft_gives(F, L, d, E), middle, 1e-12);
  EXPECT_LT(shaft_gives(F, L, d, E), bar_gives(F, L, d, E) / 30); // 768 / (3 · 7) = 36.6 times stiffer
}

TEST(Stiffness, BrassCutsEasierThanSteel) {
  EXPECT_NEAR(cutting_force("mild steel", 0.25, 0.1), 52.5, 1e-9);
  EXPECT_LT(cutting_force("brass", 1, 0.1), cutting_force("cast iron", 1, 0.1));
  EXPECT_LT(cutting_force("cast iron", 1, 0.1), cutting_force("silver steel", 1, 0.1));
  EXPECT_EQ(cutting_force("unobtainium", 1, 0.1), cutting_force("mild steel", 1, 0.1)); // as steel
}

} // namespace
