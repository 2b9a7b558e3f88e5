#include "store/build_header.h"

#include <array>
#include <filesystem>
#include <fstream>
#include <string_view>

namespace datrin::store {

BuildHeader read_build_header(const std::string& path) {
  BuildHeader header;
  std::error_code error;
  const auto size = std::filesystem::file_size(path, error);
  if (error) return header;
  header.size = size;
  std::array<unsigned char, 100> bytes{};
  std::ifstream file(path, std::ios::binary);
  file.read(reinterpret_cast<char*>(bytes.data()), bytes.size());
  if (file.gcount() < static_cast<std::streamsize>(bytes.size())) return header;
  if (std::string_view(reinterpret_cast<const char*>(bytes.data()), 16) !=
      std::string_view("SQLite format 3\0", 16))
    return header;
  header.database = true;
  const auto word = [&](std::size_t at) { // big-endian
    return std::uint32_t{bytes[at]} << 24 | std::uint32_t{bytes[at + 1]} << 16 |
           std::uint32_t{bytes[at + 2]} << 8 | std::uint32_t{bytes[at + 3]};
  };
  header.write_ahead = bytes[18] != 1 || bytes[19] != 1;
  header.application_id = word(68);
  header.user_version = word(60);
  const std::uint32_t page = std::uint32_t{bytes[16]} << 8 | bytes[17];
  // The count of pages stands for this file only where both change counters agree.
  if (word(24) == word(92)) header.stated_size = std::uint64_t{word(28)} * (page == 1 ? 65536 : page);
  return header;
}

} // namespace datrin::store
