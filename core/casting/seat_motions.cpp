#include "casting/seat_motions.h"

#include <algorithm>
#include <cmath>

namespace datrin::casting {

namespace {

/// Rates this near to depending on each other are taken to: they do at an optimum.
constexpr double dependent = 2e-3;

} // namespace

void AllowedMotions::allow(const Motions& motions, const Vector& radius) {
  basis_ = motions;
  radius_ = radius;
  gone_ = Vector::Zero(motions.cols());
  wary_ = Vector::Constant(motions.cols(), no_margin);
}

bool AllowedMotions::limited(Eigen::Index j) const {
  return std::isfinite(radius_[j]);
}

bool AllowedMotions::any_limited() const {
  return radius_.array().isFinite().any();
}

bool AllowedMotions::may_go(const Vector& motion, double tolerance) const {
  return ((gone_ + motion).cwiseAbs() - radius_).maxCoeff() <= tolerance;
}

void AllowedMotions::bound(margin::LinearMargins& linear, double reach) const {
  const Vector far_enough = wary_.cwiseMin(reach);
  linear.lower = (-radius_ - gone_).cwiseMax(-far_enough).cwiseMin(0.0);
  linear.upper = (radius_ - gone_).cwiseMin(far_enough).cwiseMax(0.0);
}

Vec6 AllowedMotions::in_space(const Vector& y) const {
  Vec6 d = Vec6::Zero();
  for (Eigen::Index j = 0; j < basis_.cols(); ++j) d += y[j] * basis_.col(j);
  return d;
}

Vec6 AllowedMotions::rate_of(const RowRef& row, const Pose& pose) const {
  return row_gradient(groups_[static_cast<std::size_t>(row.group)], row.at, pose, start_.centre, start_.size)
      .rate;
}

Pose AllowedMotions::moved_by(const Pose& from, const Vector& y) const {
  const Vec6 d = in_space(y);
  return restored(moved(from, start_.centre, d.head<3>(), d.tail<3>() / start_.size));
}

Vector AllowedMotions::motion_to(const Pose& from, const Pose& to) const {
  Vec6 d;
  d << to.apply(from.inverse().apply(start_.centre)) - start_.centre,
      start_.size * vector_from_rotation(to.rotation * from.rotation.transpose());
  return basis_.transpose() * d;
}

void AllowedMotions::went(const Pose& to, const Vector& motion) {
  gone_ += motion;
  basis_ = basis_at(to);
}

void AllowedMotions::turn_to(const FlatMotions& flat, double promised) {
  const auto across = basis_.cols() - flat.motions.cols();
  if (flat.motions.cols() == 0) return;
  // What is left of the basis besides the flat motions.
  const Matrix whole = orthogonal_completion(basis_.transpose() * flat.motions);
  Motions turned(6, basis_.cols());
  turned << product(basis_, whole.rightCols(across)), flat.motions;
  basis_ = turned;
  gone_.setZero();
  wary_.setConstant(no_margin);
  for (Eigen::Index j = 0; j < flat.bend.size(); ++j)
    if (std::abs(flat.bend[j]) > 1e-7)
      wary_[across + j] = std::sqrt(std::max(promised, 1e-12) / std::abs(flat.bend[j]));
}

Pose AllowedMotions::restored(Pose pose) const {
  if (pins_.empty()) return pose;
  const auto n = static_cast<Eigen::Index>(pins_.size());
  Matrix rates(n, start_.held.cols());
  Vector missing(n);
  for (int round = 0; round < 4; ++round) {
    for (Eigen::Index i = 0; i < n; ++i) {
      const auto& [row, target] = pins_[static_cast<std::size_t>(i)];
      const auto g = row_gradient(groups_[static_cast<std::size_t>(row.group)], row.at, pose, start_.centre,
                                  start_.size);
      rates.row(i) = g.rate.transpose() * start_.held;
      missing[i] = target - g.margin;
    }
    if (missing.cwiseAbs().maxCoeff() < 1e-11) break;
    const Vec6 d = product(start_.held, least_norm(rates, missing, dependent));
    if (!(d.norm() < 0.1 * start_.size) || d.norm() < 1e-12) break;
    pose = moved(pose, start_.centre, d.head<3>(), d.tail<3>() / start_.size);
  }
  return pose;
}

Matrix AllowedMotions::pin_rates(const Pose& pose) const {
  Matrix rates(6, static_cast<Eigen::Index>(pins_.size()));
  for (std::size_t i = 0; i < pins_.size(); ++i)
    rates.col(static_cast<Eigen::Index>(i)) = rate_of(pins_[i].first, pose);
  return rates;
}

Motions AllowedMotions::basis_at(const Pose& pose) const {
  if (pins_.empty() || basis_.cols() == 0) return basis_;
  const Matrix rates = transposed_product(pin_rates(pose), start_.held);
  Matrix inside = start_.held.transpose() * basis_;
  inside -= least_norm(rates, product(rates, inside), dependent);
  for (Eigen::Index j = 0; j < inside.cols(); ++j) { // orthonormal again, column by column
    for (Eigen::Index k = 0; k < j; ++k) inside.col(j) -= inside.col(k) * inside.col(k).dot(inside.col(j));
    inside.col(j).normalize();
  }
  return product(start_.held, inside);
}

std::vector<PressingRow> AllowedMotions::pin_prices(const std::vector<PressingRow>& presses,
                                                    const Pose& pose) const {
  std::vector<PressingRow> prices;
  if (pins_.empty()) return prices;
  Vec6 force = Vec6::Zero();
  for (const auto& [row, price] : presses) force += price * rate_of(row, pose);
  const Vector price = least_norm(pin_rates(pose), -force, dependent);
  for (std::size_t i = 0; i < pins_.size(); ++i)
    prices.push_back({pins_[i].first, price[static_cast<Eigen::Index>(i)]});
  return prices;
}

} // namespace datrin::casting
