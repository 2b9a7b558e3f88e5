// What turn-overs cost: one turn-over and one stop in closed form, random routes against parts made by trial.

#include "route/spread.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::route;

namespace {

SpreadFeature plane(const char* id, const Vec3& point, const Vec3& out, double raw = 0.5) {
  return {id, false, point, out, raw};
}

/// Three under a face, two at a side, one at an end, of a block 60 × 40.
std::vector<SpreadLocator> three_two_one(int under, int side, int end, double z, double sigma) {
  return {{under, {-25, -15, z}, Vec3::UnitZ(), sigma}, {under, {25, -15, z}, Vec3::UnitZ(), sigma},
          {under, {0, 15, z}, Vec3::UnitZ(), sigma},    {side, {-20, -20, 10}, Vec3::UnitY(), sigma},
          {side, {20, -20, 10}, Vec3::UnitY(), sigma},  {end, {-30, 0, 10}, Vec3::UnitX(), sigma}};
}

/// A block stood on its raw foot, topped; then on its top, footed.
SpreadInput turned_over(double locating, double cutting) {
  SpreadInput in;
  in.features = {plane("foot", {0, 0, 0}, -Vec3::UnitZ()), plane("top", {0, 0, 20}, Vec3::UnitZ()),
                 plane("side", {0, -20, 10}, -Vec3::UnitY()), plane("end", {-30, 0, 10}, -Vec3::UnitX())};
  in.setups = {{"top up", three_two_one(0, 2, 3, 0, locating), {{1, cutting}}},
               {"foot up", three_two_one(1, 2, 3, 20, locating), {{0, cutting}}}};
  in.requirements = {{"thick at the middle of the three", 0, 1, Vec3::UnitZ(), {0, -5, 10}},
                     {"thick over a locator", 0, 1, Vec3::UnitZ(), {25, -15, 10}}};
  return in;
}

} // namespace

// The foot is cut from the top: its distance to it is what the three locators leave there and its own shift.
// At the middle of the three each counts a third, over one of them that one alone.
TEST(Spread, OneTurnOverInClosedForm) {
  const double a = 0.02, c = 0.01;
  const auto found = spread(turned_over(a, c));
  ASSERT_TRUE(found.usable()) << found.message;
  EXPECT_NEAR(found.requirements[0].sigma, std::sqrt(a * a / 3 + c * c), 1e-12);
  EXPECT_NEAR(found.requirements[1].sigma, std::sqrt(a * a + c * c), 1e-12);
  const auto& shares = found.requirements[1].shares;
  EXPECT_NEAR(shares[1].locating, a * a / (a * a + c * c), 1e-12);
  EXPECT_NEAR(shares[1].cutting, c * c / (a * a + c * c), 1e-12);
  EXPECT_NEAR(shares[0].locating + shares[0].cutting, 0,
              1e-12); // the raw foot is gone: nothing of it is left
  EXPECT_EQ(found.requirements[1].raw, 0);
}

// Both cut in one setup: only their own shifts lie between them, whatever it stood on.
TEST(Spread, OneStopInClosedForm) {
  auto in = turned_over(0.05, 0.01);
  in.features.push_back(plane("shelf", {0, 0, 12}, Vec3::UnitZ()));
  in.setups.pop_back();
  in.setups[0].cuts.push_back({4, 0.02});
  in.requirements = {{"shelf to top", 4, 1, Vec3::UnitZ(), {10, 10, 15}},
                     {"raw foot to top", 0, 1, Vec3::UnitZ(), {0, -5, 0}}};
  const auto found = spread(in);
  EXPECT_NEAR(found.requirements[0].sigma, std::hypot(0.01, 0.02), 1e-12);
  // To the foot that stays raw: it counts itself, and where it was stood on a third of three raw places and
  // of three locators.
  const double raw = 0.5, at = (raw * raw + 0.05 * 0.05) / 3;
  EXPECT_NEAR(found.requirements[1].sigma, std::sqrt(raw * raw + at + 0.01 * 0.01), 1e-12);
  EXPECT_NEAR(found.requirements[1].raw, raw * raw / (raw * raw + at + 0.0001), 1e-12);
}

TEST(Spread, SharesSumToOneAndTrialsAgreeWithinTwoPerCent) {
  std::mt19937_64 random(5);
  std::uniform_real_distribution<double> any(-1, 1), some(0.005, 0.05);
  const auto direction = [&] { return Vec3(any(random), any(random), any(random)).normalized(); };
  for (int round = 0; round < 4; ++round) {
    SpreadInput in;
    for (int f = 0; f < 8; ++f)
      in.features.push_back({fmt::format("f{}", f), f % 3 == 0,
                             30 * Vec3(any(random), any(random), any(random)), direction(),
                             0.2 + some(random)});
    for (int s = 0; s < 4; ++s) {
      SpreadSetup setup;
      setup.id = fmt::format("setup {}", s);
      const Mat3 turn = rotation_from_vector(direction());
      for (auto l : three_two_one(static_cast<int>(random() % 8), static_cast<int>(random() % 8),
                                  static_cast<int>(random() % 8), 0, some(random))) {
        l.at = turn * l.at;
        l.direction = turn * l.direction;
        setup.locators.push_back(l);
      }
      setup.cuts = {{2 * s, some(random)}, {2 * s + 1, some(random)}};
      in.setups.push_back(setup);
    }
    in.setups.back().cuts.pop_back(); // one stays raw
    for (int r = 0; r < 6; ++r)
      in.requirements.push_back(
          {fmt::format("r{}", r), r, r + 2, direction(), 20 * Vec3(any(random), any(random), any(random))});
    const auto found = spread(in);
    ASSERT_TRUE(found.usable()) << found.message;
    const auto tried = spread_by_trial(in, 20000, 11 + static_cast<std::uint64_t>(round));
    for (std::size_t r = 0; r < tried.size(); ++r) {
      EXPECT_NEAR(tried[r], found.requirements[r].sigma, 0.02 * found.requirements[r].sigma)
          << round << ' ' << r;
      double sum = found.requirements[r].raw;
      for (const auto& share : found.requirements[r].shares) sum += share.locating + share.cutting;
      EXPECT_NEAR(sum, 1, 1e-12);
    }
    EXPECT_EQ(spread_by_trial(in, 100, 3), spread_by_trial(in, 100, 3));
  }
}

TEST(Spread, WhatDoesNotFixThePartIsNamed) {
  auto in = turned_over(0.02, 0.01);
  in.setups[1].locators[5] = in.setups[1].locators[4];
  const auto loose = spread(in);
  EXPECT_EQ(loose.status, SpreadStatus::loose);
  EXPECT_EQ(loose.message, "foot up: its six locators do not fix the part");
  in.setups[1].locators.pop_back();
  EXPECT_EQ(spread(in).message, "foot up: six locators are wanted, there are 5");
  in.setups.pop_back();
  in.requirements[0].to = 9;
  EXPECT_EQ(spread(in).message, "thick at the middle of the three: is between features that are not there");
  EXPECT_TRUE(spread_by_trial(in, 10, 1).empty());
}
