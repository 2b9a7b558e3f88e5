#pragma once
// What can still be read of a damaged build file.

#include "store/build_file.h"

namespace datrin::store {

struct RecoveredBuild {
  build::Build build;
  std::vector<LogLine> log;  ///< oldest first
  std::size_t records = 0;   ///< read, from the records or from the log
  std::size_t from_log = 0;  ///< of those, only the log still had them
  std::size_t stand_ins = 0; ///< made for records others refer to and that are lost
  std::vector<std::string>
      lost; ///< records that stood in it, could not be read and are not in the log: "touch 12"
  std::vector<std::string> doubtful; ///< kept, though not as they were written and not in the log: "wall 7"
  std::string message;               ///< what went wrong last
};

/// Reads every record it can, each on its own, and the log; a record that is lost but stands in the log comes
/// from there. Parts, pieces and surfaces that others refer to and that are lost are stood in for by ones
/// named "Lost part 7", so that what refers to them is seen. The file may be written to: give it a copy.
RecoveredBuild recover_build(const std::string& copy);

} // namespace datrin::store
