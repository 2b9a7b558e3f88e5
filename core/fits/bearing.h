#pragma once
// The clearance left inside a deep groove ball bearing after its rings are fitted, cold and hot. Lengths mm.
// Raceways are taken at d + 0.2 (D − d) and D − 0.2 (D − d), usual for the light series; rings of steel as
// thick cylinders (fits/press.h). Clearance before fitting: ISO 5753-1, data/bearing_clearances.csv.

#include "fits/solids.h"

#include "quantity/unit.h"

#include <optional>
#include <string>

namespace datrin::fits {

enum class BearingGroup { c2, normal, c3 };

struct BearingInput {
  double bore = 0, outside = 0;
  BearingGroup group = BearingGroup::normal;
  double shaft_interference = 0;   ///< shaft − bore of the inner ring; not above 0: no squeeze
  double housing_interference = 0; ///< outer ring − housing
  double shaft_bore = 0;           ///< of a hollow shaft
  double housing_outside = 0;      ///< 0: thick
  const Solid* shaft = nullptr;
  const Solid* housing = nullptr;
  double inner_hotter =
      0; ///< K the inner ring runs hotter than the outer: 5 to 10 is usual (common practice)
  double temperature = 20; ///< °C of shaft, housing and rings at work: the metals grow differently
  Unit unit = Unit::mm;    ///< of the words
};

struct BearingResult {
  bool ok = false;
  std::string message;
  double before_least = 0, before_most = 0;
  double inner_grows = 0, outer_shrinks = 0;         ///< at the raceways, at 20 °C
  double inner_grows_hot = 0, outer_shrinks_hot = 0; ///< the same at work
  double housing_interference_hot = 0;               ///< of the outer ring at work; below 0: loose by that
  double by_heat = 0;                                ///< taken off by the warmer inner ring
  double cold_least = 0, cold_most = 0, hot_least = 0, hot_most = 0;
  std::string verdict;
};

BearingResult bearing_clearance(const BearingInput& input);

/// How far below nominal the bore (outside) of a normal class bearing of that size may be, mm; nothing
/// outside the table. ISO 492, data/rolling_bearings.csv.
std::optional<double> bearing_bore_under(double bore);
std::optional<double> bearing_outside_under(double outside);
double largest_bearing(); ///< mm: to which size those are tabled

} // namespace datrin::fits
