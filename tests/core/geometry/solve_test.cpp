// The matrix computations against what defines them: the parts put together give the whole again. (Products
// of matrices by `product`: one written with * would be built here, unoptimised, and stand for all in this
// program.)

#include "geometry/solve.h"

#include <gtest/gtest.h>

#include <random>

using namespace datrin;

namespace {

Matrix random_matrix(Eigen::Index rows, Eigen::Index columns, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal;
  Matrix a(rows, columns);
  for (Eigen::Index j = 0; j < columns; ++j)
    for (Eigen::Index i = 0; i < rows; ++i) a(i, j) = normal(random);
  return a;
}

void expect_orthogonal(const Matrix& q) {
  EXPECT_LT((transposed_product(q, q) - Matrix::Identity(q.cols(), q.cols())).norm(), 1e-12);
}

} // namespace

TEST(Solve, SingularValuesPutTheMatrixTogetherAgain) {
  for (const auto& [rows, columns] : {std::pair(6, 4), std::pair(4, 6), std::pair(5, 5), std::pair(1, 3)}) {
    const auto a = random_matrix(rows, columns, static_cast<unsigned>(10 * rows + columns));
    const auto s = singular_values(a);
    expect_orthogonal(s.u);
    expect_orthogonal(s.v);
    Matrix middle = Matrix::Zero(rows, columns);
    for (Eigen::Index k = 0; k < s.values.size(); ++k) {
      middle(k, k) = s.values[k];
      if (k > 0) {
        EXPECT_LE(s.values[k], s.values[k - 1]);
      }
    }
    EXPECT_LT((product(product(s.u, middle), s.v.transpose()) - a).norm(), 1e-12);
    EXPECT_EQ(s.rank(1e-9), std::min(rows, columns));
  }
  const auto none = singular_values(Matrix(3, 0));
  EXPECT_EQ(none.values.size(), 0);
  EXPECT_EQ(none.u, Matrix::Identity(3, 3));
}

TEST(Solve, EigenvectorsAreTurnedIntoThemselves) {
  const auto r = random_matrix(6, 6, 3);
  const Matrix a = r + r.transpose();
  const auto e = symmetric_eigen(a);
  expect_orthogonal(e.vectors);
  for (Eigen::Index k = 0; k < 6; ++k)
    EXPECT_LT((product(a, e.vectors.col(k)) - e.values[k] * e.vectors.col(k)).norm(), 1e-11);
  for (Eigen::Index k = 1; k < 6; ++k) EXPECT_LE(e.values[k - 1], e.values[k]);
}

// Of the solutions the shortest: it has no part in what the matrix does not feel.
TEST(Solve, LeastNormIsTheShortestOfTheBest) {
  const auto a = random_matrix(3, 5, 7), b = random_matrix(3, 1, 8);
  const auto x = least_norm(a, b);
  EXPECT_LT((product(a, x) - b).norm(), 1e-11);
  const auto s = singular_values(a);
  for (Eigen::Index k = 3; k < 5; ++k) EXPECT_NEAR(s.v.col(k).dot(x.col(0)), 0, 1e-12);
  // Two equal columns share what one would have had.
  Matrix twice(2, 2);
  twice << 1, 1, 2, 2;
  const auto shared = least_norm(twice, Matrix(Vector::Constant(2, 1)), 1e-9);
  EXPECT_NEAR(shared(0, 0), shared(1, 0), 1e-12);
}

TEST(Solve, LeastSquaresLeavesResidualsSquareToTheColumns) {
  const auto a = random_matrix(20, 3, 11);
  const Vector b = random_matrix(20, 1, 12).col(0);
  const auto fit = least_squares(a, b, 1e-9);
  ASSERT_TRUE(fit);
  EXPECT_LT(transposed_product(a, fit->residuals).norm(), 1e-11);
  EXPECT_LT((product(a, fit->x) + fit->residuals - b).norm(), 1e-12);
  EXPECT_LT((product(fit->covariance, transposed_product(a, a)) - Matrix::Identity(3, 3)).norm(), 1e-10);
  Matrix dependent(4, 2);
  dependent << 1, 2, 1, 2, 1, 2, 1, 2;
  EXPECT_FALSE(least_squares(dependent, Vector::Ones(4), 1e-9));
  EXPECT_FALSE(least_squares(random_matrix(2, 3, 1), Vector::Ones(2), 1e-9));
}

TEST(Solve, CholeskyAndInverse) {
  const auto r = random_matrix(5, 5, 21);
  const Matrix a = product(r, r.transpose()) + Matrix::Identity(5, 5);
  const Cholesky root(a);
  ASSERT_TRUE(root.ok());
  EXPECT_LT((product(root.lower(), root.lower().transpose()) - a).norm(), 1e-12);
  const auto b = random_matrix(5, 2, 22);
  EXPECT_LT((product(a, root.solve(b)) - b).norm(), 1e-11);
  EXPECT_LT((product(root.lower(), root.solve_lower(b)) - b).norm(), 1e-11);
  EXPECT_FALSE(Cholesky(Matrix(-Matrix::Identity(3, 3))).ok());
  const auto inverted = inverse(a);
  EXPECT_LT((product(inverted.inverse, a) - Matrix::Identity(5, 5)).norm(), 1e-11);
  EXPECT_GT(inverted.condition, 0);
  EXPECT_LE(inverted.condition, 1 + 1e-12);
  EXPECT_EQ(inverse(Matrix(Matrix::Zero(2, 2))).condition, 0);
}

TEST(Solve, OrthogonalCompletionSpansTheColumns) {
  const auto a = random_matrix(6, 2, 31);
  const auto q = orthogonal_completion(a);
  expect_orthogonal(q);
  EXPECT_LT((transposed_product(q.rightCols(4), a)).norm(), 1e-12);
}
