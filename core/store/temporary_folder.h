#pragma once
#include <string>

namespace datrin::store {

/// A folder of its own, which goes with this and with all that is in it.
class TemporaryFolder {
public:
  TemporaryFolder(); ///< throws std::exception when none can be made
  ~TemporaryFolder();
  TemporaryFolder(const TemporaryFolder&) = delete;
  TemporaryFolder& operator=(const TemporaryFolder&) = delete;
  const std::string& path() const { return path_; }

private:
  std::string path_;
};

} // namespace datrin::store
