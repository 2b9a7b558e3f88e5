#pragma once
// The touches of a seat laid out for speed: one group per machined surface and per wall, coordinates in
// separate arrays, neighbours side by side in buckets, so that one sweep gives the worst touch of every
// bucket.

#include "casting/seat_input.h"

#include <Eigen/Core>

#include <vector>

namespace datrin::casting {

/// One touch of one group.
struct RowRef {
  int group = -1;
  int at = -1; ///< position within the group's arrays
};

struct Group {
  int surface = -1;       ///< touched surface
  int wall = -1;          ///< index into SeatInput::walls, −1 for stock
  Surface target;         ///< the finished surface the margin is measured to
  double sign = 1;        ///< margin = sign × stock over `target` − allowance: a wall counts the other way
  Eigen::ArrayXd x, y, z; ///< survey frame, mm
  Eigen::ArrayXd allowance;      ///< required + favour + uncertainty
  std::vector<int> point;        ///< index into SeatInput::points
  std::vector<int> bucket_start; ///< buckets are [bucket_start[b], bucket_start[b+1])

  int size() const { return static_cast<int>(point.size()); }
  int buckets() const { return static_cast<int>(bucket_start.size()) - 1; }
};

/// The worst touch of each bucket of each group at one pose.
struct Sweep {
  struct Worst {
    double margin = no_margin;
    RowRef row;
  };
  std::vector<double> group_margin;      ///< least margin of each group
  std::vector<std::vector<Worst>> worst; ///< per group, per bucket
};

/// Groups of `input` that have touches.
std::vector<Group> make_groups(const SeatInput& input);

/// Orders each group's touches into buckets by where they lie on their surface at `pose`.
void sort_into_buckets(std::vector<Group>& groups, const Pose& pose);

/// Margins of all touches at `pose`, worst per bucket.
void sweep(const std::vector<Group>& groups, const Pose& pose, Sweep& result);

/// Margin of one touch at `pose`, and its rate of change under a small motion of the part: three components
/// per mm of travel, three per mm of turn at distance `size` from `centre` (drawing frame).
struct RowGradient {
  double margin = 0;
  Eigen::Matrix<double, 6, 1> rate;
};
RowGradient row_gradient(const Group& group, int at, const Pose& pose, const Vec3& centre, double size);

/// Second derivatives of the same margin in the same six components (symmetric, per mm).
Eigen::Matrix<double, 6, 6> row_curvature(const Group& group, int at, const Pose& pose, const Vec3& centre,
                                          double size);

} // namespace datrin::casting
