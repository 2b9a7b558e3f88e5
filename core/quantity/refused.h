#pragma once
// The answer of an algorithm that was given what it cannot work with.

#include <string>
#include <utility>

namespace datrin {

/// A result of its status `refused`, saying why.
template <class Result>
Result refused_as(std::string why) {
  Result out;
  out.status = decltype(out.status)::refused;
  out.message = std::move(why);
  return out;
}

} // namespace datrin
