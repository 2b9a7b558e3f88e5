#include "store/temporary_folder.h"

#include <filesystem>
#include <stdexcept>

#include <stdlib.h>

namespace datrin::store {

TemporaryFolder::TemporaryFolder() {
  std::string pattern = (std::filesystem::temp_directory_path() / "datrin-XXXXXX").string();
  if (::mkdtemp(pattern.data()) == nullptr) throw std::runtime_error("no folder for a copy could be made");
  path_ = pattern;
}

TemporaryFolder::~TemporaryFolder() {
  std::error_code error;
  std::filesystem::remove_all(path_, error);
}

} // namespace datrin::store
