#pragma once
// What a build file holds, kept aside as long as it is open for work: a program that writes into the file
// under the open window (a copy over it, a sync program, truncation) takes nothing of it, and is noticed.

#include "store/build_database.h"

#include <functional>

namespace datrin::store {

class KeptCopy {
public:
  /// Copies all there is. Throws what the database throws: then there is no room for a copy.
  explicit KeptCopy(const BuildDatabase& of);

  /// Whether the file is as it was left. Looks at size, time and change counter only.
  bool is_as_left(const BuildDatabase& file) const;
  /// Whether records and log in it are the same though it looks changed (touched, or written anew alike).
  bool holds_the_same(const BuildDatabase& file) const;

  /// Does to the copy what was just done to the file, and takes the file as it is now.
  void follow(const BuildDatabase& file, const std::function<void(BuildDatabase&)>& what);
  void left(const BuildDatabase& file) { stamp_ = stamp_of(file); }

  BuildDatabase& database() { return copy_; }

private:
  static FileStamp stamp_of(const BuildDatabase& file) { return file.opened.stamp(); }
  BuildDatabase copy_;
  FileStamp stamp_;
};

} // namespace datrin::store
