#pragma once
// Hands that aim at a number and land near it: a stand-in for the person at the machine.

#include <cstdint>
#include <random>

namespace datrin::sim {

struct HandsOptions {
  double slips = 0.03;    ///< of all cuts: a slip
  double slip_size = 5;   ///< capabilities a slip is off by, at most
  double reading = 0.002; ///< mm, ± 95 %, of what is read afterwards
  std::uint64_t seed = 1;
};

class Hands {
public:
  explicit Hands(const HandsOptions& options) : options_(options), random_(options.seed) {}

  /// What comes out when `target` is aimed at with a capability of ±`capability` (95 %): mm.
  double make(double target, double capability) {
    double made = target + capability / 2 * normal_(random_);
    if (chance_(random_) < options_.slips)
      made += capability * options_.slip_size * (2 * chance_(random_) - 1);
    return made;
  }

  /// What the instrument says of it.
  double read(double made) { return made + options_.reading / 2 * normal_(random_); }

private:
  HandsOptions options_;
  std::mt19937_64 random_;
  std::normal_distribution<double> normal_;
  std::uniform_real_distribution<double> chance_{0, 1};
};

} // namespace datrin::sim
