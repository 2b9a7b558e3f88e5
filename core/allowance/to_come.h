#pragma once
// What is still to come off a feature that was read and is not finished: how much, in which cut, and when to
// try it on its mate. Lengths mm.

#include "readings/size_now.h"

#include <string>

namespace datrin::allowance {

struct ToCome {
  bool any = false;
  double left = 0;                        ///< on the dimension (a diameter: twice what comes off a side)
  double a_side = 0;                      ///< off each side of a diameter; off the face of a distance
  double cut = 0;                         ///< a side: the next one
  bool finishing = false, trying = false; ///< the finishing cut is next; it is near enough to be tried
  std::string words;                      ///< one or two sentences in the build's unit
};

/// From what is known of `made` to `target`, by the cuts kept for its surface or as usual. With `mated` the
/// last of it is fitted by trial: 5 thou over, then a thou at a time (common practice). Nothing is to come
/// off what cutting does not change one way.
ToCome to_come(const build::Build& build, const build::Made& made, const readings::SizeNow& now,
               double target, bool mated);

} // namespace datrin::allowance
