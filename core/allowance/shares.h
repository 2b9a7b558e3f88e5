#pragma once
// How the metal between two opposite faces is shared between them: by the seat, half each, all to one side,
// or so that a defect is cut away; and what that does to everything else.
//
// One variable, the shift x of the part from face a towards face b (mm): the metal over a grows by x, over b
// it shrinks. The margins of both faces (metal less what is needed) and of a defect (depth to be cut off less
// metal over it) are linear in x; the shift with the largest least margin is found by margin/least.

#include "quantity/reckoning.h"

#include <string>

namespace datrin::allowance {

enum class Share { as_seated, even_room, half, all_a, all_b, clear_defect };

struct ShareInput {
  double least_a = 0, least_b = 0;   ///< mm of metal at the lowest place of each face
  double needed_a = 0, needed_b = 0; ///< mm each must have
  double defect = 0;                 ///< mm a defect on face a reaches below its raw surface; 0: none
  double over_defect = 0;            ///< mm of metal over size at the defect
};

enum class ShareStatus { not_run, shared, refused };

struct ShareResult {
  ShareStatus status = ShareStatus::not_run;
  std::string message;
  double shift = 0;                ///< mm: the part moves this far towards b (metal over a grows)
  double metal_a = 0, metal_b = 0; ///< mm at the lowest places, then
  double room_a = 0, room_b = 0;   ///< less what is needed
  bool fits = false;               ///< both have room, and the defect is gone
  std::string text;                ///< "117 = 15 + 102": in thou and mm, by the caller's unit

  bool usable() const { return status == ShareStatus::shared; }
};

ShareResult share(const ShareInput& input, Share how, Unit unit = Unit::mm);

} // namespace datrin::allowance
