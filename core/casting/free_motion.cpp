#include "casting/free_motion.h"

#include "quantity/length_text.h"

#include <Eigen/SVD>
#include <fmt/format.h>

#include <cmath>

namespace datrin::casting {
namespace {

constexpr double small = 1e-6;

/// Unit vectors spanning the columns of `vectors`, coordinate axes first where they lie in the span.
std::vector<Vec3> plain_basis(const Eigen::Matrix<double, 3, Eigen::Dynamic>& vectors) {
  std::vector<Vec3> basis;
  if (vectors.cols() == 0) return basis;
  const Eigen::JacobiSVD<Eigen::MatrixXd> svd(vectors, Eigen::ComputeThinU);
  const auto& values = svd.singularValues();
  int rank = 0;
  while (rank < values.size() && values[rank] > small) ++rank;
  const Eigen::MatrixXd span = svd.matrixU().leftCols(rank);
  const auto add = [&](Vec3 v) {
    for (const auto& b : basis) v -= b * b.dot(v);
    if (v.norm() > 1e-4 && static_cast<int>(basis.size()) < rank) basis.push_back(v.normalized());
  };
  for (int i = 0; i < 3; ++i) {
    const Vec3 axis = Vec3::Unit(i);
    if ((axis - span * (span.transpose() * axis)).norm() < 1e-5) add(axis);
  }
  for (int k = 0; k < rank; ++k) add(span.col(k));
  return basis;
}

} // namespace

std::string FreeMotion::name() const {
  const std::string verb = turning ? "turning about " : "moving along ";
  for (int i = 0; i < 3; ++i)
    if (std::abs(std::abs(direction[i]) - 1) < 1e-6) return verb + "xyz"[i];
  return verb + fmt::format("({}, {}, {})", number_text(direction.x(), 2), number_text(direction.y(), 2),
                            number_text(direction.z(), 2));
}

std::vector<FreeMotion> name_motions(const Columns6& free, double size) {
  std::vector<FreeMotion> motions;
  if (free.cols() == 0) return motions;
  const Eigen::MatrixXd turns = free.bottomRows<3>() / std::max(size, 1e-12);
  // Combinations of the columns without any turn are travels.
  const Eigen::JacobiSVD<Eigen::MatrixXd> svd(turns, Eigen::ComputeFullV);
  int rank = 0;
  while (rank < svd.singularValues().size() && svd.singularValues()[rank] * size > small) ++rank;
  const Eigen::MatrixXd still = svd.matrixV().rightCols(free.cols() - rank);
  Eigen::Matrix<double, 3, Eigen::Dynamic> travels = free.topRows<3>() * still;
  for (const auto& direction : plain_basis(travels)) motions.push_back({false, direction, false});
  Eigen::Matrix<double, 3, Eigen::Dynamic> axes = turns * size;
  for (const auto& direction : plain_basis(axes)) motions.push_back({true, direction, false});
  return motions;
}

std::vector<FreeMotion> one_way_motions(const Columns6& rows) {
  std::vector<FreeMotion> motions;
  for (int j = 0; j < 6; ++j) {
    bool up = false, down = false;
    for (int i = 0; i < rows.cols(); ++i) {
      up = up || rows(j, i) > small;
      down = down || rows(j, i) < -small;
    }
    if (up != down) motions.push_back({j >= 3, Vec3::Unit(j % 3), true});
  }
  return motions;
}

} // namespace datrin::casting
