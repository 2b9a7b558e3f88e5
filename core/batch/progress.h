#pragma once
// How far a batch is, and how long the rest takes by how long what is done took.

#include <optional>
#include <string>
#include <vector>

namespace datrin::batch {

struct ProgressInput {
  int pieces = 0;                   ///< in all
  int rejected = 0;                 ///< of them, that are not made further
  std::vector<std::string> done_at; ///< when each finished piece was finished, UTC, ISO 8601
};

struct ProgressOptions {
  double least_minutes = 0.05; ///< as good as at once: pasted in one block, which tells no time
  double most_minutes = 90;    ///< between two pieces: longer is a break, and does not count
};

struct Progress {
  int pieces = 0, done = 0, rejected = 0, open = 0;
  std::optional<double> minutes_each; ///< the middle one of the times between two; nothing before the third
  std::optional<double> minutes_left;
};

Progress progress(const ProgressInput& input, const ProgressOptions& options = {});

/// "12 of 60 done, 1 rejected; about 4 minutes each, 3 h 8 min left"
std::string progress_words(const Progress& progress);

/// Seconds since 1970 of "2026-01-02T10:00:00Z"; nothing for anything else.
std::optional<double> utc_seconds(const std::string& at);

} // namespace datrin::batch
