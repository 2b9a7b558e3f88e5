#pragma once
// What must come before what, and why: from the datums of the setups, the ladders of each feature, the solid,
// and rules of the trade. Reasons are data: the rule, the two operations, the numbers.

#include "build/build.h"

#include <string>
#include <vector>

namespace datrin::route {

enum class Rule {
  person,    ///< someone said so
  ladder,    ///< of one feature: drilled before it is reamed
  reference, ///< a later setup locates from what it makes
  faced,     ///< a drill starts square on a face that is cut
  wall,      ///< drilled and tapped while there is metal round it
  meets,     ///< of two holes that meet the blind one first
  centre,    ///< the live centre is wanted until the end is faced
  slit_last, ///< a slit part springs
  burrs      ///< burrs are taken off when all is cut
};

struct Precedence {
  build::Id before = 0, after = 0; ///< operations
  Rule rule = Rule::person;
  std::string reason;    ///< a clause: "\"turned over\" locates from foot"
  std::string set_aside; ///< why it was; empty: it holds
  bool holds() const { return set_aside.empty(); }
};

struct PrecedenceOptions {
  double wall_of_hole = 1; ///< diameters of the hole: less metal round it wants the hole first (common
                           ///< practice)
};

/// Each pair once, by its strongest rule; in the order of the operations.
std::vector<Precedence> precedences(const build::Build& build, build::Id part,
                                    const PrecedenceOptions& options = {});

} // namespace datrin::route
