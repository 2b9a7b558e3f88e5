#pragma once
// The edits of making: how metal is spent and what was cut, setups and their gate, the shop. Lengths mm;
// `at` is UTC, ISO 8601.

#include "build/edits.h"

#include <string>

namespace datrin::build {

/// How the metal over a surface of a piece is spent; named "`what` for bore".
Edit set_allowance(const Build& build, const Allowance& allowance, const std::string& what);

/// A cut that was made and read.
Edit log_cut(const Build& build, const Cut& cut);

/// The last cut of that surface of that piece was not.
Edit take_back_cut(const Build& build, Id piece, Id surface);

/// A reference for a later setup, scribed or cut on a surface that stays as cast. `place`: mm, survey frame.
Edit log_reference(const Build& build, Id piece, Id surface, const Vec3& place, std::string at);

/// A setup after those there are.
Added add_setup(const Build& build, Id part);

/// One place earlier (−1) or later (+1) among the setups of its part.
Edit move_setup(const Build& build, Id setup, int by);

/// The next part a surface plays in a setup: locates, is cut (what stays as cast: is a reference), is a
/// reference for later, nothing. Three locate at most. A dimension is measured there or not.
Edit next_role(const Build& build, Id setup, Id surface_or_dimension);

/// The piece leaves the setup. `missing`: what the gate wanted and was not done; `left`: what stays on the
/// machine.
Edit unclamp(const Build& build, Id piece, Id setup, std::string missing, std::string at,
             std::string left = {});
Edit clamp_again(const Build& build, Id piece, Id setup);

/// What there is in the shop; each after those there are.
Added add_machine(const Build& build, Machine machine);
Added add_tool(const Build& build, Tool tool);
Added add_instrument(const Build& build, Instrument instrument);

} // namespace datrin::build
