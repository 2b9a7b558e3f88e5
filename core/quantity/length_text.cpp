#include "quantity/length_text.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin {

std::string number_text(double value, int decimals, bool show_plus) {
  if (!std::isfinite(value)) return "\u2013";
  // fmt rounds the binary value, so a tie typed in decimals may go either way; nudge it away from zero.
  const double nudge = std::copysign(std::pow(10.0, -decimals) * 1e-9, value);
  std::string digits = fmt::format("{:.{}f}", std::abs(value + nudge), decimals);
  const bool zero = digits.find_first_not_of("0.") == std::string::npos;
  if (zero) return digits;
  if (value < 0) return "\u2212" + digits;
  return show_plus ? "+" + digits : digits;
}

std::string length_text(double mm, Unit unit, const LengthTextOptions& options) {
  const int decimals = unit == Unit::mm ? options.decimals_mm : options.decimals_inch;
  auto text = number_text(from_mm(mm, unit), decimals, options.show_plus);
  if (options.show_unit) text += fmt::format("\u202F{}", unit_name(unit));
  return text;
}

std::string length_text_both(double mm, Unit first, const LengthTextOptions& options) {
  auto shown = options;
  shown.show_unit = true;
  const auto second = first == Unit::mm ? Unit::inch : Unit::mm;
  return length_text(mm, first, shown) + " \u00B7 " + length_text(mm, second, shown);
}

std::string fine_text(double mm, Unit unit, bool show_plus) {
  return unit == Unit::mm ? number_text(mm * 1000, 0, show_plus) + "\u202F\u00B5m"
                          : number_text(mm / mm_per_thou, 1, show_plus) + "\u202Fthou";
}

std::string length_entry_text(double mm, Unit unit) {
  auto digits = fmt::format("{:.{}f}", from_mm(mm, unit), unit == Unit::mm ? 5 : 6);
  while (digits.back() == '0') digits.pop_back();
  if (digits.back() == '.') digits.pop_back();
  if (digits == "-0") digits = "0";
  return fmt::format("{} {}", digits, unit_name(unit));
}

} // namespace datrin
