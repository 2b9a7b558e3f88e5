#pragma once
// A part made in numbers as a sheet: a row for each piece, a column for each dimension of its drawing. Each
// cell is what readings/size_now says, and what that is worth. Lengths mm (of an angle radians). (batch uses
// readings and chains here: what is read, and what its mates want of each piece.)

#include "batch/progress.h"
#include "batch/size_groups.h"
#include "chains/build_targets.h"
#include "readings/fits_limits.h"
#include "readings/size_now.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::batch {

using build::Id;

enum class CellVerdict {
  empty,     ///< not read
  good,      ///< within its limits, or as its mates want it
  metal_on,  ///< more is to come off
  undecided, ///< what was read leaves both open: `band` lies about a limit
  out,       ///< past its limits, or of one without limits past what its mates can have
  unknown    ///< read, but nothing says what it should be
};

struct BatchCell {
  readings::SizeNow now;
  CellVerdict verdict = CellVerdict::empty;
  readings::Band band{};      ///< undecided: between which sizes it is
  double over = 0;            ///< out: how far, above 0 too large, below 0 too small
  std::optional<double> make; ///< what its mates want of this very piece, while it is not made
};

struct BatchRow {
  Id piece = 0;
  int number = 0;
  std::string rejected; ///< why it is not made further; empty: it is
  std::vector<BatchCell> cells;
  int read = 0;
  bool done() const { return !cells.empty() && read == static_cast<int>(cells.size()); }
};

struct BatchColumn {
  Id dimension = 0;
  std::string name;
  bool angle = false;                   ///< radians: in no groups
  int read = 0, out = 0, undecided = 0; ///< of pieces that are not rejected
  double least = 0, most = 0, mean = 0,
         sigma = 0; ///< of the sizes read as such, not by gauges; sigma: of the sample
};

struct BatchSheet {
  std::vector<BatchColumn> columns;
  std::vector<BatchRow> rows;
  Progress progress;
};

/// The sheet of `part`. `targets` may be null: then no cell says what to make.
BatchSheet batch_sheet(const build::Build& build, Id part, const chains::BuildTargets* targets);

/// The pieces of one column that are read and not rejected, by size.
std::vector<SizeGroup> groups_of(const BatchSheet& sheet, std::size_t column, double width);

} // namespace datrin::batch
