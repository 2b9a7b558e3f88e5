#pragma once
// Pieces left over in the shop: which of them serve for a part, and one taken. mm. Asks fits/ whether two
// names are of one material.

#include "build/edits.h"
#include "stock/choose.h"

#include <string>
#include <vector>

namespace datrin::stock {

/// An offcut that a part comes out of.
struct OffcutChoice {
  build::Id offcut = 0;
  StockChoice choice; ///< of its own size; `takes` is what comes off it
  double left = 0;    ///< mm of it that stay, less the saw's cut
};

/// "25 mm round bar, 130 mm, mild steel".
std::string offcut_text(const build::Offcut& offcut, Unit unit);

/// Of the offcuts of that material (a part without one: any) those that are large enough for one of
/// `choices`, which are the smallest that do; least waste first.
std::vector<OffcutChoice> offcuts_for(const build::Build& build, build::Id part,
                                      const std::vector<StockChoice>& choices);

/// The part is made from it, and so much shorter it stays in the shop; too short to hold, it goes.
build::Edit take_offcut(const build::Build& build, build::Id part, const OffcutChoice& choice);

/// An offcut put by.
build::Added put_by(const build::Build& build, const build::Offcut& offcut);

} // namespace datrin::stock
