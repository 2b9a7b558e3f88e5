#pragma once
// Wheels between spindle and leadscrew: drivers over drivens, simple, compound, or three pairs, exactly or
// the nearest there is.

#include <string>
#include <vector>

namespace datrin::dividing {

struct ChangeWheelsInput {
  double ratio = 0;        ///< wanted: pitch cut by pitch of the leadscrew
  std::vector<int> wheels; ///< teeth; each may be used once, a number that stands twice twice
  std::size_t most_pairs = 2;
};

enum class ChangeWheelsStatus { not_run, found, refused };

struct ChangeWheels {
  ChangeWheelsStatus status = ChangeWheelsStatus::not_run;
  std::string message;
  std::vector<int> drivers, drivens; ///< pair by pair
  double ratio = 0;                  ///< of those
  bool exact = false;
  bool usable() const { return status == ChangeWheelsStatus::found; }
};

/// Fewest pairs that are exact; else the nearest by ratio. Of equals the largest of the smallest wheels.
ChangeWheels change_wheels(const ChangeWheelsInput& input);

} // namespace datrin::dividing
