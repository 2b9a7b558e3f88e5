#pragma once
// Readings of a bore or shaft at depths and directions: its size, taper, ovality and high spots, and the size
// that matters to its mate. Diameters and depths mm, directions radians (turning about the axis; π apart is
// the same diameter).

#include "quantity/unit.h"

#include <string>
#include <vector>

namespace datrin::fits {

struct FormReading {
  double depth = 0;
  double direction = 0;
  double diameter = 0;
};

struct FormInput {
  std::vector<FormReading> readings;
  bool is_hole = true;
  double uncertainty = 0; ///< mm, 95 %, of one reading
  Unit unit = Unit::mm;   ///< of the words
};

struct FormResult {
  bool ok = false;
  std::string message;
  double mean = 0, least = 0, most = 0;
  double matters =
      0; ///< hole: the largest straight plug that passes; shaft: the smallest straight ring that goes on
  double taper = 0; ///< mm of diameter per mm of depth, by least squares (above 0: grows with depth)
  double taper_over_length = 0; ///< mm of diameter over the depths read
  double ovality = 0;           ///< largest difference of diameters at one depth
  double bow = 0; ///< how far the middle differs from the line through the ends (barrel or bell mouth)
  int worst = -1; ///< the reading that decides `matters`
  std::string verdict;
};

FormResult form(const FormInput& input);

} // namespace datrin::fits
