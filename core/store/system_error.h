#pragma once
// What the system says of an error, in the program's own language whatever the locale.

#include <cstring>
#include <string>
#include <system_error>

namespace datrin::store {

/// "No such file or directory" for ENOENT.
inline std::string system_words(int number) {
  const char* words = ::strerrordesc_np(number);
  return words != nullptr ? words : "error " + std::to_string(number);
}
inline std::string system_words(const std::error_code& error) {
  return system_words(error.value());
}

} // namespace datrin::store
