#pragma once
// What another datum would give: for one figure of the spread, the setup it is lost in, and the face or axis
// that would leave least of it lost there.

#include "build/edits.h"
#include "route/part_spread.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::route {

struct OtherDatum {
  build::Id setup = 0;
  build::Id instead_of = 0; ///< the datum it takes the place of; 0: it is one more
  build::Id datum = 0;
  double sigma = 0; ///< mm: of the figure then
  std::string text; ///< "stand \"turned over\" on cap instead of foot"
  build::Edit edit; ///< takes it
};

struct OtherDatumOptions {
  double worth = 0.9; ///< of what it is now: a change that leaves more is not told of
};

/// Surfaces that could be the `place`-th datum of a setup (from 0; its number of datums: one more, where it
/// has fewer than three): of what is cut by then, or raw where the setup stands on raw metal; the first looks
/// the same way as the one there, so that the tool still comes from the other side; those behind it lie along
/// it, or say of a way still free where the part is.
std::vector<build::Id> datum_candidates(const build::Build& build, build::Id setup, std::size_t place);

/// The best of them all for one figure; nothing where none is worth it.
std::optional<OtherDatum> other_datum(const build::Build& build, build::Id part, const DimensionSpread& of,
                                      const OtherDatumOptions& options = {});

/// Datums changed one by one as long as the worst figure of the part gets better, no more than `most` times;
/// what was changed, in words. For builds that are tried out: `build` is changed.
std::vector<std::string> better_datums(build::Build& build, build::Id part, int most = 6);

} // namespace datrin::route
