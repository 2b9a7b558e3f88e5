#pragma once
// A press or shrink fit as thick cylinders under pressure (Lamé), hub and shaft each with a hole of its own
// or none, of unequal metals. Lengths mm, stresses N/mm², forces N, torque N·mm.
//
//   pressure    p = δ / { d · [ ((D² + d²)/(D² − d²) + ν_h)/E_h + ((d² + b²)/(d² − b²) − ν_s)/E_s ] }
//   hub's bore  hoop +p (D² + d²)/(D² − d²), radial −p;   shaft: hoop −p (d² + b²)/(d² − b²)
//   yielding    hub p ≤ (1 − (d/D)²) R_e / √3,  hollow shaft p ≤ (1 − (b/d)²) R_e / √3,  solid p ≤ 2 R_e / √3
//   loss        δ = U − 0.8 (Rz_h + Rz_s): peaks are flattened
//   push-on     F = π d L p μ;   slipping torque T = F d / 2
//
// d joint, D outside of the hub, b bore of the shaft. Sources: Lamé's equations as in any handbook of machine
// elements; the loss and the limits of elastic loading as in DIN 7190-1.

#include "fits/solids.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::fits {

inline constexpr double usual_roughness = 0.006; ///< mm Rz: turned and reamed metal (common practice)

struct PressInput {
  double diameter = 0;
  double hub_outside = 0;
  double shaft_bore = 0; ///< 0: solid
  double length = 0;     ///< engaged
  double interference = 0;
  double hub_roughness = usual_roughness, shaft_roughness = usual_roughness; ///< Rz in mm
  const Solid* hub = nullptr;
  const Solid* shaft = nullptr;
  double friction = 0;  ///< 0: the lesser of the two metals'
  Unit unit = Unit::mm; ///< of the words
};

enum class PressStatus { not_run, computed, refused };

struct PressResult {
  PressStatus status = PressStatus::not_run;
  std::string message;
  double loss = 0;         ///< mm of the interference lost to roughness
  double interference = 0; ///< mm that acts
  double pressure = 0;
  double hub_hoop = 0, shaft_hoop = 0;             ///< N/mm², tension above 0
  double hub_equivalent = 0, shaft_equivalent = 0; ///< what yield is to be compared with
  double most_pressure = 0;                        ///< at which the weaker of the two begins to yield
  double most_interference = 0;                    ///< mm measured, at which it does
  double push_force = 0, torque = 0;
  double friction = 0;
  double bore_shrinks = 0; ///< mm the shaft's own bore closes by (0 when solid)
  double hub_grows = 0;    ///< mm the hub's outside grows by
  std::string verdict;

  bool usable() const { return status == PressStatus::computed; }
  bool yields() const { return usable() && pressure > most_pressure; }
};

PressResult press(const PressInput& input);

} // namespace datrin::fits
