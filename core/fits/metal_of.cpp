#include "fits/metal_of.h"

#include "fits/material_change.h"

namespace datrin::fits {

const Solid* metal_of(const build::Build& build, build::Id dimension) {
  const auto* d = build.find<build::Dimension>(dimension);
  const auto* part = d ? build.find<build::Part>(d->part) : nullptr;
  return part ? find_in_condition(part->material, part->condition) : nullptr;
}

const Solid* hole_metal(const build::Build& build, const build::Joint& joint) {
  return joint.purpose == build::JointPurpose::bearing_shaft ? find_solid("steel").solid
                                                             : metal_of(build, joint.hole);
}

const Solid* shaft_metal(const build::Build& build, const build::Joint& joint) {
  return joint.purpose == build::JointPurpose::bearing_housing ? find_solid("steel").solid
                                                               : metal_of(build, joint.shaft);
}

} // namespace datrin::fits
