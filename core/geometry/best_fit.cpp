#include "geometry/best_fit.h"

#include "geometry/solve.h"

#include <cmath>

namespace datrin {
namespace {

Vec2 mean_of(const std::vector<Vec2>& points) {
  Vec2 sum = Vec2::Zero();
  for (const auto& p : points) sum += p;
  return sum / static_cast<double>(points.size());
}

} // namespace

std::optional<Line2> fit_line(const std::vector<Vec2>& points) {
  if (points.size() < 2) return std::nullopt;
  const Vec2 mean = mean_of(points);
  Eigen::Matrix2d scatter = Eigen::Matrix2d::Zero();
  for (const auto& p : points) scatter += (p - mean) * (p - mean).transpose();
  const auto eigen = symmetric_eigen(scatter);
  if (!(eigen.values[1] > 0)) return std::nullopt;
  return Line2{mean, eigen.vectors.col(1)};
}

std::optional<Circle2> fit_circle(const std::vector<Vec2>& points) {
  if (points.size() < 3) return std::nullopt;
  const Vec2 mean = mean_of(points);
  Eigen::Matrix2d scatter = Eigen::Matrix2d::Zero();
  for (const auto& p : points) scatter += (p - mean) * (p - mean).transpose();
  const Vector spread = symmetric_eigen(scatter).values;
  if (!(spread[0] > 1e-9 * spread[1])) return std::nullopt; // on one line
  Eigen::Matrix3d normal = Eigen::Matrix3d::Zero();
  Eigen::Vector3d right = Eigen::Vector3d::Zero();
  for (const auto& p : points) {
    const Vec2 q = p - mean;
    const Eigen::Vector3d row(q.x(), q.y(), 1);
    normal += row * row.transpose();
    right += row * q.squaredNorm();
  }
  const Eigen::Vector3d s = least_norm(normal, right);
  Circle2 circle{mean + s.head<2>() / 2, std::sqrt(std::max(0.0, s[2] + s.head<2>().squaredNorm() / 4))};

  for (int step = 0; step < 20; ++step) {
    Eigen::Matrix3d jtj = Eigen::Matrix3d::Zero();
    Eigen::Vector3d jtr = Eigen::Vector3d::Zero();
    for (const auto& p : points) {
      const Vec2 e = p - circle.centre;
      const double distance = e.norm();
      if (distance < 1e-12) continue;
      const Eigen::Vector3d row(-e.x() / distance, -e.y() / distance, -1);
      jtj += row * row.transpose();
      jtr += row * (distance - circle.radius);
    }
    const auto inverted = inverse(jtj);
    if (inverted.condition < 1e-13) break;
    const Eigen::Vector3d d = Eigen::Matrix3d(inverted.inverse) * -jtr;
    circle.centre += d.head<2>();
    circle.radius += d[2];
    if (d.norm() < 1e-12) break;
  }
  if (!std::isfinite(circle.radius) || circle.radius <= 0) return std::nullopt;
  return circle;
}

} // namespace datrin
