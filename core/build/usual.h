#pragma once
// What is usual in a workshop until something else is typed. mm.

#include "quantity/unit.h"

namespace datrin::build {

/// The finishing cut, a side.
constexpr double usual_finish(Unit unit) {
  return usual_length(unit, 0.3, 0.012);
}
/// The most a roughing cut takes, a side.
constexpr double usual_rough(Unit unit) {
  return usual_length(unit, 1.5, 0.06);
}

} // namespace datrin::build
