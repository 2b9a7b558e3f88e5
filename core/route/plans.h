#pragma once
// Whole plans for a part compared: first datums by first datums (of a block also squared in the vise), each
// with the setups it leads to, every operation placed, the best order, the time and what it leaves of the
// limits. Shown are a few that differ.

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
  std::vector<std::string> notes; ///< of squaring: face by face, how it is held and why
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

/// The six faces of a part that is a block, in the order of squaring (route/squaring.h); empty: it is none.
std::vector<build::Id> faces_of_block(const build::Build& build, build::Id part);

/// Setups that square it, one a face; empty when it is no block. `notes`: face by face what goes where, why,
/// and how true it comes out.
std::vector<build::Setup> squaring_setups(const build::Build& build, build::Id part,
                                          std::vector<std::string>* notes = nullptr);

} // namespace datrin::route
