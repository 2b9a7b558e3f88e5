#pragma once
// The edits of operations. `at` is UTC, ISO 8601. The order they stand in, and what proposes them: route/.

#include "build/edits.h"

#include <string>

namespace datrin::build {

/// An operation behind the one `after` (0: at the end) in the same setup.
Added add_operation(const Build& build, Id part, OperationKind kind, Id after);

/// Waits for that other operation, by a person's word, or does not.
Edit toggle_wait(const Build& build, Id operation, Id before);

/// A part made in the shop (a fixture, a jig, a gauge) is needed for it, or is not.
Edit toggle_need(const Build& build, Id operation, Id part);

/// A fixture takes hold of that surface, by that.
Added add_locator(const Build& build, Id fixture, Id surface, LocatorKind kind);

/// It was tried before good pieces go in.
Added add_proof(const Build& build, const Proof& proof);

/// A surface, or its axis, must lie within so wide a zone (mm, above 0) of its datums.
Added add_tolerance(const Build& build, const GeometricTolerance& tolerance);

/// Minutes it takes to make a setup ready and to change a tool, of this build.
Edit set_change_minutes(const Build& build, double setup, double tool);

/// The operation was done on the piece, or was not.
Edit set_done(const Build& build, Id piece, Id operation, bool done, const std::string& at);

} // namespace datrin::build
