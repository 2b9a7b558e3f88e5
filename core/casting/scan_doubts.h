#pragma once
// The points of a scan that were given to none because they lie about as near to two surfaces: which two, how
// many, and giving them to one by hand.

#include "build/edits.h"

#include <string>
#include <vector>

namespace datrin::casting {

/// Points between the same two surfaces.
struct ScanDoubt {
  build::Id scan = 0;
  build::Id first = 0, second = 0; ///< first: what they lie nearest to on the whole
  std::vector<std::size_t> points; ///< of the scan
  Vec3 middle = Vec3::Zero();      ///< of them, survey frame
};

struct ScanDoubtOptions {
  double reach = 4.5; ///< mm: further off every surface than this they belong to none
};

/// The doubts of every scan of a piece, the most points first, with the part seated as it is now.
std::vector<ScanDoubt> scan_doubts(const build::Build& build, build::Id piece,
                                   const ScanDoubtOptions& options = {});

/// Gives the points of a doubt to `surface` (one of the piece's part). Empty where that is not one.
build::Edit give_points(const build::Build& build, const ScanDoubt& doubt, build::Id surface);

} // namespace datrin::casting
