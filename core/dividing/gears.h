#pragma once
// Spur gears of the standard full-depth tooth: the blank, the depth to cut, what it measures over two pins.
// ISO 53 (addendum m, dedendum 1.25 m); of 14½° by diametral pitch the older depth of 2.157 / DP; over pins
// by the involute of the pin's centre (any handbook of gears):
//   inv φ = inv α + d / (N m cos α) − π / (2 N),   M = N m cos α / cos φ (· cos(90° / N) of an odd N) + d.
// Lengths mm, angles radians.

#include "quantity/unit.h"

#include <string>

namespace datrin::dividing {

struct GearInput {
  int teeth = 0;
  double module = 0;               ///< mm; of a diametral pitch 25.4 / DP
  double pressure = 20 * pi / 180; ///< angle
  double pin = 0;                  ///< diameter; 0: none
  bool by_module = true; ///< false: stated by diametral pitch, with its own depth at 14½° and set of cutters
};

enum class GearStatus { not_run, found, refused };

struct Gear {
  GearStatus status = GearStatus::not_run;
  std::string message;
  double pitch = 0, outside = 0, root = 0; ///< diameters
  double depth = 0;                        ///< of the tooth
  double circular = 0;                     ///< from tooth to tooth along the pitch circle
  double over_pins = 0;                    ///< 0: no pin, or it does not lie on the flanks
  double pin_at = 0;                       ///< diameter at which the pin touches; best near the pitch circle
  double depth_factor = 0;                 ///< depth in modules
  int cutter = 0; ///< of the usual set of eight, by the numbers of its kind; 0: none cuts so few
  int cutter_from = 0, cutter_to = 0; ///< teeth it cuts; to 0: up to a rack
  std::string words;
  bool usable() const { return status == GearStatus::found; }
};

Gear gear(const GearInput& input);

/// tan x − x.
double involute(double angle);
/// The angle whose involute that is.
double angle_of_involute(double value);

} // namespace datrin::dividing
