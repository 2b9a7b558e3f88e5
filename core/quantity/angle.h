#pragma once
// Angles as people write them: `45`, `45°`, `4.764 deg`, `4° 45'`, `4°45'30"`, `1 in 12` (a taper on one
// side), `1:12`.

#include <string>
#include <string_view>

namespace datrin {

struct AngleResult {
  bool ok = false;
  std::string message; ///< what is wrong and what is expected; empty when ok
  double radian = 0;
};

/// Reads `text`; a bare number is degrees. With `decimal_comma`, 4,5 is four and a half.
AngleResult parse_angle(std::string_view text, bool decimal_comma = false);

/// "4.764°": as few figures as say it to a thousandth of a degree.
std::string angle_text(double radian);

} // namespace datrin
