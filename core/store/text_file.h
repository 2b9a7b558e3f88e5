#pragma once
// Writing a whole file so that it is there whole or not at all.

#include <string>
#include <string_view>

namespace datrin::store {

/// Writes `text` beside `path` and renames it over. Empty when done; else what was wrong, and the old file is
/// as it was.
std::string write_text_file(const std::string& path, std::string_view text);

} // namespace datrin::store
