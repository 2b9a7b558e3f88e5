#pragma once
// Units at the edges of the program. Inside, every length is a double in millimetres and every angle in
// radians.

#include <optional>
#include <string_view>

namespace datrin {

enum class Unit { mm, inch };

inline constexpr double mm_per_inch = 25.4; // exact, by the international yard and pound agreement of 1959
inline constexpr double mm_per_thou = 0.0254;
inline constexpr double pi = 3.14159265358979323846;

/// mm: ten kilometres, beyond any workshop. No length may be longer, wherever it comes from: typed, imported,
/// read from a file, or worked with; what is reckoned from such lengths stays far from where numbers
/// overflow.
inline constexpr double most_length = 1e7;
inline constexpr const char* too_long = "must be at most 10 km"; ///< what is said of one that is

/// Whether `mm` may be a length: a number, not beyond most_length either way.
constexpr bool is_length(double mm) {
  return mm >= -most_length && mm <= most_length;
}

/// Millimetres of `value` given in `unit`.
constexpr double to_mm(double value, Unit unit) {
  return unit == Unit::mm ? value : value * mm_per_inch;
}
/// `mm` millimetres, in `unit`.
constexpr double from_mm(double mm, Unit unit) {
  return unit == Unit::mm ? mm : mm / mm_per_inch;
}

/// What is usual in a workshop of this unit, so that it is a round figure on its dials: `mm` there, `inches`
/// here. Returns mm.
constexpr double usual_length(Unit unit, double mm, double inches) {
  return unit == Unit::mm ? mm : inches * mm_per_inch;
}

constexpr double radians(double degrees) {
  return degrees * pi / 180.0;
}
constexpr double degrees(double radian) {
  return radian * 180.0 / pi;
}

/// "mm" or "in", as in files and on screen.
constexpr std::string_view unit_name(Unit unit) {
  return unit == Unit::mm ? "mm" : "in";
}
constexpr std::optional<Unit> unit_from_name(std::string_view name) {
  if (name == "mm") return Unit::mm;
  if (name == "in") return Unit::inch;
  return std::nullopt;
}

} // namespace datrin
