#pragma once
// Which piece goes with which: holes and shafts paired so that the clearances come nearest to a target,
// either over all pairs (the least sum of squared misses) or for the worst pair (the least largest miss).
// Sizes mm. The assignment is Kuhn's and Munkres' (the Hungarian method), O(n³).

#include <string>
#include <vector>

namespace datrin::fits {

enum class PairingGoal { all_pairs, worst_pair };

struct PairingInput {
  std::vector<double> holes, shafts;
  double target = 0;          ///< clearance wanted
  double least = 0, most = 0; ///< limits, to say which pairs are good; both 0: not said
};

struct Pairing {
  int hole = 0, shaft = 0;
  double clearance = 0, miss = 0; ///< clearance − target
  bool good = true;
};

/// A piece that found no mate, and the size a mate for it would have.
struct Spare {
  int piece = 0;
  double mate = 0;
};

struct PairingResult {
  bool ok = false;
  std::string message;
  std::vector<Pairing> pairs; ///< by hole
  std::vector<Spare> spare_holes, spare_shafts;
  double worst = 0; ///< largest miss, without sign
  double sum_squares = 0;
};

PairingResult pair_up(const PairingInput& input, PairingGoal goal = PairingGoal::all_pairs);

/// For each row the column it is given, −1: none. Costs are a rectangle, row by row; the least total.
std::vector<int> assign_least(const std::vector<std::vector<double>>& costs);

} // namespace datrin::fits
