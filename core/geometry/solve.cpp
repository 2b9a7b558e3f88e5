#include "geometry/solve.h"

#include <Eigen/Cholesky>
#include <Eigen/Eigenvalues>
#include <Eigen/LU>
#include <Eigen/QR>
#include <Eigen/SVD>

#include <algorithm>
#include <cmath>

namespace datrin {

Matrix product(const Matrix& a, const Matrix& b) {
  return a * b;
}

Matrix transposed_product(const Matrix& a, const Matrix& b) {
  return a.transpose() * b;
}

Eigen::Index SingularValues::rank(double least) const {
  Eigen::Index count = 0;
  while (count < values.size() && values[count] > least) ++count;
  return count;
}

SingularValues singular_values(const Matrix& a) {
  if (a.rows() == 0 || a.cols() == 0)
    return {Vector(0), Matrix::Identity(a.rows(), a.rows()), Matrix::Identity(a.cols(), a.cols())};
  const Eigen::JacobiSVD<Matrix> svd(a, Eigen::ComputeFullU | Eigen::ComputeFullV);
  return {svd.singularValues(), svd.matrixU(), svd.matrixV()};
}

SymmetricEigen symmetric_eigen(const Matrix& a) {
  const Eigen::SelfAdjointEigenSolver<Matrix> solver(a);
  return {solver.eigenvalues(), solver.eigenvectors()};
}

Matrix least_norm(const Matrix& a, const Matrix& b, double threshold) {
  Eigen::CompleteOrthogonalDecomposition<Matrix> solver;
  if (threshold > 0) solver.setThreshold(threshold);
  solver.compute(a);
  return solver.solve(b);
}

Matrix orthogonal_completion(const Matrix& a) {
  const Eigen::ColPivHouseholderQR<Matrix> qr(a); // pivoted: what least_norm is made of stands here already
  return qr.householderQ() * Matrix::Identity(a.rows(), a.rows());
}

std::optional<LeastSquares> least_squares(const Matrix& a, const Vector& b, double least_pivot) {
  if (a.cols() == 0 || a.rows() < a.cols()) return std::nullopt;
  const Eigen::ColPivHouseholderQR<Matrix> qr(a);
  const auto last = a.cols() - 1;
  if (qr.rank() < a.cols() || std::abs(qr.matrixR()(last, last)) < least_pivot * std::abs(qr.matrixR()(0, 0)))
    return std::nullopt;
  LeastSquares fit;
  fit.x = qr.solve(b);
  fit.residuals = b - a * fit.x;
  fit.covariance = Cholesky(transposed_product(a, a)).solve(Matrix::Identity(a.cols(), a.cols()));
  return fit;
}

Cholesky::Cholesky(const Matrix& a) {
  const Eigen::LLT<Matrix> root(a);
  ok_ = root.info() == Eigen::Success;
  lower_ = root.matrixL();
}

Matrix Cholesky::solve_lower(const Matrix& b) const {
  return lower_.triangularView<Eigen::Lower>().solve(b);
}

Matrix Cholesky::solve(const Matrix& b) const {
  return lower_.transpose().triangularView<Eigen::Upper>().solve(solve_lower(b));
}

Inverse inverse(const Matrix& a) {
  const Eigen::PartialPivLU<Matrix> lu(a);
  const double condition = lu.rcond();
  if (!(condition > 0)) return {};
  return {lu.inverse(), condition};
}

} // namespace datrin
