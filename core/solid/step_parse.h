#pragma once
// The side that reads, in a program of its own: nothing else may call it.

#include <cstddef>
#include <iosfwd>
#include <string>

namespace datrin::solid {

struct StepParse {
  std::size_t most_bytes = 0;
  int only = 0; ///< of several solids that one, from 1; 0: all together
};

/// Reads the STEP file `in` and writes what `read_shielded` takes to `out`. Why not, in words; empty: done.
std::string parse_step(std::istream& in, std::ostream& out, const StepParse& wanted);

} // namespace datrin::solid
