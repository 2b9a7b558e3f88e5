#include "store/text_file.h"

#include <fmt/format.h>

#include <filesystem>
#include <fstream>

#include <unistd.h>

namespace datrin::store {

std::string write_text_file(const std::string& path, std::string_view text) {
  const auto part = fmt::format("{}.new-{}", path, ::getpid());
  std::error_code error;
  {
    std::ofstream file(part, std::ios::binary | std::ios::trunc);
    file.write(text.data(), static_cast<std::streamsize>(text.size()));
    file.flush();
    if (!file) {
      std::filesystem::remove(part, error);
      return fmt::format("{} could not be written; check the folder and the space on the disk", path);
    }
  }
  std::filesystem::rename(part, path, error);
  if (!error) return {};
  const auto why = error.message();
  std::filesystem::remove(part, error);
  return fmt::format("{} could not be written: {}", path, why);
}

} // namespace datrin::store
