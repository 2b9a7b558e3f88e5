#pragma once
// Writing a whole file so that it is there whole or not at all.

#include <string>
#include <string_view>

namespace datrin::store {

enum class Existing { refuse, replace };

/// Writes `text` beside `path`, through to the disk, and renames it over. What is there already is replaced
/// when `existing` says so, and then only an ordinary file: it keeps who may read and write it, and a link to
/// one stays a link. A folder, a device, a pipe and a link to nothing are refused. Empty when done; else what
/// was wrong and what to do, and whatever was there is as it was.
std::string write_text_file(const std::string& path, std::string_view text,
                            Existing existing = Existing::replace);

} // namespace datrin::store
