#pragma once
// Make-to targets of a whole build, part by part: numbers still to be made that no condition joins to each
// other are levelled by themselves, and what was worked out for a part whose numbers have not changed is
// taken from memory. A reading then costs what its own neighbours cost, however large the build is.

#include "chains/targets.h"

#include <memory>
#include <string>
#include <unordered_map>
#include <vector>

namespace datrin::chains {

/// Dimensions that conditions join, and those conditions; numbers of the whole. What is measured joins
/// nothing and stands in every part that counts with it.
struct JoinedPart {
  std::vector<int> dimensions, conditions;
};
std::vector<JoinedPart> joined_parts(const TargetsInput& input);

/// What was worked out for parts before, by their content. Only what the last call used is kept.
class TargetsMemory {
public:
  struct Part {
    TargetsResult result;
    bool function_first = false;
  };
  std::shared_ptr<const Part> find(const std::string& content) const;
  void keep(std::unordered_map<std::string, std::shared_ptr<const Part>> parts) { parts_ = std::move(parts); }

private:
  std::unordered_map<std::string, std::shared_ptr<const Part>> parts_;
};

struct PartedTargets {
  TargetsResult result;        ///< of the whole, as targets() has it
  bool function_first = false; ///< in some part the drawing had to give way: there the conditions came first
  int worked_out = 0;          ///< parts that were not in memory
};

/// As targets(), where every condition and drawing limit can be held. A part in which they cannot is worked
/// out with the conditions first, raised to `enough` before the drawing has its say; the other parts do not
/// notice. `memory` may be null.
PartedTargets targets_by_parts(const TargetsInput& input, double enough, TargetsMemory* memory = nullptr);

} // namespace datrin::chains
