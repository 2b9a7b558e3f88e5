#pragma once
// A dimension of a piece: what readings are of, and what is made.

#include "build/build.h"

#include <functional>
#include <string>

namespace datrin::build {

struct Made {
  Id dimension = 0, piece = 0;
  bool operator==(const Made&) const = default;
};

struct MadeHash {
  std::size_t operator()(const Made& m) const {
    return std::hash<Id>()(m.dimension * 0x9E3779B97F4A7C15LL ^ m.piece);
  }
};

/// "Crank no. 1, pin diameter": how a dimension of a piece is named; the number where there are several.
std::string made_name(const Build& build, const Made& made);

/// "Crank no. 1", "Crank" where there is one only.
std::string piece_name(const Build& build, Id piece);

/// Whether a feature is entered (a hole, a slot) or enters (a shaft, a tongue).
enum class Side { unknown, hole, shaft };

/// A diameter by its surface; a distance between planes by what is between them; another by the joints it is
/// in.
Side side_of(const Build& build, Id dimension);

} // namespace datrin::build
