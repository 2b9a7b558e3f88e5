#include "margin/least.h"

#include <ClpPrimalColumnDantzig.hpp>
#include <ClpSimplex.hpp>

#include <cmath>

namespace datrin::margin {

struct LeastSolver::Storage {
  ClpSimplex simplex;
  std::vector<int> start, index;
  std::vector<double> element, column_lower, column_upper, cost, row_bound;

  Storage() {
    simplex.setLogLevel(0);
    simplex.setPerturbation(100); // off: the programmes are small, and the answer is wanted to the last digit
    simplex.scaling(0);           // variables and margins come in like units already
    simplex.setPrimalTolerance(1e-10);
    simplex.setDualTolerance(1e-10);
    ClpPrimalColumnDantzig dantzig; // cheaper to start than steepest edge, for a few dozen columns
    simplex.setPrimalColumnPivotAlgorithm(dantzig);
  }

  void clear() {
    start.assign(1, 0);
    index.clear();
    element.clear();
    column_lower.clear();
    column_upper.clear();
    cost.clear();
  }

  void close_column(double objective, double upper) {
    start.push_back(static_cast<int>(index.size()));
    column_lower.push_back(0);
    column_upper.push_back(std::isfinite(upper) ? upper : COIN_DBL_MAX);
    cost.push_back(objective);
  }

  void put(int row, double value) {
    index.push_back(row);
    element.push_back(value);
  }
};

// Clp takes longer to be made (it copies all its messages) than a small programme takes to be solved: storage
// goes from solver to solver. Each call to solve stands alone, so that none sees what another left.
std::vector<std::unique_ptr<LeastSolver::Storage>>& LeastSolver::spare() {
  thread_local std::vector<std::unique_ptr<Storage>> list;
  return list;
}

LeastSolver::LeastSolver() {
  if (spare().empty()) {
    storage_ = std::make_unique<Storage>();
  } else {
    storage_ = std::move(spare().back());
    spare().pop_back();
  }
}
LeastSolver::~LeastSolver() {
  constexpr std::size_t kept = 4;
  if (storage_ && spare().size() < kept) spare().push_back(std::move(storage_));
}
LeastSolver::LeastSolver(LeastSolver&&) noexcept = default;
LeastSolver& LeastSolver::operator=(LeastSolver&&) noexcept = default;

LeastResult LeastSolver::solve(const LeastInput& input, const LeastOptions& options) {
  LeastResult result;
  const auto& margins = *input.margins;
  const int n = margins.columns();
  const auto held = [&](int group) {
    return !input.held.empty() && input.held[static_cast<std::size_t>(group)];
  };

  if (!margins.workable()) {
    result.status = LeastStatus::failed;
    result.message = not_workable;
    return result;
  }
  for (int j = 0; j < n; ++j)
    if (margins.lower[j] > margins.upper[j]) {
      result.status = LeastStatus::infeasible;
      result.message = "a variable's lower bound is above its upper bound";
      return result;
    }

  auto& s = *storage_;
  s.clear();
  bool any_free = false;
  for (int i = 0; i < margins.rows(); ++i) {
    for (int k = margins.begin(i); k < margins.end(i); ++k) s.put(margins.column(k), margins.coefficient(k));
    if (held(margins.group(i))) {
      s.close_column(margins.offset(i) - input.floors[static_cast<std::size_t>(margins.group(i))],
                     options.held_cap);
    } else {
      any_free = true;
      s.put(n, 1.0);
      s.close_column(margins.offset(i), COIN_DBL_MAX);
    }
  }
  if (!any_free) {
    result.status = LeastStatus::nothing_free;
    result.message = "there is no free margin to make larger";
    return result;
  }
  std::vector<int> bound_column(static_cast<std::size_t>(2 * n), -1);
  for (int j = 0; j < n; ++j) {
    if (std::isfinite(margins.upper[j])) {
      bound_column[static_cast<std::size_t>(2 * j)] = static_cast<int>(s.cost.size());
      s.put(j, -1.0);
      s.close_column(margins.upper[j], COIN_DBL_MAX);
    }
    if (std::isfinite(margins.lower[j])) {
      bound_column[static_cast<std::size_t>(2 * j + 1)] = static_cast<int>(s.cost.size());
      s.put(j, 1.0);
      s.close_column(-margins.lower[j], COIN_DBL_MAX);
    }
  }
  s.row_bound.assign(static_cast<std::size_t>(n) + 1, 0.0);
  s.row_bound.back() = 1.0;

  auto& clp = s.simplex;
  clp.loadProblem(static_cast<int>(s.cost.size()), n + 1, s.start.data(), s.index.data(), s.element.data(),
                  s.column_lower.data(), s.column_upper.data(), s.cost.data(), s.row_bound.data(),
                  s.row_bound.data());
  clp.allSlackBasis(true);
  // A like programme's basis saves most of the pivots. Rows of the sum stay slack where it falls short of a
  // full basis.
  int entered = 0;
  for (int i = 0; i < margins.rows() && i < static_cast<int>(input.warm.size()) && entered <= n; ++i)
    if (input.warm[static_cast<std::size_t>(i)]) {
      clp.setColumnStatus(i, ClpSimplex::basic);
      clp.setRowStatus(n - entered, ClpSimplex::atLowerBound);
      ++entered;
    }
  clp.primal();

  if (clp.isProvenPrimalInfeasible()) {
    result.status = LeastStatus::unbounded;
    result.message = "nothing limits the least margin";
    return result;
  }
  if (clp.isProvenDualInfeasible()) {
    result.status = LeastStatus::infeasible;
    result.message = "the held margins cannot all keep their floors";
    return result;
  }
  if (!clp.isProvenOptimal()) {
    result.status = LeastStatus::failed;
    result.message = "no answer was found: the numbers are too far apart in size, or it took too many steps";
    return result;
  }

  result.status = LeastStatus::optimal;
  const double* primal = clp.getColSolution();
  const double* dual = clp.getRowPrice();
  result.x.resize(n);
  // The dual's row prices are the primal's variables: price of the sum row = t, of row j = −x_j.
  for (int j = 0; j < n; ++j) result.x[j] = std::clamp(-dual[j], margins.lower[j], margins.upper[j]);
  result.least = dual[n];
  result.multipliers.assign(primal, primal + margins.rows());
  for (auto& value : result.multipliers) value = std::max(0.0, value);
  result.basic.resize(static_cast<std::size_t>(margins.rows()));
  for (int i = 0; i < margins.rows(); ++i)
    result.basic[static_cast<std::size_t>(i)] = clp.getColumnStatus(i) == ClpSimplex::basic;
  result.bound_multipliers = Eigen::VectorXd::Zero(n);
  for (int j = 0; j < n; ++j) {
    const int up = bound_column[static_cast<std::size_t>(2 * j)];
    const int down = bound_column[static_cast<std::size_t>(2 * j + 1)];
    if (up >= 0) result.bound_multipliers[j] += primal[up];
    if (down >= 0) result.bound_multipliers[j] -= primal[down];
  }
  return result;
}

} // namespace datrin::margin
