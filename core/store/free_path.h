#pragma once
#include <string>

namespace datrin::store {

/// A path beside `path` at which nothing is: "engine-recovered.datrin", "engine-recovered-2.datrin" … for the
/// word "recovered".
std::string free_path_beside(const std::string& path, const std::string& word);

} // namespace datrin::store
