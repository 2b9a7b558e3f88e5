#pragma once
// What an indicator says of work that turns: how far its axis lies off the spindle's and which way (the first
// harmonic of the readings round), how oval it is (the second), and what is left, which no moving mends. By
// least squares, at whatever angles were read. Lengths mm, angles radians, counted the way the readings are.

#include "geometry/surface.h"
#include "quantity/unit.h"

#include <string>
#include <string_view>
#include <vector>

namespace datrin::truing {

struct RunoutReading {
  double at = 0;    ///< angle
  double value = 0; ///< plus: the plunger was pushed in
};

struct RunoutInput {
  std::vector<RunoutReading> readings;
  bool bore = false; ///< read on the wall of a bore: pushed in where the wall stands in
};

enum class RunoutStatus { not_run, found, refused };

struct Runout {
  RunoutStatus status = RunoutStatus::not_run;
  std::string message;
  Vec2 off = Vec2::Zero(); ///< the work's axis from the spindle's, along angle 0 and a quarter on
  double second =
      0; ///< half of how much longer one diameter is than the one across it; from five readings on
  double second_at = 0; ///< where it stands out most, 0 to π
  double rest = 0;      ///< largest departure of a reading from the first harmonic
  double form = 0;      ///< and from both; the same as rest below five readings

  bool usable() const { return status == RunoutStatus::found; }
  double offset() const { return off.norm(); }
  double direction() const;                     ///< of the work's axis, 0 to 2π; 0 where it runs true
  double whole() const { return 2 * offset(); } ///< what the indicator shows of it over a turn
};

/// At least three directions, none twice.
Runout runout(const RunoutInput& input);

/// "0:0.02 90:0.05 180:-0.02 270:-0.05": degrees and reading, parted by spaces; bare readings in `unit`.
/// Readings without angles, three or more: evenly round, the first at 0.
struct ParsedReadings {
  std::vector<RunoutReading> readings;
  std::string wrong; ///< empty: they were read
  bool ok() const { return wrong.empty(); }
};
ParsedReadings parse_readings(std::string_view text, Unit unit);

/// What each of four jaws does to bring it true: how far it moves in, mm (below 0: out). `first`: where jaw 1
/// stands.
std::vector<double> jaw_moves(const Runout& runout, double first = 0, int jaws = 4);

/// Two stations so far apart: how the axis of the work leans against the spindle's, radians.
double tilt_between(const Vec2& near_off, const Vec2& far_off, double apart);

} // namespace datrin::truing
