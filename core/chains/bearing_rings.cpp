#include "chains/bearing_rings.h"

#include "fits/metal_of.h"

#include <algorithm>

namespace datrin::chains {

using namespace build;

BearingRings bearing_rings(const Build& build, const BuildTargets& targets, const Joint& own) {
  BearingRings out;
  const auto* own_hole = build.find<Dimension>(own.hole);
  const auto* own_shaft = build.find<Dimension>(own.shaft);
  if (own_hole == nullptr || own_shaft == nullptr) {
    out.message = "State the hole and the shaft of this joint first.";
    return out;
  }
  const bool housing = own.purpose == JointPurpose::bearing_housing;
  const auto bearing = (housing ? own_shaft : own_hole)->part;
  auto& in = out.input;
  in.inner_hotter = std::max(5.0, 0.15 * (own.temperature - 20));
  in.temperature = std::max(20.0, own.temperature);
  in.shaft_bore = own.shaft_bore;
  for (const auto& [id, joint] : build.joints()) {
    const auto* hole = build.find<Dimension>(joint.hole);
    const auto* shaft = build.find<Dimension>(joint.shaft);
    if (hole == nullptr || shaft == nullptr) continue;
    const bool in_housing = joint.purpose == JointPurpose::bearing_housing && shaft->part == bearing;
    const bool on_shaft = joint.purpose == JointPurpose::bearing_shaft && hole->part == bearing;
    if (!in_housing && !on_shaft) continue;
    const int c = targets.tightest_of_joint(id);
    if (c < 0 || !targets.result.usable()) continue;
    const double interference = -targets.result.conditions[static_cast<std::size_t>(c)].expected;
    if (in_housing) {
      in.outside = shaft->nominal;
      in.housing_interference = interference;
      in.housing = fits::metal_of(build, joint.hole);
    } else {
      in.bore = hole->nominal;
      in.shaft_interference = interference;
      in.shaft = fits::metal_of(build, joint.shaft);
    }
  }
  if (!(in.bore > 0) || !(in.outside > 0))
    out.message =
        housing ? "State the joint of its bore on the shaft as well: then it is said what is left inside."
                : "State the joint of its outside in the housing as well: then it is said what is left "
                  "inside.";
  return out;
}

} // namespace datrin::chains
