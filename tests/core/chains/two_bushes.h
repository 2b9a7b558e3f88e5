#pragma once
// One shaft for two bushes, one of them made too large: the smallest conflict there is.

#include "chains/targets.h"

namespace datrin::test {

inline chains::TargetsInput shaft_in_two_bushes() {
  chains::TargetsInput in;
  in.dimensions.push_back({"shaft", 12, 11.9, 12.1, 0.005, {}, 0});
  in.dimensions.push_back({"bush A", 12, 11.9, 12.1, 0.005, 12.030, 0.001});
  in.dimensions.push_back({"bush B", 12, 11.9, 12.1, 0.005, 12.000, 0.001});
  in.conditions.push_back({"A", {{1, 1}, {0, -1}}, 0.010, 0.020});
  in.conditions.push_back({"B", {{2, 1}, {0, -1}}, 0.010, 0.020});
  return in;
}

} // namespace datrin::test
