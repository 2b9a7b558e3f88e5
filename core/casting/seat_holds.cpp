#include "casting/seat_holds.h"

#include "geometry/solve.h"

#include <algorithm>

namespace datrin::casting {

std::vector<HeldBy> balanced_holds(const SeatInput& input, const std::vector<Group>& groups,
                                   const std::vector<PressingRow>& pressed, const Pose& pose,
                                   const Vec3& centre, double size, const std::array<bool, 6>& locked) {
  constexpr double holding = 1e-7; // a share above this holds
  // Least squares of the six components under Σ = 1 (weighed heavily), nearest to the prices found.
  constexpr double weight = 1e3;
  const auto rows = static_cast<Eigen::Index>(pressed.size());
  Matrix system(7, rows);
  Vector price(rows);
  for (Eigen::Index i = 0; i < rows; ++i) {
    const auto& [row, found] = pressed[static_cast<std::size_t>(i)];
    price[i] = found;
    system.col(i)
        << row_gradient(groups[static_cast<std::size_t>(row.group)], row.at, pose, centre, size).rate,
        weight;
    for (int k = 0; k < 6; ++k) // what a lock bears need not balance
      if (locked[static_cast<std::size_t>(k)]) system(k, i) = 0;
  }
  price /= price.sum();
  Vector right = Vector::Zero(7);
  right[6] = weight;
  Vector mended = price + Vector(least_norm(system, right - Vector(product(system, price)), 1e-9));
  if (mended.minCoeff() < 0) mended = price;
  mended /= mended.sum();
  std::vector<HeldBy> holds;
  for (Eigen::Index i = 0; i < rows; ++i) {
    if (mended[i] <= holding) continue;
    const auto& row = pressed[static_cast<std::size_t>(i)].row;
    const auto& group = groups[static_cast<std::size_t>(row.group)];
    HeldBy hold;
    hold.point = group.point[static_cast<std::size_t>(row.at)];
    hold.surface = group.surface;
    hold.wall_to = group.wall < 0 ? -1 : input.walls[static_cast<std::size_t>(group.wall)].to;
    hold.share = mended[i];
    holds.push_back(hold);
  }
  std::sort(holds.begin(), holds.end(), [](const HeldBy& a, const HeldBy& b) { return a.share > b.share; });
  return holds;
}

} // namespace datrin::casting
