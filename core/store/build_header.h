#pragma once
// What the first hundred bytes of a build file say, read without opening it as a database (SQLite database
// file format, section 1.3).

#include <cstdint>
#include <string>

namespace datrin::store {

inline constexpr std::uint32_t build_application_id = 0x44617472; // "Datr"
inline constexpr std::uint32_t build_format_version = 14;

struct BuildHeader {
  bool database = false;    ///< it begins as a SQLite database does
  bool write_ahead = false; ///< kept with a log of its own beside it (WAL), as no build is
  std::uint32_t application_id = 0, user_version = 0;
  std::uint64_t size = 0;        ///< bytes there are
  std::uint64_t stated_size = 0; ///< bytes the header says there are; 0: it does not say
  bool cut_short() const { return database && size < stated_size; }
};

/// Everything 0 for a file that cannot be read.
BuildHeader read_build_header(const std::string& path);

} // namespace datrin::store
