#include "app/page/steps.h"

#include <algorithm>

namespace datrin::app {

const std::vector<StepRow>& steps() {
  static const std::vector<StepRow> table{
      {Step::drawing, "Drawing", "Ctrl+1", true, {"Surfaces", "Dimensions", "Cast", "Stock", "Solid"}},
      {Step::touches, "Touches", "Ctrl+2", true, {"Survey", "Settings", "Mistakes", "Spots"}},
      {Step::seat, "Seat", "Ctrl+3", true, {"Room", "Judge", "Rescue", "Sure"}},
      {Step::marking, "Marking out", "Ctrl+4", true, {}},
      {Step::allowance, "Allowance", "Ctrl+5", true, {"Cut", "Plan", "Share"}},
      {Step::route, "Route", "Ctrl+6", true, {"Datums", "Setups", "Operations", "Gate", "Spread"}},
      {Step::overview, "Overview", "Ctrl+7", false, {}},
      {Step::joints, "Joints", "Ctrl+8", false, {"Make", "Fit", "Work", "Pairs", "Try"}},
      {Step::chains, "Chains", "Ctrl+9", false, {"Gap", "Links"}},
      {Step::batch, "Batch", "Ctrl+B", false, {}},
      {Step::shop, "Shop", "Ctrl+M", false, {"Machines", "Tools", "Gauges", "Supplies", "Offcuts"}},
  };
  return table;
}

const StepRow& row_of(Step step) {
  return *std::find_if(steps().begin(), steps().end(), [&](const StepRow& row) { return row.step == step; });
}

std::vector<StepRow> steps_of(bool part) {
  std::vector<StepRow> some;
  std::copy_if(steps().begin(), steps().end(), std::back_inserter(some),
               [&](const StepRow& row) { return row.of_part == part; });
  return some;
}

} // namespace datrin::app
