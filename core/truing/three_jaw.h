#pragma once
// A bar set over in a three-jaw chuck by packing under one jaw. mm.
//
// The jaws close on the chuck's centre at a radius R. The bar (radius r) has its axis e beyond the centre
// from the packed jaw: that one touches at R − p = r − e. The other two stand 60° either side of the way it
// moved; across them the axis lies q0 = e √3 / 2 beside their middle. A jaw as wide as w touches with its
// face as long as q0 ≤ w / 2, else with its edge, q = q0 − w / 2 beside the axis:
//   R = e / 2 + √(r² − q²),   p = R − r + e.
// With narrow jaws that is 1.5 e − r + √(r² − ¾ e²), with wide ones 1.5 e: the usual rule.

#include <string>

namespace datrin::truing {

struct ThreeJawInput {
  double bar = 0;    ///< diameter
  double throw_ = 0; ///< how far its axis is set over
  double jaw = 0;    ///< width of the jaws; 0: narrow
};

enum class ThreeJawStatus { not_run, found, refused };

struct ThreeJaw {
  ThreeJawStatus status = ThreeJawStatus::not_run;
  std::string message;
  double packing = 0;
  double rule_error = 0; ///< by how much 1.5 × the throw is more than that
  bool usable() const { return status == ThreeJawStatus::found; }
};

ThreeJaw three_jaw_packing(const ThreeJawInput& input);

} // namespace datrin::truing
