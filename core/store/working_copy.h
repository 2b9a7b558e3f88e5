#pragma once
// A copy of a database and its journal in a folder of its own, which goes with it.

#include <string>

namespace datrin::store {

/// Whole even while another window writes: copies have their turn between transactions (store/opened_file.h);
/// and where the disk knows no turns, a transaction makes the journal hot before it writes a page, and counts
/// itself, so that between two looks that find it cold and the count the same no page was written.
class WorkingCopy {
public:
  /// Throws std::exception when no copy could be made.
  explicit WorkingCopy(const std::string& path);
  ~WorkingCopy();
  WorkingCopy(const WorkingCopy&) = delete;
  WorkingCopy& operator=(const WorkingCopy&) = delete;
  std::string path() const { return folder_ + "/copy.datrin"; }

private:
  void copy(const std::string& from) const;
  std::string folder_;
};

} // namespace datrin::store
