#include "casting/seat_check.h"

#include "casting/seat.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {
namespace {

double margin_of(const SeatInput& input, const HeldBy& hold, const Pose& pose) {
  const auto& point = input.points[static_cast<std::size_t>(hold.point)];
  const Vec3 at = pose.apply(point.xyz);
  if (hold.wall_to < 0) {
    const auto& surface = input.surfaces[static_cast<std::size_t>(hold.surface)];
    return stock_at(surface.shape, at) - surface.required - surface.favour - point.uncertainty;
  }
  double least = 0;
  for (const auto& wall : input.walls)
    if (wall.from == hold.surface && wall.to == hold.wall_to) least = wall.least;
  return -stock_at(input.surfaces[static_cast<std::size_t>(hold.wall_to)].shape, at) - least -
         point.uncertainty;
}

} // namespace

SeatCheck check_seat(const SeatInput& input, const Pose& pose, double least,
                     const std::vector<HeldBy>& held_by, const SeatCheckOptions& options) {
  SeatCheck check;
  const auto margins = margins_at(input, pose);
  check.shortfall = std::max(0.0, least - margins.least_weighed);

  Vec3 centre = Vec3::Zero();
  for (const auto& point : input.points) centre += pose.apply(point.xyz);
  centre /= static_cast<double>(std::max<std::size_t>(1, input.points.size()));
  if (options.centre) centre = *options.centre;
  double size = 0;
  for (const auto& point : input.points) size = std::max(size, (pose.apply(point.xyz) - centre).norm());
  size = std::max(size, 1e-6);

  double sum = 0;
  Eigen::Matrix<double, 6, 1> balance = Eigen::Matrix<double, 6, 1>::Zero();
  const double step = 1e-5 * size;
  for (const auto& hold : held_by) {
    check.margin_error = std::max(check.margin_error, std::abs(margin_of(input, hold, pose) - least));
    check.least_share = std::min(check.least_share, hold.share);
    sum += hold.share;
    for (int j = 0; j < 6; ++j) {
      if (options.locked[static_cast<std::size_t>(j)]) continue;
      const Vec3 unit = Vec3::Unit(j % 3);
      const Vec3 move = j < 3 ? Vec3(step * unit) : Vec3(Vec3::Zero());
      const Vec3 turn = j < 3 ? Vec3(Vec3::Zero()) : Vec3(step / size * unit);
      balance[j] += hold.share *
                    (margin_of(input, hold, moved(pose, centre, move, turn)) -
                     margin_of(input, hold, moved(pose, centre, -move, -turn))) /
                    (2 * step);
    }
  }
  check.sum_error = std::abs(sum - 1);
  check.imbalance = balance.cwiseAbs().maxCoeff();

  const auto fail = [&](std::string text) {
    if (check.message.empty()) check.message = std::move(text);
  };
  if (check.shortfall > options.margin_tolerance)
    fail(fmt::format("some margin is {:.2g} mm below the least stated", check.shortfall));
  if (check.margin_error > options.margin_tolerance)
    fail(fmt::format("a holding touch stands {:.2g} mm off the least margin", check.margin_error));
  if (-check.least_share > 1e-12) fail(fmt::format("a share is negative: {:.2g}", check.least_share));
  if (check.sum_error > options.balance_tolerance)
    fail(fmt::format("the shares sum to 1 only within {:.2g}", check.sum_error));
  if (check.imbalance > options.balance_tolerance)
    fail(fmt::format("what holds it is out of balance by {:.2g}", check.imbalance));
  check.holds = check.message.empty();
  return check;
}

} // namespace datrin::casting
