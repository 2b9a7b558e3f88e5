#pragma once
// What taking a way out of a slip does to the build: the decision with its reason, and the operations it
// needs behind those of the feature.

#include "build/edits.h"

#include <string>
#include <utility>
#include <vector>

namespace datrin::route {

using RecoveryWork = std::vector<std::pair<build::OperationKind, std::string>>; ///< what, in words

/// The feature a piece slipped at, and what happened.
struct Slipped {
  build::Id part = 0, piece = 0;
  std::vector<build::Id> surfaces, bodies;
  std::string name;   ///< of the feature
  std::string reason; ///< "bore was cut 0.2 mm too deep"
  std::string at;     ///< UTC, ISO 8601
};

build::Decision decision_of(const Slipped& slipped, std::string what);

/// The decision, and operations behind what is there for the feature, each after the one before, for that
/// piece only.
build::Edit take_recovery(const build::Build& build, const Slipped& slipped, const std::string& what,
                          const RecoveryWork& work);

double minutes_of(const RecoveryWork& work); ///< as is usual

/// " 45 min: bore 15, turn 10, press 5, bore 15, as is usual."
std::string time_text(const RecoveryWork& work);

} // namespace datrin::route
