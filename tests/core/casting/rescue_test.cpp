#include "casting/rescue.h"

#include "sim/pedestal.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::casting;

namespace {

SeatInput tight_casting(std::uint64_t seed, double tightness = 1.15) {
  sim::PedestalOptions options;
  options.seed = seed;
  options.tightness = tightness;
  return sim::random_pedestal(options).input;
}

} // namespace

TEST(Rescue, WhatIsOfferedSavesItAndALittleLessDoesNot) {
  int found = 0;
  for (std::uint64_t seed = 50; seed < 58; ++seed) {
    const auto input = tight_casting(seed);
    const auto result = find_rescues(input);
    if (result.status != RescueStatus::found) continue;
    EXPECT_GT(result.short_by, 0);
    for (const auto& rescue : result.rescues) {
      ++found;
      SeatOptions options;
      options.start = rescue.pose;
      EXPECT_GE(seat(with_changes(input, rescue.changes), options).margins.least, -1e-6) << rescue.what;
      for (std::size_t k = 0; k < rescue.changes.size(); ++k) {
        auto less = rescue.changes;
        const double by = std::min(less[k].amount, 0.03);
        less[k].amount -= by;
        if (less[k].shift.norm() > 0) less[k].shift *= less[k].amount / (less[k].amount + by);
        EXPECT_LT(seat(with_changes(input, less), options).margins.least, 1e-6) << rescue.what;
      }
    }
  }
  EXPECT_GE(found, 10);
}

TEST(Rescue, TwoFacesTooNearNeedTheDifference) {
  // Two parallel faces 10 apart in the drawing, 10.6 of metal, 0.5 needed on each: 0.4 is missing, whichever
  // way.
  SeatInput input;
  input.surfaces = {{"top", {SurfaceKind::plane, {0, 0, 10}, Vec3::UnitZ(), 0}, true, 0.5},
                    {"bottom", {SurfaceKind::plane, {0, 0, 0}, -Vec3::UnitZ(), 0}, true, 0.5}};
  for (const double x : {-10.0, 10.0})
    for (const double y : {-10.0, 10.0}) {
      input.points.push_back({0, {x, y, 10.3}, 0});
      input.points.push_back({1, {x, y, -0.3}, 0});
    }
  const auto result = find_rescues(input);
  ASSERT_EQ(result.status, RescueStatus::found) << result.message;
  EXPECT_NEAR(result.short_by, 0.2, 1e-6); // half each side
  for (const auto& rescue : result.rescues) {
    ASSERT_EQ(rescue.changes.size(), 1U);
    EXPECT_NEAR(rescue.changes[0].amount, 0.4, 0.006) << rescue.what;
  }
  EXPECT_EQ(result.rescues[0].what, "leave top low by 0.40\u202Fmm");
  EXPECT_EQ(result.rescues[0].elsewhere,
            "top keeps 0.10\u202Fmm of the 0.50\u202Fmm it needs: skin may show there");
  const auto moved = std::find_if(result.rescues.begin(), result.rescues.end(),
                                  [](const Rescue& r) { return r.changes[0].kind == RescueKind::move_face; });
  ASSERT_NE(moved, result.rescues.end());
  EXPECT_EQ(moved->elsewhere, "top to bottom becomes 9.60\u202Fmm, was 10.00\u202Fmm");
}

TEST(Rescue, ADriftedCoreIsSavedByMovingItsBore) {
  auto input = tight_casting(5, 0.6);
  for (auto& point : input.points)
    if (point.surface == 5) point.xyz += Vec3(3.0, 0, 0);
  const auto result = find_rescues(input);
  ASSERT_EQ(result.status, RescueStatus::found) << result.message;
  const auto shift = std::find_if(result.rescues.begin(), result.rescues.end(), [](const Rescue& r) {
    return r.changes[0].kind == RescueKind::shift_bore;
  });
  ASSERT_NE(shift, result.rescues.end());
  EXPECT_GT(shift->changes[0].shift.x(), 0.2); // the way the core went
  EXPECT_NE(shift->elsewhere.find("bore to end b becomes"), std::string::npos) << shift->elsewhere;
}

TEST(Rescue, WhatCleansUpNeedsNone) {
  EXPECT_EQ(find_rescues(tight_casting(4, 0)).status, RescueStatus::not_needed);
}

TEST(Rescue, WhatNothingSavesSaysSo) {
  RescueOptions options;
  options.most = 0.02;
  const auto result = find_rescues(tight_casting(53), options);
  EXPECT_EQ(result.status, RescueStatus::none);
  EXPECT_EQ(result.message, "changes of up to 0.02\u202Fmm each do not save it");
}

TEST(Rescue, CanBeStopped) {
  RescueOptions options;
  int asked = 0;
  options.should_stop = [&asked] { return ++asked > 40; };
  EXPECT_EQ(find_rescues(tight_casting(53), options).status, RescueStatus::stopped);
}
