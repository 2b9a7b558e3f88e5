#pragma once
// The command line: each subcommand reads, calls one core function, prints.

#include <iosfwd>

namespace datrin::cli {

inline constexpr int answer_yes = 0; ///< computed, and the answer is yes
inline constexpr int answer_no = 1;  ///< computed, and the answer is no
inline constexpr int refused = 2;    ///< the input or the call was refused; nothing on standard output

/// Runs `datrin-cli` with these arguments; returns the exit status.
int run(int argc, const char* const* argv, std::ostream& out, std::ostream& err);

} // namespace datrin::cli
