#pragma once
// Angles as people write them: `45`, `45°`, `4.764 deg`, `4° 45'`, `4°45'30"`, and tapers: `1 in 12`, `1:12`,
// `1 in 12 on the diameter`, `1 in 12 on one side`, `5 %`, `0.125 in/ft`.
//
// A slope of 1 in 12 is atan(1/12), the angle of one side. A cone of 1 in 12 loses 1 in 12 of its diameter:
// each side leans atan(1/24), and the whole angle is twice that.

#include <string>
#include <string_view>

namespace datrin {

/// What "1 in 12" says where the words behind it do not.
enum class TaperOf {
  slope, ///< one side: the angle is that of the slope
  cone   ///< the diameter: the angle is the whole angle of the cone
};

struct AngleOptions {
  bool decimal_comma = false; ///< 4,5 is four and a half
  TaperOf taper = TaperOf::slope;
};

struct AngleResult {
  bool ok = false;
  std::string message; ///< what is wrong and what is expected; empty when ok
  double radian = 0;
  std::string understood; ///< of a taper: "1 in 12 on the diameter, the whole angle"; else empty
};

/// Reads `text`; a bare number is degrees.
AngleResult parse_angle(std::string_view text, const AngleOptions& options = {});

/// "4.764°": as few figures as say it to a thousandth of a degree.
std::string angle_text(double radian);

/// A cone by its whole angle, as drawings give it: "1 in 20" on the diameter where that says it exactly (to
/// three decimals), else the angle. Read back by `parse_angle` with `TaperOf::cone`.
std::string taper_text(double whole_angle);

} // namespace datrin
