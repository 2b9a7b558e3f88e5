#pragma once
#include <string>

namespace datrin::build {

/// Now, as records keep it: UTC, ISO 8601, "2026-03-01T14:05:09Z".
std::string utc_now();

} // namespace datrin::build
