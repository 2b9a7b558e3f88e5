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

/// The operation was done on the piece, or was not.
Edit set_done(const Build& build, Id piece, Id operation, bool done, const std::string& at);

} // namespace datrin::build
