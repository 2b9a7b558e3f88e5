#pragma once
// What is known of a feature of a piece as it is now: every reading of it, whatever it was taken with and on
// whichever page, comes to the one size that this answers with, and every page asks here. Lengths mm (of an
// angle radians).

#include "build/made.h"

#include <optional>
#include <string>

namespace datrin::readings {

using build::Bound;
using build::Build;
using build::Id;
using build::Made;

/// How far a feature has come.
enum class Standing {
  not_read,
  metal_on, ///< read, and more is to come off before it is what it is to be
  made,     ///< read, within its limits; without limits, as near to its nominal as a finishing cut leaves it
  beyond    ///< read, past the limit that cutting goes towards
};

struct SizeNow {
  Standing standing = Standing::not_read;
  double value = 0;
  double uncertainty = 0; ///< 95 %
  Bound bound =
      Bound::exact;      ///< whether `value` is the size, or the size is only known to be below or above it
  double off_centre = 0; ///< of two sides, half their difference
  bool by_cut = false;   ///< from a cut that was logged; else from a reading of the dimension itself
  std::string at{};      ///< when, UTC, ISO 8601
  Id record = 0;         ///< the reading, or the last cut: later ones have higher ids
  std::optional<build::Measurement> measurement{}; ///< when it was read as such

  bool read() const { return standing != Standing::not_read; }
  /// Whether it counts as what it will stay: chains and joints start from it.
  bool settled() const {
    return (standing == Standing::made || standing == Standing::beyond) && bound == Bound::exact;
  }
};

/// The newest of: the readings of the dimension (a comparison follows its mate, should that be read again);
/// of a diameter the last cut logged on its surface; of a distance between two planes the last cuts on both.
SizeNow size_now(const Build& build, const Made& made);

/// mm of metal a side that `cut` left on `surface`: a face that was cut stays where it is in the casting, so
/// that what is left of it moves with the seat.
double left_by(const build::PartSurface& surface, const build::Cut& cut, const Pose& seat);

/// What is left to come off `value` until `target`, on the dimension (a diameter: twice what comes off a
/// side); below 0 when it is past it. Nothing for what is not cut one way.
std::optional<double> left_to(build::Side side, double value, double target);

} // namespace datrin::readings
