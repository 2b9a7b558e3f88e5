#pragma once
// What a length is nearest to: a sixty-fourth of an inch, a drill, a line on a dial.

#include "quantity/unit.h"

#include <string>

namespace datrin {

struct Nearest {
  std::string name; ///< "19/32 in", "letter F"
  double mm = 0;
};

/// To the nearest sixty-fourth, in lowest terms: "1 3/8 in". Signs as of `mm`.
Nearest nearest_sixty_fourth(double mm);
/// Of a full drawer in `unit` (quantity/drills.h); no name where `mm` is beyond the drawer.
Nearest nearest_drill(double mm, Unit unit);
/// The line of a dial whose lines are `step` mm apart; step > 0.
double nearest_line(double mm, double step);

/// "nearest 19/32 in (+0.081 mm), drill 15 mm, dial 15.00 mm": each with how far it is off, in `unit`.
std::string nearest_words(double mm, Unit unit, double dial_step);

} // namespace datrin
