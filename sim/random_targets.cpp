#include "sim/random_targets.h"

#include <random>

namespace datrin::sim {

chains::TargetsInput random_targets(unsigned seed, int dimensions, int conditions) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> any(0, 1);
  chains::TargetsInput in;
  for (int d = 0; d < dimensions; ++d) {
    chains::TargetDimension x;
    x.id = "d" + std::to_string(d);
    x.nominal = 5 + 100 * any(random);
    const double band = d % 3 == 0 ? 0.02 : d % 3 == 1 ? 0.1 : 0.2;
    x.lower = x.nominal - band;
    x.upper = x.nominal + band;
    x.capability = d % 2 == 0 ? 0.004 : 0.02;
    if (any(random) < 0.3) {
      x.measured = x.nominal + 1.4 * band * (any(random) - 0.5);
      x.uncertainty = 0.002;
    }
    in.dimensions.push_back(x);
  }
  for (int c = 0; c < conditions; ++c) {
    chains::TargetCondition k;
    k.id = "c" + std::to_string(c);
    double gap = 0;
    const int terms = 2 + static_cast<int>(3 * any(random));
    for (int t = 0; t < terms; ++t) {
      const int d = static_cast<int>(dimensions * any(random)) % dimensions;
      const double coefficient = any(random) < 0.5 ? 1 : any(random) < 0.3 ? -0.5 : -1;
      k.terms.push_back({d, coefficient});
      gap += coefficient * in.dimensions[static_cast<std::size_t>(d)].nominal;
    }
    const double half = 0.03 + 0.1 * any(random);
    k.least = gap - half;
    k.most = gap + half;
    in.conditions.push_back(k);
  }
  return in;
}

} // namespace datrin::sim
