#pragma once
// The words of the records' enumerations: as they stand in the file, and as they are shown. The one list of
// each; choices on screen are filled from it.

#include "build/records.h"

#include <cstddef>
#include <string_view>
#include <utility>

namespace datrin::build {

using Words = std::pair<const std::string_view*, std::size_t>; ///< in the order of the enumeration

/// As they stand in the file.
template <class E>
Words words_of();

/// As they are shown: the same, where the file's word says it well enough.
template <class E>
Words shown_words_of();

template <class E>
std::string_view shown_word(E value) {
  return shown_words_of<E>().first[static_cast<std::size_t>(value)];
}

} // namespace datrin::build
