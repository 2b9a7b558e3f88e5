#pragma once
// Two cones that mate: how far the male one goes in before it touches, what a push beyond that makes of
// interference, and what a hundredth or a thou on the diameter is worth along the axis. Plane geometry:
//
//   taper          t = 2 tan(half angle), mm of diameter per mm along
//   stands proud   (shaft − hole) / t, both diameters at the faces that are to come flush; below 0: it sinks
//   interference   t · push
//
// Diameters and lengths mm, angles radians.

#include "quantity/unit.h"

#include <string>

namespace datrin::fits {

struct TaperFitInput {
  double hole = 0;                          ///< diameter of the hole at its mouth
  double shaft = 0;                         ///< of the shaft where it is to be flush with that
  double half_angle = 0;                    ///< of the hole; above 0
  double shaft_half_angle = 0;              ///< 0: as the hole's
  double length = 0;                        ///< engaged; 0: not stated
  double wanted_least = 0, wanted_most = 0; ///< clearance wanted; below 0: interference
  Unit unit = Unit::mm;                     ///< of the words
};

enum class TaperFitStatus { not_run, computed, refused };

struct TaperFitResult {
  TaperFitStatus status = TaperFitStatus::not_run;
  std::string message;
  double taper = 0;      ///< mm of diameter per mm along
  double proud = 0;      ///< mm it stands out of the mouth when it touches; below 0: it sinks
  double push_least = 0; ///< mm beyond touching that make the least interference wanted
  double push_most = 0;  ///< and the most
  double mismatch = 0;   ///< mm of diameter the two differ by over the length; above 0: the hole is steeper
  std::string words;

  bool usable() const { return status == TaperFitStatus::computed; }
};

TaperFitResult taper_fit(const TaperFitInput& input);

} // namespace datrin::fits
