#pragma once
// A copy of a database and its journal in a folder of its own, which goes with it.

#include "store/temporary_folder.h"

#include <string>

namespace datrin::store {

/// Whole even while another window writes: copies have their turn between transactions (store/opened_file.h);
/// and where the disk knows no turns, a transaction makes the journal hot before it writes a page, and counts
/// itself, so that between two looks that find it cold and the count the same no page was written.
class WorkingCopy {
public:
  enum class Turns {
    taken, ///< where the disk knows them
    none   ///< as on a disk that knows none
  };

  /// Of the database at `path`, or at a link's target. Throws std::exception when no copy could be made.
  explicit WorkingCopy(const std::string& path, Turns turns = Turns::taken);
  std::string path() const { return folder_.path() + "/copy.datrin"; }

private:
  void copy(const std::string& from) const;
  TemporaryFolder folder_;
};

} // namespace datrin::store
