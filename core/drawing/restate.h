#pragma once
// A dimension that cannot be measured, restated as one that can: over a pin, between pins, from an edge,
// across a ball; both directions, with the band that the pin's own clearance adds, and whether such a reading
// can decide the limits.
//
// All are linear in the value:  reading = factor · value + offset.
//
//   over a pin            edge to the far side of a pin in the hole      c + d/2      (c: edge to centre)
//   inside a pin          edge to the near side of the pin               c − d/2
//   over two pins         far side to far side                           c + (d + e)/2
//   between two pins      near side to near side                         c − (d + e)/2
//   from the edge         web: edge of the hole to the edge of the part  c − D/2
//   ball in a cone        top of a ball d over the face of a cone with   r/sin α + r − D/(2 tan α)
//                         half angle α and mouth diameter D              (r = d/2; D is the value)
//
// Formulas: plane geometry.

#include "quantity/reckoning.h"

#include <string>

namespace datrin::drawing {

enum class Restated { over_pin, inside_pin, over_two_pins, between_two_pins, from_edge, ball_in_cone };

struct RestateInput {
  Restated how = Restated::over_pin;
  double nominal = 0, lower = 0, upper = 0; ///< mm: the dimension and its deviations
  double pin = 0;                           ///< mm: pin, ball, or (from_edge) the hole
  double pin_2 = 0;                         ///< mm: the second pin
  double hole = 0;                          ///< mm: the hole the pin stands in; 0: no clearance
  double hole_2 = 0;
  double half_angle = 0; ///< radians (ball_in_cone)
  Unit unit = Unit::mm;  ///< of the verdict
  double instrument = 0; ///< mm: uncertainty of the reading, 95 %
};

enum class RestateStatus { not_run, restated, refused };
enum class CanDecide { yes, partly, no };

struct RestateResult {
  RestateStatus status = RestateStatus::not_run;
  std::string message;
  double reading = 0;                         ///< mm: what the nominal reads
  double reading_least = 0, reading_most = 0; ///< mm: what the limits read, least first
  double factor = 1, offset = 0;
  double band = 0; ///< mm: ± on the value, from clearance and instrument
  CanDecide decides = CanDecide::no;
  double sure_least = 0,
         sure_most = 0; ///< mm: readings that are surely within limits; empty when least > most
  std::string verdict;  ///< one plain sentence
  Reckoning sum;        ///< how the reading adds up

  bool usable() const { return status == RestateStatus::restated; }
  double value_of(double read) const { return (read - offset) / factor; } ///< mm: the value behind a reading
};

RestateResult restate(const RestateInput& input);

} // namespace datrin::drawing
