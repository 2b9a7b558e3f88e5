#include "store/free_path.h"

#include <fmt/format.h>

#include <filesystem>

namespace datrin::store {

std::string free_path_beside(const std::string& path, const std::string& word) {
  const std::filesystem::path whole(path);
  for (int n = 1;; ++n) {
    auto beside =
        whole.parent_path() / fmt::format("{}-{}{}{}", whole.stem().string(), word,
                                          n > 1 ? fmt::format("-{}", n) : "", whole.extension().string());
    std::error_code error;
    if (!std::filesystem::exists(std::filesystem::symlink_status(beside, error))) return beside.string();
  }
}

} // namespace datrin::store
