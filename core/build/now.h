#pragma once
#include <optional>
#include <string>

namespace datrin::build {

/// Now, as records keep it: UTC, ISO 8601, "2026-03-01T14:05:09Z".
std::string utc_now();

/// Hours from one such time to another; nothing where one of them is none.
std::optional<double> hours_between(const std::string& from, const std::string& to);

} // namespace datrin::build
