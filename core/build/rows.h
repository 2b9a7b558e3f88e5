#pragma once
// Records made, changed and taken away one after another on a copy of a build, as one edit at the end.

#include "build/edits.h"

#include <string>
#include <vector>

namespace datrin::build {

class Rows {
public:
  /// `before` stays as it is, and there, as long as this does.
  explicit Rows(const Build& before) : before_(before), build_(before) {}
  explicit Rows(Build&&) = delete;

  Id add(Record record);
  void set(Id id, Record record); ///< there or not
  void take_away(Id id);          ///< with all that needs it
  void apply(const Edit& edit);

  /// The build as it is by now.
  const Build& build() const { return build_; }
  /// What was and what is of every record that was touched and differs, in the order they were touched.
  Edit edit(std::string label) const;

private:
  const Build& before_;
  Build build_;
  std::vector<Id> touched_;
};

} // namespace datrin::build
