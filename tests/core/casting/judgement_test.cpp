#include "casting/judgement.h"

#include "geometry/best_fit.h"
#include "sim/pedestal.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::casting;

namespace {

sim::Pedestal tight(std::uint64_t seed, double tightness = 1.0) {
  sim::PedestalOptions options;
  options.seed = seed;
  options.tightness = tightness;
  return sim::random_pedestal(options);
}

} // namespace

TEST(Judgement, LockedMotionsAreNotMovedAndTheRestIsProvedBest) {
  for (std::uint64_t seed = 1; seed <= 12; ++seed) {
    const auto pedestal = tight(seed);
    SeatOptions options;
    options.start = moved(pedestal.truth, Vec3(0, 0, 34), {0.2, 0.1, -0.1}, {0.004, 0.002, -0.003});
    options.locked = {false, true, false, true, true, true};
    const auto found = seat(pedestal.input, options);
    ASSERT_TRUE(found.usable()) << found.message;
    EXPECT_TRUE(found.check.holds) << found.check.message;
    EXPECT_LT(vector_from_rotation(found.pose.rotation * options.start.rotation.transpose()).norm(), 1e-12);
    EXPECT_NEAR(found.pose.translation.y(), options.start.translation.y(), 1e-9);
    EXPECT_LE(found.margins.least, seat(pedestal.input).margins.least + 1e-6);
    // No neighbour that keeps the locks does better.
    for (const double dx : {-0.05, 0.0, 0.05})
      for (const double dz : {-0.05, 0.0, 0.05}) {
        auto near = found.pose;
        near.translation += Vec3(dx, 0, dz);
        EXPECT_LE(margins_at(pedestal.input, near).least, found.margins.least + 1e-9);
      }
  }
}

TEST(Judgement, AllLockedStaysWhereItIs) {
  const auto pedestal = tight(3);
  SeatOptions options;
  options.start = pedestal.truth;
  options.locked.fill(true);
  const auto found = seat(pedestal.input, options);
  EXPECT_TRUE(found.usable());
  EXPECT_EQ(found.pose.translation, pedestal.truth.translation);
  EXPECT_EQ(found.margins.least, margins_at(pedestal.input, pedestal.truth).least);
}

TEST(Judgement, AFavouredSurfaceGetsItsRoomFirst) {
  for (std::uint64_t seed = 1; seed <= 8; ++seed) {
    auto input = tight(seed).input;
    const auto even = seat(input);
    input.surfaces[0].favour = 0.25;
    const auto favoured = seat(input);
    ASSERT_TRUE(favoured.usable());
    EXPECT_TRUE(favoured.check.holds) << favoured.check.message;
    EXPECT_GE(favoured.margins.groups[0].margin, favoured.margins.least_weighed + 0.25 - 1e-6);
    EXPECT_LE(favoured.margins.least, even.margins.least + 1e-6);
  }
}

TEST(Judgement, ACentralBoreSitsOnTheMiddleOfTheRoughBoss) {
  const auto pedestal = tight(5, 0.4);
  SeatWishes wishes;
  wishes.central_bore = 5;
  EXPECT_EQ(around(pedestal.input, 5), 6);
  const auto found = wished_seat(pedestal.input, wishes);
  ASSERT_TRUE(found.usable()) << found.message;
  std::vector<Vec2> boss;
  for (const auto& p : pedestal.input.points)
    if (p.surface == 6) {
      const Vec3 at = found.pose.apply(p.xyz);
      boss.push_back({at.x(), at.z() - 34});
    }
  EXPECT_LT(fit_circle(boss)->centre.norm(), 0.02);
  EXPECT_LE(found.margins.least, seat(pedestal.input).margins.least + 1e-6);

  auto no_boss = pedestal.input;
  no_boss.surfaces[6].shape.diameter = 30;
  no_boss.surfaces[6].shape.point.x() = 5;
  EXPECT_EQ(wished_seat(no_boss, wishes).message,
            "bore has no boss around it in the drawing to be central in");
}

TEST(Judgement, NoHandRuleBeatsTheSeat) {
  int possible = 0;
  for (std::uint64_t seed = 1; seed <= 20; ++seed) {
    const auto pedestal = tight(seed);
    const auto best = seat(pedestal.input);
    for (const auto& hand : hand_seats(pedestal.input, pedestal.truth)) {
      possible += hand.possible ? 1 : 0;
      EXPECT_LE(hand.margins.least, best.margins.least + 1e-6) << hand.name;
    }
  }
  EXPECT_EQ(possible, 60);
}

TEST(Judgement, TheBalanceNamesEveryTouchOnce) {
  const auto pedestal = tight(7);
  const auto found = seat(pedestal.input);
  std::string all;
  for (const auto& line : explain_balance(pedestal.input, found)) all += line + "\n";
  for (const auto& hold : found.held_by) {
    const auto name = pedestal.input.surfaces[static_cast<std::size_t>(hold.surface)].id + " " +
                      std::to_string(hold.point + 1);
    EXPECT_NE(all.find(name), std::string::npos) << name << "\n" << all;
  }
}

TEST(Judgement, EasingGainsWhatItSays) {
  // The shadow price against a finite difference of the seat itself.
  for (std::uint64_t seed = 1; seed <= 6; ++seed) {
    const auto pedestal = tight(seed);
    const auto before = seat(pedestal.input);
    for (const auto& easing : easings(before, 1e-4)) {
      if (easing.wall_to >= 0) continue;
      auto eased = pedestal.input;
      eased.surfaces[static_cast<std::size_t>(easing.surface)].required -= 1e-4;
      EXPECT_NEAR(seat(eased).margins.least - before.margins.least, easing.gain, 2e-5);
    }
  }
}
