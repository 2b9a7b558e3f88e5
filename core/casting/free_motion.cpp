#include "casting/free_motion.h"

#include "geometry/solve.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::casting {
namespace {

constexpr double small = 1e-6;

/// Unit vectors spanning the columns of `vectors`, coordinate axes first where they lie in the span.
std::vector<Vec3> plain_basis(const Matrix& vectors) {
  std::vector<Vec3> basis;
  if (vectors.cols() == 0) return basis;
  const auto svd = singular_values(vectors);
  const auto rank = svd.rank(small);
  const auto in_span = [&](const Vec3& v) {
    Vec3 left = v;
    for (Eigen::Index k = 0; k < rank; ++k) {
      const Vec3 axis = svd.u.col(k);
      left -= axis * axis.dot(v);
    }
    return left.norm() < 1e-5;
  };
  const auto add = [&](Vec3 v) {
    for (const auto& b : basis) v -= b * b.dot(v);
    if (v.norm() > 1e-4 && static_cast<Eigen::Index>(basis.size()) < rank) basis.push_back(v.normalized());
  };
  for (int i = 0; i < 3; ++i)
    if (in_span(Vec3::Unit(i))) add(Vec3::Unit(i));
  for (Eigen::Index k = 0; k < rank; ++k) add(svd.u.col(k));
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

std::vector<FreeMotion> name_motions(const Motions& free, double size) {
  std::vector<FreeMotion> motions;
  if (free.cols() == 0) return motions;
  const Matrix turns = free.bottomRows<3>() / std::max(size, 1e-12);
  // Combinations of the columns without any turn are travels.
  const auto svd = singular_values(turns);
  const auto rank = svd.rank(small / size);
  const Matrix travels = product(free.topRows<3>(), svd.v.rightCols(free.cols() - rank));
  for (const auto& direction : plain_basis(travels)) motions.push_back({false, direction, false});
  for (const auto& direction : plain_basis(turns * size)) motions.push_back({true, direction, false});
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
