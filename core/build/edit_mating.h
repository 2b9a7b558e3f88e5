#pragma once
// The edits of chains of dimensions. (Joints: fits/joint_edits.h; readings: chains/measure.h.) Lengths mm.

#include "build/edits.h"

#include <string>

namespace datrin::build {

/// A chain without links, which may leave a gap of 0 to 0.2.
Added state_chain(const Build& build);

/// The gap the chain may leave; `wrong` when the least is above the most.
Added set_gap(const Build& build, Id chain, double least, double most);

/// A link more, of the part's first piece; `why`: the coefficient as it was typed.
Edit add_link(const Build& build, Id chain, Id dimension, double coefficient, std::string why);
Edit remove_link(const Build& build, Id chain, std::size_t link);
Edit set_links(const Build& build, Id chain, std::vector<ChainTerm> links);

} // namespace datrin::build
