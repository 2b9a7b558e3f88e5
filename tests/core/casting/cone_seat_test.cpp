// A casting with a taper shank: seat, room, how sure, how it was cast, and how it is turned about. The best
// seat has a closed form.

#include "casting/as_cast.h"
#include "casting/certainty.h"
#include "casting/seat.h"
#include "quantity/unit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::casting;

namespace {

const double half_angle_of_cone = radians(10);
const double shank_stock = 1.5, end_stock = 2.0;

/// A shank ⌀20 at its thin end growing over 40 mm, with a face at each end, touched everywhere with even
/// stock.
SeatInput shank() {
  SeatInput in;
  const double slope = std::tan(half_angle_of_cone);
  in.surfaces.push_back(
      {"shank", {SurfaceKind::taper_shank, Vec3::Zero(), Vec3::UnitX(), 20, half_angle_of_cone}, true, 0});
  in.surfaces.push_back({"thin end", {SurfaceKind::plane, Vec3::Zero(), -Vec3::UnitX(), 0}, true, 0});
  in.surfaces.push_back({"thick end", {SurfaceKind::plane, {40, 0, 0}, Vec3::UnitX(), 0}, true, 0});
  for (const double z : {5.0, 20.0, 35.0})
    for (int k = 0; k < 6; ++k) {
      const double turn = k * pi / 3, rho = 10 + z * slope + shank_stock / std::cos(half_angle_of_cone);
      in.points.push_back({0, {z, rho * std::cos(turn), rho * std::sin(turn)}, 0});
    }
  for (int k = 0; k < 4; ++k) {
    const double turn = k * pi / 2 + 0.4;
    in.points.push_back({1, {-end_stock, 8 * std::cos(turn), 8 * std::sin(turn)}, 0});
    in.points.push_back({2, {40 + end_stock, 8 * std::cos(turn), 8 * std::sin(turn)}, 0});
  }
  return in;
}

} // namespace

// Moving the part by d towards the thin end adds d sin α to the stock all round and takes d off the thin end:
// the least is greatest where 1.5 + d sin α = 2 − d.
TEST(ConeSeat, TradesTheEndsForTheSideAtTheSineOfItsHalfAngle) {
  const double d = (end_stock - shank_stock) / (1 + std::sin(half_angle_of_cone));
  auto in = shank();
  Pose astray;
  astray.rotation = rotation_from_vector({0.01, 0.02, -0.015});
  astray.translation = {3, -2, 1};
  for (auto& p : in.points) p.xyz = astray.apply(p.xyz);
  const auto result = seat(in);
  ASSERT_TRUE(result.usable()) << result.message;
  EXPECT_NEAR(result.margins.least, shank_stock + d * std::sin(half_angle_of_cone), 1e-5);
  EXPECT_TRUE(result.check.holds) << result.check.message;
  // Turning it about its own axis changes nothing, and that is said.
  ASSERT_EQ(result.undetermined.size(), 1u);
}

TEST(ConeSeat, RoomBetweenTheTouchesIsSimulatedToo) {
  const auto in = shank();
  const auto sure = certainty(in, Pose{}, {{0, 40}, {16, 16}, {16, 16}});
  ASSERT_TRUE(sure.usable()) << sure.message;
  const auto margins = margins_at(in, Pose{});
  for (const auto& g : sure.groups)
    if (margins.groups[static_cast<std::size_t>(g.group)].surface == 0) {
      EXPECT_LT(g.sure, shank_stock);
      EXPECT_GT(g.sure, shank_stock - 0.3);
    }
}

// The cast shape is found again: nothing was put in but even stock.
TEST(ConeSeat, CastAsItWasMade) {
  const auto made = as_cast(shank(), Pose{});
  ASSERT_EQ(made.surfaces.size(), 3u);
  EXPECT_TRUE(made.surfaces[0].fitted);
  EXPECT_NEAR(made.surfaces[0].roughness, 0, 0.01);
}
