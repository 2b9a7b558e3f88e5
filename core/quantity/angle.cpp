#include "quantity/angle.h"

#include "quantity/expression.h"
#include "quantity/text.h"
#include "quantity/unit.h"

#include <fmt/format.h>

#include <cmath>
#include <optional>
#include <regex>

namespace datrin {

namespace {

/// "0.125 in/ft", "3 mm / 100 mm": a rate written with its units; nothing for anything else.
std::optional<double> length_per_length(std::string_view text, const AngleOptions& options) {
  LengthOptions lengths;
  lengths.decimal_comma = options.decimal_comma;
  const auto rate = reckon(text, lengths);
  const bool divided =
      text.find('/') != std::string_view::npos || text.find(" per ") != std::string_view::npos;
  return rate.ok() && rate.power == 0 && divided ? std::optional(rate.value) : std::nullopt;
}

} // namespace

AngleResult parse_angle(std::string_view given, const AngleOptions& options) {
  AngleResult out;
  if (!is_utf8(given)) {
    out.message = "the text is not UTF-8";
    return out;
  }
  std::string text(trimmed(given));
  const auto swap = [&text](std::string_view from, std::string_view to) {
    for (auto at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size()))
      text.replace(at, from.size(), to);
  };
  swap("\u2212", "-");
  swap("\u00B0", "d");
  swap("\u2032", "'");
  swap("\u2033", "\"");
  if (options.decimal_comma) swap(",", ".");
  text = lower_case(text);
  if (text.empty()) {
    out.message = "write an angle, like 45, 4\u00B0 45' or 1 in 12";
    return out;
  }
  static const std::regex ratio("^([0-9]*\\.?[0-9]+)\\s*(?:in|:)\\s*([0-9]*\\.?[0-9]+)"
                                "(?:\\s+(?:on |a |per )?(?:the |one )?(dia|diameter|side))?$");
  static const std::regex percent("^([0-9]*\\.?[0-9]+)\\s*(?:%|per cent|percent)"
                                  "(?:\\s+(?:on |a |per )?(?:the |one )?(dia|diameter|side))?$");
  static const std::regex sexagesimal("^(-?)([0-9]*\\.?[0-9]+)\\s*(?:d|deg|degrees)?(?:\\s*([0-9]*\\.?[0-9]+)"
                                      "\\s*')?(?:\\s*([0-9]*\\.?[0-9]+)\\s*\")?$");
  std::smatch match;
  const auto number = [&match](std::size_t k) {
    return match[k].matched ? number_from(match[k].str()).value_or(0) : 0.0;
  };
  constexpr std::size_t longest = 60; // bytes; beyond it the expressions are not tried
  if (text.size() < longest && std::regex_match(text, match, ratio)) {
    if (number(2) == 0) {
      out.message = "the length of a taper must be above 0";
      return out;
    }
    const bool cone = match[3].matched ? match[3].str() != "side" : options.taper == TaperOf::cone;
    const double rate = number(1) / number(2);
    out.radian = cone ? 2 * std::atan(rate / 2) : std::atan(rate);
    out.understood = fmt::format("{} in {} on {}", match[1].str(), match[2].str(),
                                 cone ? "the diameter, the whole angle" : "one side");
    out.ok = true;
  } else if (text.size() < longest && std::regex_match(text, match, percent)) {
    const bool cone = match[2].matched ? match[2].str() != "side" : options.taper == TaperOf::cone;
    const double rate = number(1) / 100;
    out.radian = cone ? 2 * std::atan(rate / 2) : std::atan(rate);
    out.understood =
        fmt::format("{} % on {}", match[1].str(), cone ? "the diameter, the whole angle" : "one side");
    out.ok = true;
  } else if (text.size() < longest && std::regex_match(text, match, sexagesimal)) {
    const double degree = number(2) + number(3) / 60 + number(4) / 3600;
    out.radian = radians(match[1].length() > 0 ? -degree : degree);
    out.ok = std::abs(degree) <= 360;
    if (!out.ok) out.message = "an angle is at most 360 degrees";
  } else if (const auto rate = length_per_length(given, options)) {
    const bool cone = options.taper == TaperOf::cone;
    out.radian = cone ? 2 * std::atan(*rate / 2) : std::atan(*rate);
    out.understood =
        fmt::format("{} on {}", trimmed(given), cone ? "the diameter, the whole angle" : "one side");
    out.ok = true;
  } else {
    out.message = fmt::format("\"{}\" is no angle; write 45, 4\u00B0 45' or 1 in 12", trimmed(given));
  }
  return out;
}

namespace {

/// With as few figures as say it to a thousandth.
std::string thousandths(double value) {
  auto text = fmt::format("{:.3f}", value);
  while (text.back() == '0') text.pop_back();
  if (text.back() == '.') text.pop_back();
  if (text == "-0") text = "0";
  if (text[0] == '-') text.replace(0, 1, "\u2212");
  return text;
}

} // namespace

std::string angle_text(double radian) {
  return thousandths(degrees(radian)) + "\u00B0";
}

std::string taper_text(double whole_angle) {
  const double run = 0.5 / std::tan(whole_angle / 2);
  const double shown = std::round(run * 1000) / 1000;
  const bool exact = whole_angle > 0 && std::abs(2 * std::atan(0.5 / shown) - whole_angle) < 1e-9;
  return exact ? "1 in " + thousandths(shown) : angle_text(whole_angle);
}

} // namespace datrin
