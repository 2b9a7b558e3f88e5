#include "threads/thread_limits.h"

#include "iso_965_csv.h"
#include "iso_965_pitch_csv.h"
#include "quantity/table.h"

#include <algorithm>
#include <cmath>

namespace datrin::threads {

namespace {

constexpr double micrometre = 0.001;

/// Distances of the basic profile, as parts of the pitch: of the pitch diameter 2 · 3/8 H below the major, of
/// the minor diameter 2 · 5/8 H (ISO 68-1, ASME B1.1).
constexpr double to_pitch_diameter = 0.6495190528, to_minor_diameter = 1.0825317547;

std::optional<ThreadLimits> metric_limits(const Thread& t) {
  static const auto by_pitch = read_table(data::iso_965_csv),
                    pitch_diameter = read_table(data::iso_965_pitch_csv);
  int row = -1, diameter_row = -1;
  const auto is_pitch = [&](const Table& table, std::size_t r, int column) {
    return std::abs(table.number(r, column).value_or(0) - t.pitch) < 1e-6;
  };
  for (std::size_t r = 0; r < by_pitch.rows.size(); ++r)
    if (is_pitch(by_pitch, r, 0)) row = static_cast<int>(r);
  for (std::size_t r = 0; r < pitch_diameter.rows.size() && diameter_row < 0; ++r)
    if (t.major <= pitch_diameter.number(r, 0).value_or(0) && is_pitch(pitch_diameter, r, 1))
      diameter_row = static_cast<int>(r);
  if (row < 0 || diameter_row < 0) return std::nullopt;
  const auto um = [&](const Table& table, int r, const char* column) {
    return table.number(static_cast<std::size_t>(r), table.column(column)).value_or(0) * micrometre;
  };
  constexpr double fine_to = 1.4;        // mm: screws to here have no deviation, nuts are of grade 5
  constexpr double no_grade_6_to = 0.25; // mm: pitches to here have no nut of grade 6
  const bool fine = t.major <= fine_to;
  const double deviation = fine ? 0 : um(by_pitch, row, "deviation_g");
  const double pitch = t.major - to_pitch_diameter * t.pitch, minor = t.major - to_minor_diameter * t.pitch;
  ThreadLimits out{
      fine ? "6h" : "6g", fine || t.pitch <= no_grade_6_to ? "5H" : "6H", "ISO 965-1", {}, {}, {}, {}};
  out.screw_major = {t.major - deviation - um(by_pitch, row, "major_6"), t.major - deviation};
  out.screw_pitch = {pitch - deviation - um(pitch_diameter, diameter_row, "screw_6"), pitch - deviation};
  out.nut_pitch = {pitch, pitch + um(pitch_diameter, diameter_row, "nut_6")};
  out.nut_minor = {minor, minor + um(by_pitch, row, "minor_6")};
  return out;
}

ThreadLimits unified_limits(const Thread& t) {
  const double d = from_mm(t.major, Unit::inch), p = from_mm(t.pitch, Unit::inch);
  const double engaged = t.series == "UNEF" ? 9 * p : d;
  const double tolerance = 0.0015 * std::cbrt(d) + 0.0015 * std::sqrt(engaged) + 0.015 * std::cbrt(p * p);
  const double allowance = 0.3 * tolerance;
  const double pitch = d - to_pitch_diameter * p, minor = d - to_minor_diameter * p;
  constexpr double quarter = 0.25;
  const double large = 0.25 * p - 0.4 * p * p;
  const double minor_tolerance =
      d >= quarter - 1e-9
          ? large
          : std::clamp(0.05 * std::cbrt(p * p) + 0.03 * p / d - 0.002, large, std::max(large, 0.394 * p));
  const auto inches = [](double least, double most) {
    return DiameterLimits{to_mm(least, Unit::inch), to_mm(most, Unit::inch)};
  };
  return {"2A",
          "2B",
          "ASME B1.1",
          inches(d - allowance - 0.06 * std::cbrt(p * p), d - allowance),
          inches(pitch - allowance - tolerance, pitch - allowance),
          inches(pitch, pitch + 1.3 * tolerance),
          inches(minor, minor + minor_tolerance)};
}

} // namespace

std::optional<ThreadLimits> limits_of(const Thread& thread) {
  if (thread.series == "M" || thread.series == "M fine") return metric_limits(thread);
  if (thread.series.starts_with("UN")) return unified_limits(thread);
  return std::nullopt;
}

} // namespace datrin::threads
