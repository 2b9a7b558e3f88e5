#pragma once
// Teeth of clock wheels: the wheel's tip is rolled by a circle half as large as the pinion (an epicycloid),
// the pinion's flanks are straight to its middle. How high the tip would come to a point follows from the two
// counts; cut it is 95 % of that, rounded by one radius. Lengths mm. The curve is geometry; the 95 %, the
// radius and the pinion's figures are those usual for fine mechanisms (as in BS 978-2), from memory.

#include <string>

namespace datrin::dividing {

struct ClockTeethInput {
  int wheel = 0, pinion = 0; ///< teeth, leaves
  double module = 0;         ///< mm
};

enum class ClockTeethStatus { not_run, found, refused };

struct ClockTeeth {
  ClockTeethStatus status = ClockTeethStatus::not_run;
  std::string message;
  double point = 0;                           ///< modules: addendum at which the two curves of a tip meet
  double addendum = 0;                        ///< modules: as it is cut
  double wheel_outside = 0, wheel_root = 0;   ///< diameters
  double wheel_depth = 0;                     ///< of its tooth
  double wheel_round = 0;                     ///< radius of the tip's curve
  double pinion_outside = 0, pinion_root = 0; ///< diameters
  double leaf_thick = 0;                      ///< of a leaf, on the pitch circle
  double centres = 0;                         ///< depthing
  bool usable() const { return status == ClockTeethStatus::found; }
};

/// The tip's two epicycloids meet where t = π / leaves + 2 (wheel / pinion) β(t): solved by going round.
ClockTeeth clock_teeth(const ClockTeethInput& input);

} // namespace datrin::dividing
