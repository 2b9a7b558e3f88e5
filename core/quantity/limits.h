#pragma once
// A dimension with its limits as people write them: `12 +0.018/0`, `12 ±0.05`, `12 +/-2 thou`, `12 H7`,
// `1 3/8 in -0.001/-0.003`, `12 m` or `12 ISO 2768-m` (general tolerance), or only `12`.
//
//   limits    = length [ band | pair | class | general ]
//   band      = ("±" | "+/-" | "+-") length
//   pair      = deviation "/" deviation              deviation = ("+" | "-") length | "0"
//   class     = letter(s) digits                   ISO 286: H7, g6, JS8
//   general   = ["ISO" "2768-"] f | m | c | v
//
// A deviation without a unit takes the unit written with the nominal, else with the other deviation, else
// that of the dial.

#include "quantity/length.h"

#include <string>

namespace datrin {

struct LimitsOptions {
  LengthOptions length;
  char general = 0;     ///< class of ISO 2768-1 for a nominal written alone: 'f', 'm', 'c', 'v'; 0: none
  bool is_edge = false; ///< radii and chamfers of edges: table 2 of ISO 2768-1
};

struct LimitsResult {
  bool ok = false;
  std::string message;                      ///< what is wrong and what is expected; empty when ok
  double nominal = 0, lower = 0, upper = 0; ///< mm; lower and upper are deviations
  std::string tolerance;                    ///< "H7", "ISO 2768-m", or empty when the deviations were written
  bool stated = false;                      ///< limits were written (or given by a class)
};

/// Reads `text`. A dimension with nothing after it has limits only when `options.general` is set.
LimitsResult parse_limits(std::string_view text, const LimitsOptions& options = {});

/// "12 H7", "12 ±0.05", "12 +0.018/0", in `unit`, as it may be typed again.
std::string limits_text(double nominal, double lower, double upper, const std::string& tolerance, Unit unit);

} // namespace datrin
