#pragma once
// Pieces by size, so that one setting serves several: the fewest groups of which none spans more than a
// width. Beginning a group at the smallest piece left and taking all within the width of it gives the fewest
// (the pieces must be covered from the smallest on, and no group that covers it reaches further). Lengths mm.

#include "build/record.h"

#include <vector>

namespace datrin::batch {

struct SizedPiece {
  build::Id piece = 0;
  int number = 0;
  double value = 0;
};

struct SizeGroup {
  double least = 0, most = 0;
  std::vector<SizedPiece> pieces; ///< smallest first
  double middle() const { return (least + most) / 2; }
};

/// `width` below 0 counts as 0: only pieces of one size stand together.
std::vector<SizeGroup> size_groups(std::vector<SizedPiece> pieces, double width);

} // namespace datrin::batch
