#pragma once
// What is asked of the reading of a file, which may be large.

#include <functional>

namespace datrin::store {

struct ReadOptions {
  std::function<void(double)> progress{}; ///< told now and then how far it is, 0 to 1
  std::function<bool()> should_stop{};    ///< asked as often; true: nothing is taken
  void tell(double part) const {
    if (progress) progress(part);
  }
  bool stopped() const { return should_stop && should_stop(); }
};

/// What is said of a file that was not read to its end on purpose.
inline constexpr const char* reading_stopped = "reading it was stopped; nothing was taken";

} // namespace datrin::store
