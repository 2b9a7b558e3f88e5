#pragma once
// What of a part is to be made: its machined surfaces, and what is cut of its solid though it is no surface.
// What stays as it was cast, or as the bar came, is none. Drawing frame, mm.

#include "build/build.h"
#include "geometry/surface.h"

#include <string>
#include <vector>

namespace datrin::route {

enum class FeatureShape {
  plane,
  round, ///< outside
  taper, ///< outside
  hole,
  taper_hole,
  slot,
  pocket,
  groove, ///< round a boss
  keyway, ///< in the wall of a hole
  edges,  ///< chamfered or rounded
  mark,
  profile ///< turned, or milled, all round: a body without surfaces of its own
};

struct Feature {
  std::string name;
  FeatureShape shape = FeatureShape::plane;
  std::vector<build::Id> surfaces; ///< all copies of a pattern
  build::Id body = 0;              ///< it is, or is a face of
  int copies = 1;
  Vec3 at = Vec3::Zero();   ///< the mouth of a hole; of a plane or a round its middle
  Vec3 way = Vec3::UnitZ(); ///< out of the metal: a tool comes against it
  bool both_ways = false;   ///< from the other end as well: a hole that is through, the outside of a round
  double across = 0;        ///< mm: diameter, width of a slot; of edges their size
  double deep = 0;          ///< mm along `way`; 0: not known
  bool from_solid = false;  ///< nothing of it is there before it is cut
};

std::vector<Feature> features_to_make(const build::Build& build, build::Id part);

/// Where the mouth of each of its copies is: of a hole, a slot, a pocket.
std::vector<Vec3> mouths_of(const build::Build& build, build::Id part, const Feature& feature);

/// Whether it counterbores, spot-faces or countersinks: works the mouth of a hole, not the hole.
bool works_mouth(const build::Build& build, const build::Operation& operation);

/// Whether an operation makes it, or some of it.
bool makes(const build::Operation& operation, const Feature& feature);

} // namespace datrin::route
