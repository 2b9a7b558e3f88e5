#pragma once
// Dividing with a worm and plates: turns of the crank and holes on a circle for each division, exactly or
// with the least error; two circles together where one does not do (compound); the wheels of a differential.

#include <optional>
#include <string>
#include <vector>

namespace datrin::dividing {

struct IndexingInput {
  int divisions = 0;
  int worm = 40;               ///< turns of the crank for one of the work
  std::vector<int> plates;     ///< circles there are: holes on each
  std::vector<int> wheels{};   ///< change wheels of a differential; empty: none
  std::vector<int> plate_of{}; ///< which plate each circle is on; empty: all on one
};

/// Holes on one circle, or on two, the second forwards or back.
struct IndexingStep {
  int turns = 0;                 ///< whole turns
  int holes = 0, circle = 0;     ///< on the first; circle 0: none wanted, whole turns only
  int holes_b = 0, circle_b = 0; ///< on the second; below 0: back; circle 0: none
  double error = 0;              ///< degrees of the work, each division: made less wanted
};

/// A differential: indexed as for `near_divisions`, the plate turned by wheels driver : driven.
struct Differential {
  int near_divisions = 0;
  IndexingStep step;              ///< for those
  int driver = 0, driven = 0;     ///< the plate turns driver / driven of a turn of the work …
  int driver_b = 0, driven_b = 0; ///< compound; 0: none
  bool with_crank = true;         ///< … the way the crank goes; else against it
};

enum class IndexingStatus { not_run, found, refused };

struct Indexing {
  IndexingStatus status = IndexingStatus::not_run;
  std::string message;
  IndexingStep best;                    ///< on one circle: exact, else nearest
  std::optional<IndexingStep> compound; ///< where one circle is not exact and two are
  std::optional<Differential> differential;
  bool usable() const { return status == IndexingStatus::found; }
  bool exact() const { return best.error == 0; }
};

Indexing indexing(const IndexingInput& input);

} // namespace datrin::dividing
