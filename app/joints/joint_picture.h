#pragma once
// What a joint of the build looks like now: the values its views show.

#include "app/joints/clearance_view.h"
#include "app/joints/zone_view.h"
#include "chains/build_targets.h"
#include "fits/solids.h"

namespace datrin::app {

/// Hole and shaft of one condition of a joint.
struct JointState {
  build::Id id = 0;
  build::Joint joint;
  int condition = -1;            ///< of the targets; −1: it says nothing yet
  chains::Made hole, shaft;      ///< of that condition; shaft.dimension 0: over a thread
  double major = 0;              ///< of the thread, when it stands for the shaft
  QString hole_name, shaft_name; ///< "Connecting rod, big end bore"
  bool usable() const { return condition >= 0; }
};

/// The tightest pair of the joint, or the pair of `condition` when that is one of its own.
JointState joint_state(const build::Build& build, const chains::BuildTargets& targets, build::Id joint,
                       int condition = -1);

ZonePicture zone_picture(const build::Build& build, const chains::BuildTargets& targets,
                         const JointState& state, double temperature);
ClearancePicture clearance_picture(const build::Build& build, const chains::BuildTargets& targets,
                                   const JointState& state, double temperature);

/// Metal of the part a dimension belongs to; null when it is not one the tables have.
const fits::Solid* metal_of(const build::Build& build, build::Id dimension);

} // namespace datrin::app
