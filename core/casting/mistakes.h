#pragma once
// Touches that look like mistakes, each with the reason that explains it best. Nothing is dropped here: the
// person decides.
//
// How: the part is placed by the touches, those that stand off being left out in turn; on every surface the
// stock is fitted as a leaning plane (planes) or an offset circle (round surfaces), first by least median of
// squares (P. J. Rousseeuw, 1984), which half of the touches may be wrong without hurting, then by least
// squares on what agrees. A touch further off the fit of the others than they scatter is looked into: would
// it agree after one slip undone - a turn of the dial, a sign, inch typed for millimetre, the radius applied
// the wrong way, another surface?

#include "casting/seat_input.h"
#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::casting {

struct MistakeTouch {
  int surface = -1;
  Vec3 centre = Vec3::Zero(); ///< mm, as read, in its setting's frame
  double tip_radius = 0;      ///< mm
  Vec3 toward = Vec3::Zero(); ///< direction the tip travelled; zero: not stated
  Pose to_survey;             ///< its setting's frame → survey frame
};

struct MistakesInput {
  std::vector<SeatSurface> surfaces;
  std::vector<Eigen::Vector2d>
      extent; ///< per surface: width and height of a plane, (0, length) of a round one; 0: unknown
  std::vector<MistakeTouch> touches;
  Pose start; ///< survey frame → drawing frame, roughly
};

struct MistakesOptions {
  std::vector<double> dial_turns{1.0, 2.54}; ///< mm a turn: a metric dial's, a tenth of an inch
  double sigmas = 2.8;                       ///< scatter of the others that is still taken for roughness
  double least_off = 0.4;                    ///< mm: nothing nearer is called a mistake
  double beyond_edge = 4;                    ///< mm past the edge of its surface that is still believed
  Unit unit = Unit::mm;                      ///< of the words
};

enum class MistakeKind { dial_turn, sign, inch_for_mm, mm_for_inch, radius, wrong_surface, unexplained };

struct Mistake {
  int touch = -1; ///< index into MistakesInput::touches
  MistakeKind kind = MistakeKind::unexplained;
  double off = 0;  ///< mm: how far from where the others say the surface is; positive: too much metal
  double left = 0; ///< mm: the same after the suggestion
  int axis = -1;   ///< of the coordinate to change; −1: none or all
  // The suggestion: the touch as it would be. The same as now when it is unexplained.
  Vec3 centre = Vec3::Zero(), toward = Vec3::Zero();
  int surface = -1;
  std::string reason; ///< "x is one turn of the dial (1 mm) too much"
};

enum class MistakesStatus { not_run, looked, too_few };

struct MistakesResult {
  MistakesStatus status = MistakesStatus::not_run;
  std::string message;
  double scatter = 0; ///< mm, standard deviation of the touches about their surfaces
  std::vector<Mistake> mistakes;
};

MistakesResult find_mistakes(const MistakesInput& input, const MistakesOptions& options = {});

} // namespace datrin::casting
