#include "fits/reading.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::fits {

Reckoning corrected(const ReadingInput& in) {
  Reckoning sum;
  sum.title = "size at 20 \u00B0C";
  sum.lines.push_back({"shown", in.shown, "instrument"});
  if (in.zero != 0) sum.lines.push_back({"less its zero error", -in.zero, "instrument"});
  const double size = in.shown - in.zero;
  if (in.piece_expansion > 0) {
    const double piece = -size * in.piece_expansion * (in.piece_temperature - 20);
    const double own = size * in.instrument_expansion * (in.instrument_temperature - 20);
    if (piece != 0)
      sum.lines.push_back({fmt::format("the piece was at {} \u00B0C", number_text(in.piece_temperature, 0)),
                           piece, "d \u00B7 \u03B1 \u00B7 \u0394t"});
    if (own != 0)
      sum.lines.push_back(
          {fmt::format("the instrument at {} \u00B0C", number_text(in.instrument_temperature, 0)), own,
           "d \u00B7 \u03B1 \u00B7 \u0394t"});
  }
  return sum;
}

Acceptance accept(double size, double uncertainty, double lower, double upper, Unit unit) {
  Acceptance out;
  constexpr double hair = 1e-9;
  const double u = std::abs(uncertainty);
  if (size - u >= lower - hair && size + u <= upper + hair) return {Verdict::in, "in"};
  if (size - u > upper + hair)
    return {Verdict::out, fmt::format("out: {} over", fine_text(size - upper, unit))};
  if (size + u < lower - hair)
    return {Verdict::out, fmt::format("out: {} under", fine_text(lower - size, unit))};
  if (2 * u > upper - lower + hair)
    out.words =
        fmt::format("cannot tell with this instrument: its \u00B1{} fill more than the limits are apart; "
                    "one of \u00B1{} or better could",
                    fine_text(u, unit), fine_text((upper - lower) / 10, unit));
  else
    out.words =
        fmt::format("cannot tell with this instrument: within its \u00B1{} of a limit", fine_text(u, unit));
  return out;
}

} // namespace datrin::fits
