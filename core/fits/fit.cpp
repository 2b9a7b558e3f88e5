#include "fits/fit.h"

#include "b41_fits_csv.h"
#include "quantity/length.h"
#include "quantity/table.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <map>

namespace datrin::fits {

namespace {

FitResult refuse(std::string why) {
  FitResult out;
  out.message = std::move(why);
  return out;
}

const Table& b41() {
  static const auto table = read_table(data::b41_fits_csv);
  return table;
}

std::string upper_case(std::string_view text) {
  std::string out(text);
  for (auto& c : out) c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
  return out;
}

bool looks_like_b41(std::string_view code) {
  const auto name = upper_case(code.substr(0, 2));
  return name == "RC" || name == "LC" || name == "LT" || name == "LN" || name == "FN";
}

} // namespace

std::string_view fit_kind_name(FitKind kind) {
  static constexpr std::string_view names[] = {"clearance", "transition", "interference"};
  return names[static_cast<std::size_t>(kind)];
}

FitResult b41_fit(double nominal, std::string_view text) {
  auto name = upper_case(text);
  std::erase(name, ' ');
  if (!(nominal > 0) || !std::isfinite(nominal)) return refuse("the nominal must be above 0");
  const double inches = from_mm(nominal, Unit::inch);
  bool known = false;
  double largest = 0, smallest = 1e9, before = 0;
  for (std::size_t r = 0; r < b41().rows.size(); ++r) {
    if (b41().rows[r][0] != name) continue;
    const double up_to = b41().number(r, 1).value_or(0);
    // The first row of LT3, LT4 and FN3 begins where a row of the finer table ends.
    if (!known) smallest = name == "LT3" || name == "LT4" ? 0.24 : name == "FN3" ? 0.95 : 0;
    known = true;
    largest = up_to;
    if (inches > before && inches > smallest && inches <= up_to * (1 + 1e-12)) {
      FitResult out;
      const auto thou = [&](int column) { return b41().number(r, column).value_or(0) * mm_per_thou; };
      out.fit = {nominal, name, {thou(2), thou(3)}, {thou(4), thou(5)}};
      out.ok = true;
      return out;
    }
    before = up_to;
  }
  if (!known)
    return refuse(
        fmt::format("there is no fit {}; B4.1 has RC1 to RC9, LC1 to LC11, LT1 to LT6, LN1 to LN3 and "
                    "FN1 to FN5",
                    text));
  return refuse(fmt::format("{} is tabled for sizes over {} up to {} in", name, smallest, largest));
}

FitResult fit_of(double nominal, std::string_view code) {
  code = trimmed(code);
  if (looks_like_b41(code)) return b41_fit(nominal, code);
  auto cut = code.find('/');
  if (cut == std::string_view::npos) cut = code.find(' ');
  if (cut == std::string_view::npos)
    return refuse(fmt::format(
        "\"{}\" is no fit; write hole and shaft, like H7/g6, or an ANSI B4.1 fit, like RC4", code));
  const auto first = trimmed(code.substr(0, cut)), second = trimmed(code.substr(cut + 1));
  if (first.empty() || second.empty() || !std::isupper(static_cast<unsigned char>(first.front())) ||
      !std::islower(static_cast<unsigned char>(second.front())))
    return refuse(
        fmt::format("\"{}\" is no fit; the hole has capital letters and stands first, like H7/g6", code));
  FitResult out;
  const auto hole = iso_286(nominal, first, &out.message);
  if (!hole) return out;
  const auto shaft = iso_286(nominal, second, &out.message);
  if (!shaft) return out;
  out.message.clear();
  out.fit = {nominal, fmt::format("{}/{}", first, second), *hole, *shaft};
  out.ok = true;
  return out;
}

FitResult read_fit(std::string_view text, Unit unit) {
  text = trimmed(text);
  if (!is_utf8(text)) return refuse("the text is not UTF-8");
  if (text.empty()) return refuse("write a nominal and a fit, like 25 H7/g6");
  LengthOptions options;
  options.bare_unit = unit;
  std::string plain(text);
  for (const char* sign : {"\u2300", "\u00D8", "\u00F8"}) // a diameter, as drawings mark it
    if (plain.starts_with(sign)) plain.erase(0, std::string_view(sign).size());
  // "25H7/g6": a letter straight behind a figure begins the code, unless it begins a unit.
  if (const auto at = plain.find_first_not_of("0123456789.,/- ");
      at != std::string::npos && at > 0 && plain[at - 1] != ' ')
    if (const auto code = plain.substr(at);
        std::isupper(static_cast<unsigned char>(code.front())) && code.find_first_of("0123456789") < 3)
      plain.insert(at, " ");
  text = trimmed(plain);
  // The longest beginning that reads as a length, the rest a code.
  for (auto cut = text.rfind(' '); cut != std::string_view::npos && cut > 0; cut = text.rfind(' ', cut - 1)) {
    const auto length = parse_length(trimmed(text.substr(0, cut)), options);
    if (!length.ok()) continue;
    if (!(length.mm > 0)) return refuse("the nominal must be above 0");
    return fit_of(length.mm, text.substr(cut + 1));
  }
  const auto first = text.substr(0, text.find(' '));
  const auto length = parse_length(first, options);
  if (!length.ok()) return refuse(fmt::format("\"{}\" is no nominal: {}", first, length.message));
  return refuse("write a fit behind the nominal, like 25 H7/g6");
}

} // namespace datrin::fits
