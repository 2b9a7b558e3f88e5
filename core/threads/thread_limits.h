#pragma once
// Limits of size of screw and nut in the usual fit: ISO 965-1 6g and 6H (6h to M1.4, 5H there and to a pitch
// of 0.25) for metric threads, ASME B1.1 2A and 2B for unified ones. Diameters in mm.
//
// ISO 965-1, P in mm: es(g) = −(15 + 11 P) µm; tabled in data/iso_965.csv and data/iso_965_pitch.csv.
// ASME B1.1, D and P in inches, LE = D (UNC, UNF) or 9 P (UNEF):
//   pitch diameter, 2A   T = 0.0015 D^⅓ + 0.0015 √LE + 0.015 P^⅔;  2B 1.3 T;  allowance 0.3 T
//   major diameter, 2A   0.060 P^⅔
//   minor diameter, 2B   0.25 P − 0.4 P²; below ¼ in 0.05 P^⅔ + 0.03 P/D − 0.002, at least that, at most
//   0.394 P

#include "threads/threads.h"

#include <optional>
#include <string>

namespace datrin::threads {

struct DiameterLimits {
  double least = 0, most = 0; ///< mm
};

struct ThreadLimits {
  std::string screw_class, nut_class, source; ///< "6g", "6H", "ISO 965-1"
  DiameterLimits screw_major, screw_pitch, nut_pitch, nut_minor;
};

/// Nothing for the series, and the sizes, those standards do not state.
std::optional<ThreadLimits> limits_of(const Thread& thread);

} // namespace datrin::threads
