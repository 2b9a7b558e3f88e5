// Several cranks balanced in two planes. The two-cylinder case of the textbooks of machines (from memory):
// cylinders 0.7 m apart, wheels 1.5 m, 150 kg rotating and 180 kg reciprocating a crank at 0.3 m, two thirds
// balanced at 0.6 m, cranks at right angles: 105 kg in each wheel.

#include "truing/balance_cranks.h"

#include "quantity/unit.h"
#include "truing/balance.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::truing;

namespace {

BalanceCranksInput two_at(double angle) {
  BalanceCranksInput in;
  in.cranks = {{400, 0}, {1100, angle}};
  in.crank_radius = 300;
  in.rotating = 150e3;
  in.reciprocating = 180e3;
  in.factor = 2.0 / 3;
  in.near_plane = 0;
  in.far_plane = 1500;
  in.radius = 600;
  return in;
}

/// What is left of forces and of moments about the near plane when the weights are on: g mm, g mm².
void expect_balanced(const BalanceCranksInput& in, const BalanceCranks& found) {
  Vec2 force = Vec2::Zero(), moment = Vec2::Zero();
  const auto add = [&](double mass_radius, double at, double angle) {
    const Vec2 f = mass_radius * Vec2(std::cos(angle), std::sin(angle));
    force += f;
    moment += (at - in.near_plane) * f;
  };
  for (const auto& crank : in.cranks)
    add((in.rotating + in.factor * in.reciprocating) * in.crank_radius, crank.at, crank.angle);
  add(found.near_mass * in.radius, in.near_plane, found.near_angle);
  add(found.far_mass * in.radius, in.far_plane, found.far_angle);
  EXPECT_LT(force.norm(), 1e-3);
  EXPECT_LT(moment.norm(), 1);
}

} // namespace

TEST(BalanceCranks, TheTextbooksTwoCylinders) {
  const auto in = two_at(pi / 2);
  const auto found = balance_cranks(in);
  ASSERT_TRUE(found.usable());
  EXPECT_NEAR(found.near_mass / 1000, 105.3, 0.2);
  EXPECT_NEAR(found.far_mass / 1000, 105.3, 0.2);
  expect_balanced(in, found);
  EXPECT_NEAR(found.force_left, std::sqrt(2.0) * 60e3 * 300, 1); // a quarter apart: √2 of what one throws
}

TEST(BalanceCranks, OppositeOnlyRockAndFourDoNotEvenThat) {
  const auto opposite = balance_cranks(two_at(pi));
  EXPECT_NEAR(opposite.force_left, 0, 1e-6);
  EXPECT_GT(opposite.couple_left, 0);
  auto four = two_at(pi);
  four.cranks = {{300, 0}, {600, pi}, {900, pi}, {1200, 0}};
  const auto found = balance_cranks(four);
  EXPECT_NEAR(found.near_mass, 0, 1e-6);
  EXPECT_NEAR(found.couple_left, 0, 1e-3);
  expect_balanced(four, found);
}

// One crank in the middle of both planes: each takes half of what one weight would be.
TEST(BalanceCranks, OneIsTheSingleCase) {
  auto in = two_at(0);
  in.cranks = {{750, 0}};
  const auto found = balance_cranks(in);
  BalanceInput one;
  one.crank_radius = 300, one.rotating = 150e3, one.reciprocating = 180e3, one.factor = 2.0 / 3,
  one.radius = 600;
  EXPECT_NEAR(found.near_mass + found.far_mass, balance(one).mass, 1e-6);
  EXPECT_NEAR(found.near_angle, pi, 1e-12);
  in.far_plane = 0;
  EXPECT_FALSE(balance_cranks(in).usable());
  in = two_at(0);
  in.factor = 1.5;
  EXPECT_FALSE(balance_cranks(in).usable());
}
