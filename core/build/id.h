#pragma once
// What records are told apart by.

#include <algorithm>
#include <cstdint>
#include <vector>

namespace datrin::build {

using Id = std::int64_t; ///< unique within a build, never used again; 0 means none

inline bool contains(const std::vector<Id>& list, Id id) {
  return std::find(list.begin(), list.end(), id) != list.end();
}

} // namespace datrin::build
