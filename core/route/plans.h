#pragma once
// Whole plans for a part compared: first datums by first datums (of what has square faces also faced in the
// vise, one by one), each with the setups it leads to, every operation placed, the later datums searched for
// what leaves most of the limits, the best order, the time. Shown are a few that differ.

#include "build/edits.h"
#include "route/order.h"

#include <functional>
#include <string>
#include <vector>

namespace datrin::route {

struct PlansOptions {
  std::size_t most_datums = 12; ///< choices of first datums gone through, best first
  std::size_t shown = 3;
  std::function<void(double part)> progress; ///< 0 to 1
  std::function<bool()> should_stop;
};

struct WholePlan {
  std::string words; ///< "stands on foot, against end A and back"
  std::vector<build::Setup> setups;
  std::vector<std::string> notes;  ///< face by face how it is held and why
  std::vector<std::string> datums; ///< which later datums were taken in place of the first thought
  OrderResult order;
  double worst = 0;     ///< of the distances with limits: expected spread by what is allowed; 0: none
  std::string worst_of; ///< the name of that distance
  build::Edit edit;     ///< takes it: setups replaced, operations placed and put in order
  bool fits() const { return worst <= 1; }
};

struct PlansResult {
  std::vector<WholePlan> plans; ///< fewest setups first, then the least spread, then the least time
  int tried = 0;
  bool stopped = false;
  std::string message; ///< why there is none
};

PlansResult best_plans(const build::Build& build, build::Id part, const PlansOptions& options = {});

} // namespace datrin::route
