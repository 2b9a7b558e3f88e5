#pragma once
// The answer of an algorithm that was given what it cannot work with.

#include <string_view>

namespace datrin {

/// A result of its status `refused`, saying why.
template <class Result>
Result refused_as(std::string_view why) {
  Result out;
  out.status = decltype(out.status)::refused;
  out.message = why;
  return out;
}

} // namespace datrin
