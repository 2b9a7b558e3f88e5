#pragma once
// Balancing several cranks on one shaft by weights in two planes: wheels, or end webs. Every crank's mass at
// its radius is shared between the planes by its distance from them. g, mm, radians.

#include "geometry/surface.h"

#include <string>
#include <vector>

namespace datrin::truing {

struct CrankThrow {
  double at = 0;    ///< along the shaft
  double angle = 0; ///< round it
};

struct BalanceCranksInput {
  std::vector<CrankThrow> cranks;
  double crank_radius = 0;
  double rotating = 0, reciprocating = 0; ///< g of each
  double factor = 0.5;                    ///< share of the reciprocating that is balanced
  double near_plane = 0, far_plane = 0;   ///< along the shaft, where the weights go
  double radius = 0;                      ///< of their middles
};

enum class BalanceCranksStatus { not_run, found, refused };

struct BalanceCranks {
  BalanceCranksStatus status = BalanceCranksStatus::not_run;
  std::string message;
  double near_mass = 0, far_mass = 0;   ///< g at `radius`
  double near_angle = 0, far_angle = 0; ///< 0 to 2π
  double force_left =
      0; ///< g mm: what the whole reciprocating parts of all still throw along the bore, at most
  double couple_left = 0; ///< g mm²: and how they rock the shaft
  bool usable() const { return status == BalanceCranksStatus::found; }
};

BalanceCranks balance_cranks(const BalanceCranksInput& input);

} // namespace datrin::truing
