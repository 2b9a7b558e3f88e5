#include "casting/seat_start.h"

#include "geometry/solve.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>

namespace datrin::casting {
namespace {

using Mat6 = Eigen::Matrix<double, 6, 6>;

constexpr int most_used = 400;         // touches a group: plenty for a start
constexpr double felt_relative = 1e-9; // eigenvalue below this part of the largest: no touch feels the motion

struct Sample {
  const Group* group = nullptr;
  Surface pull_to;   ///< surface the touch is pulled onto
  double target = 0; ///< stock it should have there
  double weight = 1;
  int at = 0;
};

std::vector<Sample> samples_of(const SeatInput& input, const std::vector<Group>& groups) {
  std::vector<Sample> samples;
  for (const auto& group : groups) {
    const int stride = std::max(1, group.size() / most_used);
    const int used = (group.size() + stride - 1) / stride;
    Sample sample;
    sample.group = &group;
    const auto& touched = input.surfaces[static_cast<std::size_t>(group.surface)];
    sample.pull_to = group.wall < 0 ? group.target : touched.shape;
    sample.target = group.wall < 0 ? touched.required : 0.0;
    sample.weight = 1.0 / used;
    for (int k = 0; k < group.size(); k += stride) {
      sample.at = k;
      samples.push_back(sample);
    }
  }
  return samples;
}

Vec3 survey_point(const Sample& s) {
  return {s.group->x[s.at], s.group->y[s.at], s.group->z[s.at]};
}

struct Frame {
  Vec3 centre = Vec3::Zero();
  double size = 1;
};

Frame frame_of(const std::vector<Sample>& samples, const Pose& pose) {
  Frame frame;
  for (const auto& s : samples) frame.centre += pose.apply(survey_point(s));
  frame.centre /= static_cast<double>(samples.size());
  double square = 0;
  for (const auto& s : samples) square += (pose.apply(survey_point(s)) - frame.centre).squaredNorm();
  frame.size = std::max(1e-3, std::sqrt(square / static_cast<double>(samples.size())));
  return frame;
}

double cost_at(const std::vector<Sample>& samples, const Pose& pose) {
  double cost = 0;
  for (const auto& s : samples) {
    const double r = stock_at(s.pull_to, pose.apply(survey_point(s))) - s.target;
    cost += s.weight * r * r;
  }
  return cost;
}

/// Σ w g gᵀ over the rates of the margins themselves, whose null vectors are the free motions.
Mat6 felt(const std::vector<Sample>& samples, const Pose& pose, const Frame& frame) {
  Mat6 sum = Mat6::Zero();
  for (const auto& s : samples) {
    const auto row = row_gradient(*s.group, s.at, pose, frame.centre, frame.size);
    sum += s.weight * row.rate * row.rate.transpose();
  }
  return sum;
}

void split(const Mat6& sum, SeatStart& start) {
  const auto eigen = symmetric_eigen(sum);
  int zero = 0;
  while (zero < 6 && eigen.values[zero] <= felt_relative * eigen.values[5]) ++zero;
  start.free = eigen.vectors.leftCols(zero);
  start.held = zero == 0 ? Motions(Mat6::Identity()) : Motions(eigen.vectors.rightCols(6 - zero));
}

/// What is left of the span of `motions` (orthonormal) when the locked components must be 0.
void take_out(const std::array<bool, 6>& locked, Motions& motions) {
  std::vector<int> rows;
  for (int k = 0; k < 6; ++k)
    if (locked[static_cast<std::size_t>(k)]) rows.push_back(k);
  if (rows.empty() || motions.cols() == 0) return;
  Matrix shut(static_cast<Eigen::Index>(rows.size()), motions.cols());
  for (std::size_t k = 0; k < rows.size(); ++k) shut.row(static_cast<Eigen::Index>(k)) = motions.row(rows[k]);
  const auto svd = singular_values(shut);
  motions = Motions(product(motions, svd.v.rightCols(motions.cols() - svd.rank(1e-9))));
}

} // namespace

SeatStart least_squares_start(const SeatInput& input, const std::vector<Group>& groups, const Pose& from,
                              const std::array<bool, 6>& locked) {
  const auto samples = samples_of(input, groups);
  SeatStart start;
  start.pose = from;
  double cost = cost_at(samples, start.pose);
  double damping = 1e-3;
  for (int step = 0; step < 60; ++step) {
    const auto frame = frame_of(samples, start.pose);
    Mat6 jtj = Mat6::Zero();
    Vec6 jtr = Vec6::Zero();
    for (const auto& s : samples) {
      const Vec3 x = start.pose.apply(survey_point(s));
      const Vec3 direction = stock_direction(s.pull_to, x);
      Vec6 rate;
      rate << direction, (x - frame.centre).cross(direction) / frame.size;
      const double r = stock_at(s.pull_to, x) - s.target;
      for (int k = 0; k < 6; ++k)
        if (locked[static_cast<std::size_t>(k)]) rate[k] = 0;
      jtj += s.weight * rate * rate.transpose();
      jtr += s.weight * rate * r;
    }
    const auto eigen = symmetric_eigen(jtj);
    bool better = false;
    Vec6 d = Vec6::Zero();
    for (int attempt = 0; attempt < 12 && !better; ++attempt) {
      d.setZero();
      for (int k = 0; k < 6; ++k) {
        const double value = eigen.values[k];
        if (value <= felt_relative * eigen.values[5]) continue;
        const Vec6 axis = eigen.vectors.col(k);
        d -= axis * (axis.dot(jtr) / (value + damping * eigen.values[5]));
      }
      const Pose trial = moved(start.pose, frame.centre, d.head<3>(), d.tail<3>() / frame.size);
      const double trial_cost = cost_at(samples, trial);
      better = trial_cost < cost;
      if (better) {
        start.pose = trial;
        cost = trial_cost;
        damping = std::max(1e-12, damping * 0.05);
      } else {
        damping *= 10;
      }
    }
    if (!better || d.norm() < 1e-4) break;
  }
  const auto frame = frame_of(samples, start.pose);
  start.centre = frame.centre;
  start.size = frame.size;
  split(felt(samples, start.pose, frame), start);
  take_out(locked, start.held);
  take_out(locked, start.free);
  return start;
}

std::vector<FreeMotion> growing_motions(const std::vector<Group>& groups, const Pose& pose,
                                        const SeatStart& start, const Vec6& way_out) {
  Columns6 rates(6, 0);
  for (const auto& group : groups)
    for (int k = 0; k < group.size(); k += std::max(1, group.size() / 200)) {
      rates.conservativeResize(6, rates.cols() + 1);
      rates.col(rates.cols() - 1) = row_gradient(group, k, pose, start.centre, start.size).rate;
    }
  auto motions = one_way_motions(rates);
  if (motions.empty()) {
    const bool turning = way_out.tail<3>().norm() > way_out.head<3>().norm();
    const Vec3 part = turning ? Vec3(way_out.tail<3>()) : Vec3(way_out.head<3>());
    if (part.norm() > 0) motions.push_back({turning, part.normalized(), true});
  }
  return motions;
}

} // namespace datrin::casting
