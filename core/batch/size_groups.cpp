#include "batch/size_groups.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace datrin::batch {

std::vector<SizeGroup> size_groups(std::vector<SizedPiece> pieces, double width) {
  std::erase_if(pieces, [](const SizedPiece& p) { return !std::isfinite(p.value); });
  std::sort(pieces.begin(), pieces.end(), [](const SizedPiece& a, const SizedPiece& b) {
    return std::tuple(a.value, a.number, a.piece) < std::tuple(b.value, b.number, b.piece);
  });
  constexpr double as_read = 1e-9; // mm
  std::vector<SizeGroup> groups;
  for (const auto& piece : pieces) {
    if (groups.empty() || piece.value - groups.back().least > std::max(0.0, width) + as_read)
      groups.push_back({piece.value, piece.value, {}});
    groups.back().most = piece.value;
    groups.back().pieces.push_back(piece);
  }
  return groups;
}

} // namespace datrin::batch
