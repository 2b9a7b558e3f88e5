#pragma once
// What a person does on the sheet of a batch, each one edit however many pieces it concerns.

#include "build/edits.h"
#include "readings/measure.h"

#include <string>
#include <vector>

namespace datrin::batch {

/// A reading as it was typed or pasted for one cell.
struct TypedReading {
  build::Made made;
  std::string text; ///< empty: the reading there is taken back
};

struct RefusedReading {
  std::size_t at = 0; ///< in the list that was given
  std::string why;
};

struct KeptReadings {
  build::Edit edit; ///< of all that were understood
  std::size_t kept = 0;
  std::vector<RefusedReading> refused;
};

struct ReadingsContext {
  build::Id instrument = 0;
  std::string at; ///< when, UTC, ISO 8601
  LengthOptions lengths;
  AngleOptions angles;
};

/// Reads all of them, as readings/measure.h does each, into one edit.
KeptReadings keep_readings(const build::Build& build, const std::vector<TypedReading>& typed,
                           const ReadingsContext& context);

/// A piece is not made further, for a reason; an empty one takes it back into the batch.
build::Edit reject(const build::Build& build, build::Id piece, const std::string& reason);

} // namespace datrin::batch
