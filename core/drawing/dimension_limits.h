#pragma once
// The limits of a dimension: as they are written on screen, as they are typed, and as they change, with what
// they were kept in its history. Lengths mm, angles radians.

#include "build/edits.h"
#include "quantity/angle.h"
#include "quantity/limits.h"

#include <string>

namespace datrin::drawing {

/// "12 H7", "46 ±0.15", an angle "45° ±30′": as it may be typed again.
std::string dimension_text(const build::Dimension& dimension, Unit unit);

struct TypedLimits {
  build::Dimension dimension; ///< with them
  std::string wrong;          ///< what cannot be, and what is expected; empty: they can
  bool ok() const { return wrong.empty(); }
};

/// Reads limits for `now`: an angle with ±, else as parse_limits has it.
TypedLimits typed_limits(const build::Dimension& now, const std::string& text, const LengthOptions& lengths,
                         const AngleOptions& angles);

/// Gives dimension `id` the limits of `changed`; what it was, if it was anything, goes into its history.
/// Empty when they are the same.
build::Edit set_limits(const build::Build& build, build::Id id, const build::Dimension& changed,
                       const std::string& at);

/// The same to limits of absolute size, `least` to `most` mm, with the tolerance they came from. They keep
/// the nominal and count from it; a tolerance's name is only kept where it is of that nominal.
build::Dimension with_limits(build::Dimension dimension, double least, double most,
                             const std::string& tolerance, double of_nominal);

/// The drawing gives way at one limit by `by` mm for `mate`: above 0 the upper, below 0 the lower. A reason
/// that was typed stays, with this behind it.
build::Edit widen(const build::Build& build, build::Id id, double by, const std::string& mate,
                  const std::string& at);

/// The drawing follows `mate`: the nominal moves so that `make` mm is the middle of its limits, and the
/// tolerance stays what it is.
build::Edit follow_mate(const build::Build& build, build::Id id, double make, const std::string& mate,
                        const std::string& at);

} // namespace datrin::drawing
