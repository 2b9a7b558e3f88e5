#include "build/now.h"

#include <fmt/chrono.h>

#include <ctime>

namespace datrin::build {

std::string utc_now() {
  return fmt::format("{:%Y-%m-%dT%H:%M:%SZ}", fmt::gmtime(std::time(nullptr)));
}

} // namespace datrin::build
