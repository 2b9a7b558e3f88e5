#pragma once
// Operations to begin with: for every feature that is to be made and has none, what makes it, in the setup
// that reaches it, with the tools of the shop. Where there are no setups yet they are suggested too.

#include "build/edits.h"
#include "route/features.h"

#include <string>
#include <vector>

namespace datrin::route {

/// What makes a feature, in order, each without setup: a hole from solid by its drills, then reamed, bored or
/// tapped as it says, or as close limits want it (common practice); a face faced, a round turned, a slot
/// milled or, where it is thin, slit. Minutes are what is usual for one piece.
std::vector<build::Operation> operations_for(const build::Build& build, build::Id part,
                                             const Feature& feature);

/// Features no operation makes.
std::vector<Feature> unmade(const build::Build& build, build::Id part);

/// The setup that reaches it: the first that cuts its surface, else the first from whose side a tool comes
/// to it; 0: none does.
build::Id setup_reaching(const build::Build& build, build::Id part, const Feature& feature);

/// Setups where there are none, an operation for every feature without one, all in the best order. Empty when
/// there is nothing to add.
build::Edit propose_operations(const build::Build& build, build::Id part);

/// Burrs taken off in every setup that has operations and none that does so. Empty when there is nothing to
/// add.
build::Edit propose_deburring(const build::Build& build, build::Id part);

/// A feature is made by the operation, whole, or is not.
build::Edit toggle_feature(const build::Build& build, build::Id operation, const Feature& feature);

/// Way from which the tool comes in a setup, out of the part; zero where its datums do not say.
Vec3 way_of_setup(const build::Build& build, const build::Setup& setup);

/// "drill 5 mm bolt holes (4)": its own name, else what it does, with what, to what.
std::string operation_text(const build::Build& build, const build::Operation& operation);

/// What is usual for one piece, minutes (common practice; a beginning).
double usual_minutes(build::OperationKind kind);

} // namespace datrin::route
