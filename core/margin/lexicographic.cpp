#include "margin/lexicographic.h"

#include "margin/nearest.h"

#include <algorithm>

namespace datrin::margin {

LexicographicResult lexicographic(const LexicographicInput& input, const LexicographicOptions& options) {
  LexicographicResult result;
  const auto& margins = *input.margins;
  const auto groups = static_cast<std::size_t>(margins.groups());
  std::vector<char> held(groups, 0);
  std::vector<double> floors(groups, -infinite);
  result.group_level.assign(groups, -1);
  Eigen::VectorXd wished =
      input.wished.size() == margins.columns() ? input.wished : Eigen::VectorXd::Zero(margins.columns());
  LeastSolver solver;
  double last_level = -infinite;
  for (int level = 0; level < options.most_levels; ++level) {
    auto least = solver.solve({&margins, held, floors});
    if (least.status == LeastStatus::nothing_free) break;
    if (least.status == LeastStatus::unbounded) {
      result.status = LexicographicStatus::unbounded;
      result.message = level == 0 ? "nothing limits the least margin" : "nothing limits what is still free";
      for (std::size_t g = 0; g < groups; ++g)
        if (!held[g]) floors[g] = last_level - options.give;
      break;
    }
    if (!least.usable()) {
      result.status = least.status == LeastStatus::infeasible ? LexicographicStatus::infeasible
                                                              : LexicographicStatus::failed;
      result.message = least.message;
      return result;
    }
    std::vector<double> press(groups, 0.0);
    for (int i = 0; i < margins.rows(); ++i)
      press[static_cast<std::size_t>(margins.group(i))] += least.multipliers[static_cast<std::size_t>(i)];
    for (std::size_t g = 0; g < groups; ++g)
      if (!held[g] && press[g] > options.pressing) {
        held[g] = 1;
        floors[g] = least.least - options.give;
        result.group_level[g] = level;
      }
    last_level = least.least;
    if (level == 0) result.first = std::move(least);
  }
  if (result.status == LexicographicStatus::unbounded && result.first.status == LeastStatus::not_run) {
    result.x = wished;
  } else {
    auto settled = nearest({&margins, floors, wished, {}});
    if (!settled.usable()) {
      result.status = LexicographicStatus::failed;
      result.message = settled.message;
      return result;
    }
    result.x = std::move(settled.x);
    if (result.status == LexicographicStatus::not_run) result.status = LexicographicStatus::optimal;
  }
  result.group_margins.assign(groups, infinite);
  for (int i = 0; i < margins.rows(); ++i) {
    auto& least = result.group_margins[static_cast<std::size_t>(margins.group(i))];
    least = std::min(least, margins.value(i, result.x));
  }
  return result;
}

} // namespace datrin::margin
