#pragma once
// The few matrix computations the core needs, as plain functions. Each is instantiated once, in solve.cpp:
// the templates behind them take longer to build than all that calls them, so nothing else includes a
// decomposition or multiplies matrices of unknown size with *.

#include <Eigen/Core>

#include <optional>

namespace datrin {

using Matrix = Eigen::MatrixXd;
using Vector = Eigen::VectorXd;

/// a · b.
Matrix product(const Matrix& a, const Matrix& b);
/// aᵀ · b.
Matrix transposed_product(const Matrix& a, const Matrix& b);

struct SingularValues {
  Vector values; ///< largest first, as many as the shorter side
  Matrix u, v;   ///< both square, orthogonal: a = u · diag(values) · vᵀ

  /// How many values are above `least`.
  Eigen::Index rank(double least) const;
};

/// Singular value decomposition (one-sided Jacobi). `a` may have no rows or no columns.
SingularValues singular_values(const Matrix& a);

struct SymmetricEigen {
  Vector values;  ///< smallest first
  Matrix vectors; ///< a column each, orthonormal
};

/// Eigenvalues and -vectors of a symmetric matrix; the lower half is read.
SymmetricEigen symmetric_eigen(const Matrix& a);

/// The x of least length among those with least |a · x − b|, by a complete orthogonal decomposition; columns
/// whose pivot is below `threshold` × the largest count as dependent. A threshold of 0: what rounding leaves.
Matrix least_norm(const Matrix& a, const Matrix& b, double threshold = 0);

/// An orthogonal square matrix whose first columns span the columns of `a` (which has no more columns than
/// rows), by Householder reflections.
Matrix orthogonal_completion(const Matrix& a);

struct LeastSquares {
  Vector x;          ///< that makes |a · x − b| least
  Vector residuals;  ///< b − a · x
  Matrix covariance; ///< of x, for residuals of standard deviation 1
};

/// Least squares by a pivoted QR decomposition; nothing when there are fewer rows than columns, or when a
/// column's pivot is below `least_pivot` × the largest.
std::optional<LeastSquares> least_squares(const Matrix& a, const Vector& b, double least_pivot);

/// A symmetric positive definite matrix as L · Lᵀ.
class Cholesky {
public:
  Cholesky() = default;
  explicit Cholesky(const Matrix& a);
  bool ok() const { return ok_; } ///< false: it was not positive definite
  const Matrix& lower() const { return lower_; }
  Matrix solve(const Matrix& b) const;       ///< (L Lᵀ)⁻¹ · b
  Matrix solve_lower(const Matrix& b) const; ///< L⁻¹ · b

private:
  Matrix lower_;
  bool ok_ = false;
};

/// The inverse of a square matrix, with its reciprocal condition number (0: it is singular).
struct Inverse {
  Matrix inverse;
  double condition = 0;
};
Inverse inverse(const Matrix& a);

} // namespace datrin
