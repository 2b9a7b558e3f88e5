#include "casting/seat_polish.h"

#include "geometry/solve.h"

#include <algorithm>
#include <cmath>

namespace datrin::casting {
namespace {

/// A matrix in as many motions as a basis has.
using Bend = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::ColMajor, 6, 6>;

/// Σ price × curvature of the rows, in the basis.
Bend bend_of(const PolishInput& in, const std::vector<PressingRow>& rows, const Pose& pose) {
  Eigen::Matrix<double, 6, 6> sum = Eigen::Matrix<double, 6, 6>::Zero();
  for (const auto& [row, price] : rows)
    sum += price *
           row_curvature((*in.groups)[static_cast<std::size_t>(row.group)], row.at, pose, in.centre, in.size);
  return in.basis.transpose() * sum * in.basis;
}

bool newton(const PolishInput& in, PolishResult& out) {
  const auto rows = static_cast<Eigen::Index>(out.pressing.size());
  const auto n = in.basis.cols();
  double moved_by = 0;
  for (int step = 0; step < 12; ++step) {
    Matrix kkt = Matrix::Zero(n + rows + 1, n + rows + 1);
    Vector right = Vector::Zero(n + rows + 1);
    Vec6 balance = Vec6::Zero();
    double worst = 0;
    kkt.topLeftCorner(n, n) = bend_of(in, in.pins, out.pose);
    for (Eigen::Index i = 0; i < rows; ++i) {
      const auto& [row, price] = out.pressing[static_cast<std::size_t>(i)];
      const auto g = static_cast<std::size_t>(row.group);
      const auto& group = (*in.groups)[g];
      const auto gradient = row_gradient(group, row.at, out.pose, in.centre, in.size);
      const Eigen::Matrix<double, Eigen::Dynamic, 1, 0, 6, 1> rate = in.basis.transpose() * gradient.rate;
      kkt.topLeftCorner(n, n) +=
          price *
          Bend(in.basis.transpose() * row_curvature(group, row.at, out.pose, in.centre, in.size) * in.basis);
      kkt.block(0, n + i, n, 1) = rate;
      kkt.block(n + i, 0, 1, n) = rate.transpose();
      const bool held = in.held[g] != 0;
      const double target = held ? in.floors[g] : out.least;
      right[n + i] = target - gradient.margin;
      worst = std::max(worst, std::abs(right[n + i]));
      if (!held) {
        kkt(n + i, n + rows) = -1;
        kkt(n + rows, n + i) = 1;
      }
      balance += price * gradient.rate;
    }
    right[n + rows] = 1;
    double imbalance = 0;
    for (Eigen::Index j = 0; j < n; ++j)
      imbalance = std::max(imbalance, std::abs(in.basis.col(j).dot(balance)));
    if (step > 0 && worst < 1e-11 && imbalance < 1e-10) return true;

    const Vector x = least_norm(kkt, right);
    if (!x.allFinite() || (product(kkt, x) - right).cwiseAbs().maxCoeff() > 1e-7)
      return false; // the conditions contradict each other
    Vec6 d = Vec6::Zero();
    for (Eigen::Index j = 0; j < n; ++j) d += x[j] * in.basis.col(j);
    moved_by += d.norm();
    if (moved_by > in.most_move) return false;
    out.pose = moved(out.pose, in.centre, d.head<3>(), d.tail<3>() / in.size);
    out.least += x[n + rows];
    for (Eigen::Index i = 0; i < rows; ++i) out.pressing[static_cast<std::size_t>(i)].price = x[n + i];
    if (step == 11) return worst < 1e-9 && imbalance < 1e-8;
  }
  return false;
}

} // namespace

FlatMotions find_flat(const PolishInput& in, const std::vector<int>& shut) {
  FlatMotions flat;
  const auto n = in.basis.cols();
  const auto rows = static_cast<Eigen::Index>(in.pressing.size() + shut.size());
  Matrix rates = Matrix::Zero(n, rows);
  const Bend bend = bend_of(in, in.pressing, in.pose) + bend_of(in, in.pins, in.pose);
  Eigen::Index column = 0;
  for (const auto& pressing : in.pressing) {
    const auto& row = pressing.row;
    const auto& group = (*in.groups)[static_cast<std::size_t>(row.group)];
    rates.col(column++) =
        in.basis.transpose() * row_gradient(group, row.at, in.pose, in.centre, in.size).rate;
  }
  for (const int pin : shut) rates(pin, column++) = 1;
  const auto svd = singular_values(rates);
  const auto rank = svd.rank(1e-6);
  const Bend null = svd.u.rightCols(n - rank);
  if (null.cols() == 0) {
    flat.motions.resize(6, 0);
    return flat;
  }
  const auto eigen = symmetric_eigen(null.transpose() * bend * null);
  const Bend turned = eigen.vectors;
  flat.motions = in.basis * null * turned;
  flat.bend = eigen.values;
  return flat;
}

PolishResult polish(const PolishInput& input) {
  PolishResult out;
  out.pressing = input.pressing;
  // A touch whose price comes out negative only leans on the others: it is let go, one at a time.
  while (!out.pressing.empty()) {
    out.pose = input.pose;
    out.least = input.least;
    if (!newton(input, out)) return out;
    const auto least =
        std::min_element(out.pressing.begin(), out.pressing.end(),
                         [](const PressingRow& a, const PressingRow& b) { return a.price < b.price; });
    if (least->price > -1e-9) break;
    out.pressing.erase(least);
  }
  if (out.pressing.empty()) return out;
  std::erase_if(out.pressing, [](const PressingRow& row) { return row.price <= 1e-9; });
  out.converged = true;
  return out;
}

} // namespace datrin::casting
