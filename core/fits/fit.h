#pragma once
// A fit as it is written, "25 H7/g6" or "1 in RC4": the limits of hole and shaft and the clearance between
// them. ISO 286-1 to 500 mm; ANSI B4.1 to 7.88 in. Diameters in mm; a clearance below 0 is interference.

#include "quantity/tolerance.h"
#include "quantity/unit.h"

#include <string>
#include <string_view>

namespace datrin::fits {

enum class FitKind { clearance, transition, interference };
std::string_view fit_kind_name(FitKind kind);

struct Fit {
  double nominal = 0;
  std::string code; ///< "H7/g6", "RC4"
  Deviations hole, shaft;

  /// What a joint keeps of it: "ISO 286 H7/g6", "ANSI B4.1 RC4".
  std::string basis() const { return (is_iso() ? "ISO 286 " : "ANSI B4.1 ") + code; }
  /// "H7" and "g6"; empty of a fit that names no classes for the two.
  std::string hole_class() const { return is_iso() ? code.substr(0, code.find('/')) : std::string(); }
  std::string shaft_class() const { return is_iso() ? code.substr(code.find('/') + 1) : std::string(); }
  bool is_iso() const { return code.find('/') != std::string::npos; }

  double least() const { return hole.lower - shaft.upper; } ///< clearance
  double most() const { return hole.upper - shaft.lower; }
  FitKind kind() const {
    return least() >= 0 ? FitKind::clearance : most() <= 0 ? FitKind::interference : FitKind::transition;
  }
};

struct FitResult {
  bool ok = false;
  std::string message; ///< what is wrong, and which codes there are
  Fit fit;
};

/// `text` is a nominal and a code, "25 H7/g6", "25 H7 g6", "1 in RC4", "10 mm FN 2"; a bare nominal is in
/// `unit`.
FitResult read_fit(std::string_view text, Unit unit = Unit::mm);

/// The fit `code` at `nominal` mm.
FitResult fit_of(double nominal, std::string_view code);

/// ANSI B4.1 fit such as "RC4": basic hole, to 200 mm.
FitResult b41_fit(double nominal, std::string_view name);

} // namespace datrin::fits
