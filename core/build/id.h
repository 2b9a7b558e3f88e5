#pragma once
// What records are told apart by.

#include <cstdint>

namespace datrin::build {

using Id = std::int64_t; ///< unique within a build, never used again; 0 means none

} // namespace datrin::build
