#pragma once
// Linear margins over bounded variables: the form in which every "how much room is left" is stated.
//
//   margin_i(x) = offset_i + Σ_j a_ij x_j        i = 0 … rows−1
//   lower_j ≤ x_j ≤ upper_j                      j = 0 … columns−1 (either bound may be infinite)
//
// Rows belong to groups; a group's margin is the least of its rows' (all the touches on one face). Margins
// and variables are in whatever unit the caller states them in (mm, or room counted in capabilities).

#include <Eigen/Core>

#include <algorithm>
#include <cstddef>
#include <limits>
#include <utility>
#include <vector>

namespace datrin::margin {

inline constexpr const char* not_workable = "a margin has a number that is none, or too large to work with";

inline constexpr double infinite = std::numeric_limits<double>::infinity();

class LinearMargins {
public:
  explicit LinearMargins(int columns)
      : lower(Eigen::VectorXd::Constant(columns, -infinite)),
        upper(Eigen::VectorXd::Constant(columns, infinite)) {}

  int columns() const { return static_cast<int>(lower.size()); }
  int rows() const { return static_cast<int>(offset_.size()); }
  int groups() const { return groups_; }

  /// Adds offset + Σ coefficient × x[column] to group `group`; terms name each column at most once.
  void add_row(int group, double offset, const std::vector<std::pair<int, double>>& terms) {
    for (const auto& [column, coefficient] : terms)
      if (coefficient != 0) push(column, coefficient);
    close_row(group, offset);
  }

  /// The same with a full vector of coefficients.
  void add_row(int group, double offset, const Eigen::Ref<const Eigen::VectorXd>& coefficients) {
    for (int j = 0; j < coefficients.size(); ++j)
      if (coefficients[j] != 0) push(j, coefficients[j]);
    close_row(group, offset);
  }

  double value(int row, const Eigen::VectorXd& x) const {
    double sum = offset_[static_cast<std::size_t>(row)];
    for (int k = begin(row); k < end(row); ++k) sum += coefficient(k) * x[column(k)];
    return sum;
  }

  double offset(int row) const { return offset_[static_cast<std::size_t>(row)]; }
  int group(int row) const { return group_[static_cast<std::size_t>(row)]; }
  int begin(int row) const { return start_[static_cast<std::size_t>(row)]; }
  int end(int row) const { return start_[static_cast<std::size_t>(row) + 1]; }
  int column(int k) const { return column_[static_cast<std::size_t>(k)]; }
  double coefficient(int k) const { return coefficient_[static_cast<std::size_t>(k)]; }

  /// Whether every number in it is one the optimiser can work with: it ends the program over what is not.
  bool workable() const {
    constexpr double most = 1e12;
    const auto fits = [](double v) { return v >= -most && v <= most; };
    return std::all_of(coefficient_.begin(), coefficient_.end(), fits) &&
           std::all_of(offset_.begin(), offset_.end(), fits) && !lower.hasNaN() && !upper.hasNaN();
  }

  Eigen::VectorXd lower, upper; ///< bounds of the variables

private:
  void push(int column, double coefficient) {
    column_.push_back(column);
    coefficient_.push_back(coefficient);
  }
  void close_row(int group, double offset) {
    offset_.push_back(offset);
    group_.push_back(group);
    start_.push_back(static_cast<int>(column_.size()));
    if (group + 1 > groups_) groups_ = group + 1;
  }

  std::vector<int> start_{0}, column_, group_;
  std::vector<double> coefficient_, offset_;
  int groups_ = 0;
};

} // namespace datrin::margin
