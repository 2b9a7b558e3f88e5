#pragma once
// What would go wrong in a setup as it is planned: the tool meets what holds the part, the part or its stock
// does not go in, tool or wall give way. Each with its numbers and ways out. What is not stated is not
// judged: it is asked for where it matters.

#include "build/build.h"

#include "solid/solid.h"

#include <string>
#include <vector>

namespace datrin::route {

enum class ClashKind {
  under,   ///< a drill or cutter comes out into what the part stands on
  jaws,    ///< what holds the part is in the cutter's way
  entry,   ///< the stock does not enter spindle, chuck or vise
  swing,   ///< it does not turn over the bed, or is too long for the machine
  reach,   ///< the tool is too short for its hole
  slender, ///< too long and thin
  wall,    ///< a thin wall bends away
  grip,    ///< held too short for how far it stands out
  corner,  ///< the tool's corner is larger than the drawing's
  shank,   ///< the machine cannot hold the tool
  holder,  ///< chuck or spindle come down on the part
  covered, ///< metal stands in the tool's way to it
  travel   ///< the table does not go so far
};

struct Clash {
  ClashKind kind = ClashKind::under;
  bool certain = true; ///< else worth a look
  build::Id setup = 0;
  build::Id operation = 0; ///< 0: of the setup as a whole
  std::string text;        ///< "bolt holes come out under the part by 1.8 mm"
  std::vector<std::string> ways_out;
};

struct ClashOptions {
  double point = 0.300;    ///< of a drill's diameter: how far its point goes through (118°; common practice)
  double clear = 1;        ///< mm a drill goes on past its point
  double deep_hole = 5;    ///< diameters: deeper wants pecking; twice that a special drill
  double bar_overhang = 4; ///< diameters a steel boring bar may stand out (common practice)
  double work_overhang = 3; ///< diameters work may stand out of a chuck without a centre (common practice)
  double least_grip = 0.25; ///< of its diameter, held in a chuck (common practice)
  double cut_depth = 0.25, feed = 0.1;   ///< mm: of the light cut that walls and bars are asked for
  double gives = 0.02;                   ///< mm a wall, bar or shaft may give way under it
  double holder = 18;                    ///< mm: radius of a drill chuck, a spindle nose (common practice)
  const solid::Mesh* finished = nullptr; ///< the part as it will be: tools are swept against it; null: not
};

/// Of every setup of the part, in order.
std::vector<Clash> clashes(const build::Build& build, build::Id part, const ClashOptions& options = {});

const char* clash_name(ClashKind kind);

} // namespace datrin::route
