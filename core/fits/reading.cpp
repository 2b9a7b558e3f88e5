#include "fits/reading.h"

#include "quantity/length_text.h"
#include "quantity/text.h"

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

PinsResult size_by_pins(const PinsInput& in) {
  PinsResult out;
  if (!(in.goes > 0) || !(in.stops > 0)) {
    out.message = "two pins are needed: the largest that goes and the smallest that does not";
    return out;
  }
  if (!(in.stops > in.goes)) {
    out.message = fmt::format("the pin that goes, {}, is not smaller than the one that does not, {}",
                              number_text(in.goes, 4), number_text(in.stops, 4));
    return out;
  }
  if (!(in.pin_error >= 0)) {
    out.message = "the pins' error must not be negative";
    return out;
  }
  out.size = (in.goes + in.stops) / 2;
  out.uncertainty = (in.stops - in.goes) / 2 + in.pin_error;
  out.ok = true;
  return out;
}

Acceptance accept(double size, double uncertainty, double lower, double upper) {
  Acceptance out;
  constexpr double hair = 1e-9;
  const double u = std::abs(uncertainty);
  if (size - u >= lower - hair && size + u <= upper + hair) return {Verdict::in, "in"};
  if (size - u > upper + hair)
    return {Verdict::out,
            fmt::format("out: {} over", number_text((size - upper) * 1000, 0) + "\u2009\u00B5m")};
  if (size + u < lower - hair)
    return {Verdict::out,
            fmt::format("out: {} under", number_text((lower - size) * 1000, 0) + "\u2009\u00B5m")};
  if (2 * u > upper - lower + hair)
    out.words = fmt::format(
        "cannot tell with this instrument: its \u00B1{} fill more than the limits are apart; "
        "one of \u00B1{} or better could",
        number_text(u * 1000, 0) + "\u2009\u00B5m", number_text((upper - lower) * 100, 0) + "\u2009\u00B5m");
  else
    out.words = fmt::format("cannot tell with this instrument: within its \u00B1{} of a limit",
                            number_text(u * 1000, 0) + "\u2009\u00B5m");
  return out;
}

ReadingText parse_reading(std::string_view text, const LengthOptions& options) {
  ReadingText out;
  text = trimmed(text);
  const auto refuse = [&](std::string why) {
    out.message = std::move(why);
    return out;
  };
  const auto length = [&](std::string_view of, double& mm) {
    const auto read = parse_length(trimmed(of), options);
    if (!read.ok()) out.message = read.message;
    mm = read.mm;
    return read.ok();
  };
  for (const std::string_view mark : {"\xC2\xB1", "+/-"})
    if (const auto at = text.find(mark); at != std::string_view::npos) {
      double u = 0;
      if (!length(text.substr(at + mark.size()), u)) return out;
      if (u < 0) return refuse("after \u00B1 comes a length without a sign");
      out.uncertainty = u;
      text = trimmed(text.substr(0, at));
      break;
    }
  const auto small = lower_case(text);
  if (small.starts_with("go")) {
    out.kind = ReadingKind::pins;
    auto stop = small.find("no-go");
    if (stop == std::string::npos) stop = small.find("no go");
    if (stop == std::string::npos) return refuse("write both pins: go 10.00 no-go 10.02");
    if (!length(text.substr(2, stop - 2), out.goes) || !length(text.substr(stop + 5), out.stops)) return out;
    const auto pins = size_by_pins({out.goes, out.stops, out.uncertainty.value_or(0)});
    if (!pins.ok) return refuse(pins.message);
    out.shown = pins.size;
    out.uncertainty = pins.uncertainty;
  } else if (small.starts_with("mate")) {
    out.kind = ReadingKind::comparison;
    if (!length(text.substr(4), out.shown)) return out;
  } else {
    if (!length(text, out.shown)) return out;
    if (!(out.shown > 0)) return refuse("a size must be above 0");
  }
  out.ok = true;
  return out;
}

} // namespace datrin::fits
