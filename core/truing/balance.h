#pragma once
// Balancing a crank: the mass that at a radius balances the rotating parts and a share of the reciprocating
// ones, and the hole that takes as much out on the other side. g and mm.

#include <string>

namespace datrin::truing {

struct BalanceInput {
  double crank_radius = 0;
  double rotating = 0;      ///< g at the crank: pin, webs, big end
  double reciprocating = 0; ///< g: piston, rod, crosshead, small end
  double factor =
      0.5; ///< share of these that is balanced: 0.5 to 0.67 is usual of one cylinder (common practice)
  double radius = 0;    ///< mm at which the counterweight's middle lies
  double density = 7.2; ///< g/cm³ of what is drilled away, or added
  double thick = 0;     ///< mm: of the web or wheel a hole goes through; 0: no hole is asked
};

enum class BalanceStatus { not_run, found, refused };

struct Balance {
  BalanceStatus status = BalanceStatus::not_run;
  std::string message;
  double mass = 0;        ///< g to place at `radius`, opposite the crank
  double hole = 0;        ///< mm across, through `thick` on the crank's side at that radius, instead
  double left_along = 0;  ///< g mm that stay along the bore, each way
  double left_across = 0; ///< and across it: what was put in for the reciprocating parts
  bool usable() const { return status == BalanceStatus::found; }
};

/// m = (rotating + factor · reciprocating) · crank radius / radius.
Balance balance(const BalanceInput& input);

} // namespace datrin::truing
