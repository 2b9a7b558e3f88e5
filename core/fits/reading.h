#pragma once
// From what the instrument shows to a size that may be compared: zero error and temperature taken off, gauge
// pins turned into a size, and whether a size is in its limits, out, or cannot be told (ISO 14253-1). Lengths
// mm.

#include "quantity/length.h"
#include "quantity/reckoning.h"

#include <optional>
#include <string>
#include <string_view>

namespace datrin::fits {

struct ReadingInput {
  double shown = 0;
  double zero = 0; ///< what the instrument shows when it should show 0
  double piece_temperature = 20, instrument_temperature = 20; ///< °C
  double piece_expansion = 0;                                 ///< 1/K; 0: temperatures are left out
  double instrument_expansion = 11.5e-6;
};

/// size = shown − zero, then shrunk or grown to 20 °C: size · (1 − α_piece (t_p − 20) + α_instrument (t_i −
/// 20)). The total of the sum is the corrected size.
Reckoning corrected(const ReadingInput& input);

struct PinsInput {
  double goes = 0;      ///< the largest gauge pin that goes; 0: none tried
  double stops = 0;     ///< the smallest that does not; 0: none tried
  double pin_error = 0; ///< ± of the pins
};

struct PinsResult {
  bool ok = false;
  std::string message;
  double size = 0, uncertainty = 0; ///< the middle, and half the gap with the pins' own error
};

PinsResult size_by_pins(const PinsInput& input);

enum class Verdict { in, out, cannot_tell };

struct Acceptance {
  Verdict verdict = Verdict::cannot_tell;
  std::string words; ///< "in", "out", or why it cannot be told and what instrument could
};

/// ISO 14253-1, simple acceptance by the supplier's rule: in when size ± uncertainty lies wholly within the
/// limits, out when wholly beyond one, else it cannot be told.
Acceptance accept(double size, double uncertainty, double lower, double upper);

/// A reading as people write it: "10.021", "10.021 ±0.002", "go 10.00 no-go 10.02" (gauge pins), "mate
/// -0.021" (the instrument was zeroed on the mate, and shows the difference).
enum class ReadingKind { size, pins, comparison };

struct ReadingText {
  bool ok = false;
  std::string message;
  ReadingKind kind = ReadingKind::size;
  double shown = 0; ///< mm: the size, or the difference to the mate
  double goes = 0, stops = 0;
  std::optional<double> uncertainty; ///< when it was written
};

ReadingText parse_reading(std::string_view text, const LengthOptions& options);

} // namespace datrin::fits
