#pragma once
// How fast a cutter may go through a metal, and which speed of a machine that is. m/min, rev/min, mm.
// data/cutting_speeds.csv.

#include <string>
#include <string_view>
#include <vector>

namespace datrin::cutting {

enum class ToolMetal { high_speed, carbide };

struct CuttingSpeed {
  std::string metal;
  double m_per_min = 0;
};

/// Metals of the table, in its order.
std::vector<std::string> metals_with_speeds();

/// By the name of the metal, or of what it is called like ("cast iron" for grey iron); 0: not known.
double cutting_speed(std::string_view metal, ToolMetal tool);

/// v / (π d); 0 where nothing is to be said.
double revolutions(double m_per_min, double diameter);

/// Of the speeds a machine has, the fastest that is not above `wanted`; its slowest where all are. 0: it has
/// none.
double speed_below(const std::vector<double>& speeds, double wanted);

struct MachineSpeeds {
  std::string wrong;          ///< what is not understood; empty: all is
  std::vector<double> speeds; ///< of a stepless one its slowest and its fastest
  bool stepless = false;
  /// As speed_below; of a stepless machine what is wanted, as far as it goes.
  double below(double wanted) const;
};

/// "60 105 170" (blanks, commas or semicolons between), or a range "200-1100" of a stepless machine.
MachineSpeeds speeds_of(std::string_view text);

} // namespace datrin::cutting
