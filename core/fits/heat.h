#pragma once
// Clearance at another temperature than 20 °C, and assembly by warming the hole or chilling the shaft.
// Diameters in mm, temperatures in °C. Δd = d · α · (t − 20), α the expansion above 20 °C and the contraction
// below it, which is less (DIN 7190-1).

#include "fits/solids.h"
#include "quantity/reckoning.h"

#include <string>

namespace datrin::fits {

inline constexpr double reference_temperature = 20; ///< °C, ISO 1

/// Why a temperature makes no sense for a metal; empty when it does.
std::string temperature_wrong(const Solid& solid, double celsius);

struct HeatInput {
  double diameter = 0;
  double clearance = 0; ///< at 20 °C; below 0: interference
  const Solid* hole = nullptr;
  const Solid* shaft = nullptr;
  double hole_temperature = reference_temperature;
  double shaft_temperature = reference_temperature;
};

struct HeatResult {
  bool ok = false;
  std::string message;
  double clearance = 0; ///< at those temperatures
  Reckoning why;
};

HeatResult clearance_hot(const HeatInput& input);

struct AssemblyInput {
  double diameter = 0;
  double interference = 0; ///< the most there may be, above 0
  double play = 0;         ///< wanted while assembling; 0: a thousandth of the diameter (common practice)
  const Solid* hole = nullptr;
  const Solid* shaft = nullptr;
  double coldest = -18; ///< °C the shaft can be brought to: a household freezer
};

struct AssemblyResult {
  bool ok = false;
  std::string message;
  double warm_to = 0;          ///< °C of the hole, shaft at 20
  double chill_to = 0;         ///< °C of the shaft, hole at 20
  double warm_with_cold = 0;   ///< °C of the hole, shaft at `coldest`
  bool warm_allowed = false;   ///< within what the hole's metal stands
  bool chill_possible = false; ///< not below −78 °C, dry ice
  std::string verdict;         ///< in words; how long one has is not promised
};

AssemblyResult assembly(const AssemblyInput& input);

} // namespace datrin::fits
