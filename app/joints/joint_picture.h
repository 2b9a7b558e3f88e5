#pragma once
// What a joint of the build looks like now: the values its views show.

#include "app/joints/clearance_view.h"
#include "app/joints/zone_view.h"
#include "chains/build_targets.h"
#include "fits/metal_of.h"

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

/// The clearance of the joint added up; hot, when `temperature` is another than 20 and the metals are known.
Reckoning clearance_sum(const build::Build& build, const chains::BuildTargets& targets,
                        const JointState& state, double temperature);

ZonePicture zone_picture(const build::Build& build, const chains::BuildTargets& targets,
                         const JointState& state, double temperature);
ClearancePicture clearance_picture(const build::Build& build, const chains::BuildTargets& targets,
                                   const JointState& state, double temperature);

using fits::hole_metal;
using fits::metal_of;
using fits::shaft_metal;

} // namespace datrin::app
