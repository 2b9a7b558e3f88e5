#pragma once
// Stating a joint and changing one: what follows for its limits, and what is refused. (fits/ holds what a
// purpose asks for; build/ the records.) Lengths mm.

#include "build/edits.h"
#include "fits/purpose.h"
#include "quantity/limits.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::fits {

/// One of the two that mate: a dimension of the drawings, or a size typed here, "10 H7", for a part of its
/// own.
struct JointSide {
  build::Id dimension = 0;
  std::string size; ///< when there is no dimension
};

struct JointInput {
  JointPurpose purpose = JointPurpose::runs_freely;
  std::string name;   ///< empty: what it is for
  std::string thread; ///< of a hole over a thread, which has no shaft
  JointSide hole, shaft;
};

enum class JointField { none, name, hole, shaft, thread };

struct StatedJoint {
  build::Added added;
  JointField wrong_at = JointField::none; ///< where the wrong stands
};

/// States a joint with the first proposal's limits for its purpose. Typed sizes become parts of one
/// dimension.
StatedJoint state_joint(const build::Build& build, const JointInput& input, const LimitsOptions& options);

/// Limits that hole and shaft take with the joint's clearance: deviations from `nominal`, and the class they
/// came from ("H7"; empty: none of its own).
struct FitLimits {
  double nominal = 0;
  Deviations hole, shaft;
  std::string hole_class, shaft_class;
};

/// A joint with something changed, or why it cannot be.
struct ChangedJoint {
  build::Joint joint;
  std::string wrong;
  std::optional<FitLimits> limits{}; ///< that its dimensions take as well
  bool ok() const { return wrong.empty(); }
};

ChangedJoint with_thread(const build::Build& build, build::Joint joint, const std::string& thread);
/// The limits follow: those of another purpose would mean nothing.
ChangedJoint with_purpose(const build::Build& build, build::Joint joint, JointPurpose purpose);
/// Another hole takes the same class at its size; pairs of pieces begin anew.
ChangedJoint with_hole(const build::Build& build, build::Joint joint, build::Id dimension);
ChangedJoint with_shaft(build::Joint joint, build::Id dimension);
/// Typed limits have no basis.
ChangedJoint with_clearance(build::Joint joint, double least, double most);
/// "H7/g6" or "RC4", at the size of its hole; hole and shaft take its limits.
ChangedJoint with_fit(const build::Build& build, build::Joint joint, const std::string& code);
/// A proposal with limits of its own gives them to hole and shaft; a rule states the clearance only.
ChangedJoint with_proposal(const build::Build& build, build::Joint joint, const Proposal& proposal);

/// Keeps the joint `id` as changed, and the limits of its hole and shaft with it, in one edit. What a
/// dimension was goes into its history.
build::Edit keep_joint(const build::Build& build, build::Id id, const ChangedJoint& changed,
                       const std::string& what, const std::string& at);

} // namespace datrin::fits
