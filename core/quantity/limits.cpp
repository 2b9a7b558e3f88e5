#include "quantity/limits.h"

#include "quantity/length_text.h"
#include "quantity/text.h"
#include "quantity/tolerance.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <regex>

namespace datrin {

namespace {

std::string plain_signs(std::string_view text) {
  std::string out(text);
  const auto replace = [&out](std::string_view from, std::string_view to) {
    for (auto at = out.find(from); at != std::string::npos; at = out.find(from, at + to.size()))
      out.replace(at, from.size(), to);
  };
  replace("\u2212", "-");
  replace("\u2009", " ");
  replace("\u202F", " ");
  replace("\u00A0", " ");
  replace("\u00B1", "~");
  replace("+/-", "~");
  replace("+-", "~");
  return std::string(trimmed(out));
}

/// The unit a text was written with; nothing when it has none (or is not a length). Thou say nothing of the
/// number beside them: 12 ± 2 thou may well be 12 mm.
std::optional<Unit> written_unit(const std::string& text) {
  if (!parse_length(text).ok()) return std::nullopt;
  const auto t = lower_case(trimmed(text));
  const auto ends = [&t](std::string_view end) { return t.size() >= end.size() && t.ends_with(end); };
  if (ends("thou")) return std::nullopt;
  return ends("mm") || ends("cm") || ends("um") || ends("\u00B5m") ? Unit::mm : Unit::inch;
}

/// A dimension taken apart, each piece as it was written. `lower` is "~" where one figure stands for both.
struct Written {
  std::string nominal, upper, lower, name;
  std::string wrong; ///< why it cannot be; empty when it can
};

Written take_apart(const std::string& text) {
  // "12 H7", and "12H7" as drawings have it.
  static const std::regex class_tail("^(.*\\S)\\s+([A-Za-z]{1,2}[0-9]{1,2})$");
  static const std::regex joined_class_tail("^(.*[0-9])([A-Za-z]{1,2}[0-9]{1,2})$");
  static const std::regex general_tail("^(.*?\\S)\\s+(?:(?:ISO\\s*)?2768\\s*-\\s*)?([fmcv])[A-Z]?$");
  // The sign of a deviation, not one of a sum: the sums "3 mm + 4 mm" have a blank after it.
  static const std::regex pair_tail("^(.*\\S)\\s*(?:\\s|(?=[-+]))([-+]\\S[^/]*?|0)\\s*/\\s*([-+]\\S.*|0)"
                                    "(\\s*(?:mm|in|\"|thou))?$");
  Written written{text, {}, {}, {}, {}};
  std::smatch match;
  if (const auto band = text.find('~'); band != std::string::npos) {
    written.nominal = text.substr(0, band);
    written.upper = text.substr(band + 1);
    written.lower = "~";
    if (trimmed(written.upper).empty()) written.wrong = "after \u00B1 comes how much, like 12 \u00B10.05";
    if (written.upper.find('~') != std::string::npos) written.wrong = "\u00B1 stands twice";
  } else if (((std::regex_match(text, match, class_tail) ||
               std::regex_match(text, match, joined_class_tail)) &&
              !parse_length(match[2].str()).ok()) ||
             std::regex_match(text, match, general_tail)) {
    written.nominal = match[1].str();
    written.name = match[2].str();
  } else if (std::regex_match(text, match, pair_tail)) {
    written.nominal = match[1].str();
    written.upper = match[2].str();
    written.lower = match[3].str();
    if (match[4].matched) written.lower += match[4].str();
  }
  return written;
}

/// Both deviations as they are written into `result`; what is wrong with them, or nothing.
std::string read_deviations(const Written& written, const LengthOptions& reading, LimitsResult& result) {
  const auto read = [&](const std::string& part, double& to) -> std::string {
    if (trimmed(part) == "0") {
      to = 0;
      return {};
    }
    auto one = parse_length(part, reading);
    if (one.ok()) to = one.mm;
    return std::move(one.message);
  };
  // Thou beside a bare number: of what the bare one is cannot be told.
  const auto bare = [](const std::string& part) {
    return trimmed(part) != "0" && parse_length(part).status == LengthStatus::unit_missing;
  };
  const auto thou = [](const std::string& part) { return lower_case(trimmed(part)).ends_with("thou"); };
  const auto& [nominal, upper, lower, name, wrong_before] = written;
  if (lower != "~" && ((thou(upper) && bare(lower)) || (thou(lower) && bare(upper))))
    return "write the unit at both deviations";
  double a = 0, b = 0;
  if (auto wrong = read(upper, a); !wrong.empty()) return wrong;
  if (lower == "~") {
    if (a < 0) return "after \u00B1 comes a length without a sign";
    b = -a;
  } else if (auto wrong = read(lower, b); !wrong.empty()) {
    return wrong;
  }
  result.lower = std::min(a, b);
  result.upper = std::max(a, b);
  result.stated = true;
  return {};
}

/// The deviations of an ISO 286 class, of an ISO 2768 class that is named, or of the drawing's into `result`;
/// what is wrong, or nothing.
std::string read_class(const std::string& name, const LimitsOptions& options, LimitsResult& result) {
  if (name.size() > 1) {
    std::string wrong;
    const auto deviations = iso_286(result.nominal, name, &wrong);
    if (!deviations) return wrong;
    result.lower = deviations->lower;
    result.upper = deviations->upper;
    result.tolerance = name;
    result.stated = true;
    return {};
  }
  const char general = name.empty() ? options.general : name[0];
  if (general == 0) return {};
  const auto band = general_tolerance(options.is_edge ? GeneralOf::edge : GeneralOf::linear,
                                      std::abs(result.nominal), general);
  if (!band && !name.empty())
    return fmt::format("ISO 2768 states no class {} for this size; write the limits themselves", general);
  if (band) {
    result.lower = -*band;
    result.upper = *band;
    result.tolerance = fmt::format("ISO 2768-{}", general);
    result.stated = true;
  }
  return {};
}

} // namespace

LimitsResult parse_limits(std::string_view given, const LimitsOptions& options) {
  LimitsResult result;
  const auto fail = [&](std::string why) {
    result = {};
    result.message = std::move(why);
    return result;
  };
  if (!is_utf8(given)) return fail("the text is not UTF-8");
  const auto text = plain_signs(given);
  constexpr std::size_t longest = 200; // bytes; a dimension is a few words
  if (text.size() > longest) return fail("that is too long for a dimension; write one like 12 H7");
  if (text.empty()) return fail("write a dimension, like 12 H7, 12 \u00B10.05 or 12 +0.018/0");
  const auto written = take_apart(text);
  if (!written.wrong.empty()) return fail(written.wrong);

  LengthOptions reading = options.length;
  auto unit = written_unit(written.nominal);
  if (!unit && !written.upper.empty()) unit = written_unit(written.upper);
  if (!unit && !written.lower.empty() && written.lower != "~") unit = written_unit(written.lower);
  if (unit) reading.bare_unit = unit;
  const auto size = parse_length(written.nominal, reading);
  if (!size.ok()) return fail(size.message);
  result.nominal = size.mm;
  auto wrong = written.upper.empty() ? read_class(written.name, options, result)
                                     : read_deviations(written, reading, result);
  if (!wrong.empty()) return fail(std::move(wrong));
  result.ok = true;
  return result;
}

std::string limits_text(double nominal, double lower, double upper, const std::string& tolerance, Unit unit) {
  auto size = length_entry_text(nominal, unit);
  if (!tolerance.empty()) return size + " " + tolerance;
  if (lower == 0 && upper == 0) return size;
  const auto deviation = [unit](double mm) {
    if (mm == 0) return std::string("0");
    auto text = fmt::format("{:+.{}f}", from_mm(mm, unit), unit == Unit::mm ? 4 : 5);
    while (text.back() == '0') text.pop_back();
    if (text.back() == '.') text.pop_back();
    if (text[0] == '-') text.replace(0, 1, "\u2212");
    return text;
  };
  if (std::abs(lower + upper) < 1e-9) return size + " \u00B1" + deviation(upper).substr(1);
  return size + " " + deviation(upper) + "/" + deviation(lower);
}

} // namespace datrin
