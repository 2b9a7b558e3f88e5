#include "quantity/tolerance.h"

#include "general_tolerances_csv.h"
#include "it_grades_csv.h"
#include "quantity/table.h"
#include "quantity/text.h"
#include "quantity/unit.h"
#include "shaft_deviations_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

namespace datrin {

namespace {

constexpr double micrometre = 0.001;

const Table& deviations() {
  static const auto table = read_table(data::shaft_deviations_csv);
  return table;
}

/// A cell of the deviations' table, mm.
std::optional<double> tabled(double nominal, const std::string& name) {
  const int row = deviations().row_up_to(nominal);
  if (row < 0) return std::nullopt;
  const auto value = deviations().number(static_cast<std::size_t>(row), deviations().column(name));
  if (!value) return std::nullopt;
  return *value * micrometre;
}

/// Letters a to h stand wholly on the clearance side.
bool is_clearance(const std::string& letters) {
  return letters.front() <= 'h';
}

std::optional<Deviations> shaft(double nominal, const std::string& letters, int grade, double it) {
  if (letters == "k" && (grade < 4 || grade > 7)) return Deviations{0, it};
  const auto deviation = tabled(nominal, letters == "j" ? fmt::format("j{}", grade) : letters);
  if (!deviation) return std::nullopt;
  if (is_clearance(letters)) return Deviations{*deviation - it, *deviation};
  return Deviations{*deviation, *deviation + it};
}

std::optional<Deviations> hole(double nominal, const std::string& letters, int grade, double it) {
  if (letters == "j") {
    const auto upper = tabled(nominal, fmt::format("J{}", grade));
    if (!upper) return std::nullopt;
    return Deviations{*upper - it, *upper};
  }
  const auto deviation = tabled(nominal, letters);
  if (!deviation) return std::nullopt;
  if (is_clearance(letters)) return Deviations{0.0 - *deviation, 0.0 - *deviation + it}; // never −0
  // The rule with Δ = ITn − IT(n−1): K, M, N up to IT8, P and on up to IT7, above 3 mm. Δ is stated from IT3.
  const bool to_it8 = letters == "k" || letters == "m" || letters == "n";
  const bool with_delta = nominal > 3 && grade >= 3 && grade <= (to_it8 ? 8 : 7);
  const double delta = with_delta ? it - it_grade(nominal, grade - 1).value_or(it) : 0.0;
  double upper = -*deviation + delta;
  if (letters == "n" && grade >= 9 && nominal > 3) upper = 0; // and so for N9 and coarser
  if (letters == "m" && grade == 6 && nominal > 250 && nominal <= 315)
    upper = -9 * micrometre;                                           // its exception
  if (letters == "k" && grade > 8 && nominal > 3) return std::nullopt; // K is stated to IT8 only
  return Deviations{upper - it, upper};
}

/// "j" stands to grade 8 in either case; what letters there are depends on the size.
std::string letters_that_exist(double nominal, bool is_hole) {
  std::string text;
  for (const char* letter : {"a", "b", "c", "cd", "d", "e", "ef", "f", "fg", "g", "h", "j",  "js", "k",
                             "m", "n", "p", "r",  "s", "t", "u",  "v", "x",  "y", "z", "za", "zb", "zc"}) {
    const std::string name = letter;
    if (name != "js" && !tabled(nominal, name == "j" ? "j7" : name)) continue;
    std::string shown = name;
    if (is_hole)
      std::transform(shown.begin(), shown.end(), shown.begin(),
                     [](unsigned char c) { return static_cast<char>(std::toupper(c)); });
    text += (text.empty() ? "" : ", ") + shown;
  }
  return text;
}

} // namespace

std::optional<double> it_grade(double nominal, int grade) {
  static const auto table = read_table(data::it_grades_csv);
  const int row = table.row_up_to(nominal);
  if (row < 0 || nominal <= 0 || (nominal <= 1 && grade > 13)) return std::nullopt;
  const auto value =
      table.number(static_cast<std::size_t>(row),
                   table.column(grade == it_01 ? std::string("IT01") : fmt::format("IT{}", grade)));
  if (!value) return std::nullopt;
  return *value * micrometre;
}

std::optional<Deviations> iso_286(double nominal, std::string_view name, std::string* message) {
  const auto fail = [&](std::string why) -> std::optional<Deviations> {
    if (message != nullptr) *message = std::move(why);
    return std::nullopt;
  };
  const auto digits = std::find_if(name.begin(), name.end(), [](unsigned char c) { return std::isdigit(c); });
  const std::string letters(name.begin(), digits), number(digits, name.end());
  if (letters.empty() || number.empty() || number.size() > 2 ||
      (number.front() == '0' && number.size() == 2 && number != "01") ||
      !std::all_of(number.begin(), number.end(), [](unsigned char c) { return std::isdigit(c); }) ||
      !std::all_of(letters.begin(), letters.end(), [](unsigned char c) { return std::isalpha(c); }))
    return fail(fmt::format("\"{}\" is no tolerance class; write a letter and a grade, like H7 or g6", name));
  if (nominal <= 0 || nominal > 500) return fail("tolerance classes are tabled for sizes up to 500 mm");
  const int grade = number == "01" ? it_01 : static_cast<int>(whole_from(number).value_or(-1));
  const auto it = it_grade(nominal, grade);
  if (!it)
    return fail(nominal <= 1 && grade > 13 && grade < 19
                    ? fmt::format("grade {} is not used for sizes up to 1 mm", number)
                    : fmt::format("there is no grade {}; grades run from 01, 0, 1 to 18", number));
  std::string lower = letters;
  std::transform(lower.begin(), lower.end(), lower.begin(), [](unsigned char c) { return std::tolower(c); });
  const bool is_hole = std::isupper(static_cast<unsigned char>(letters.front()));
  if (lower == "js") return Deviations{-*it / 2, *it / 2};
  if (nominal <= 1 && (lower == "a" || lower == "b"))
    return fail(fmt::format("{} is not used for sizes up to 1 mm", letters));
  const bool inside = is_hole && !is_clearance(lower) && lower != "j"; // the holes that shrink by Δ
  if (inside && grade < 3)
    return fail(fmt::format("{} is not stated: holes {} begin with grade 3", name, letters));
  if (is_hole && lower == "n" && grade >= 9 && nominal <= 1)
    return fail(fmt::format("{} is not used for sizes up to 1 mm; N is stated to grade 8 there", name));
  const auto found = is_hole ? hole(nominal, lower, grade, *it) : shaft(nominal, lower, grade, *it);
  if (found) return found;
  if (lower == "j")
    return fail(fmt::format("{} is not stated; j goes with grades 5 to 8, J with 6 to 8", name));
  if (lower == "k" && tabled(nominal, lower)) return fail("K is stated to grade 8 only");
  return fail(fmt::format("there is no class {} at {} mm; the letters there are {}", name, nominal,
                          letters_that_exist(nominal, is_hole)));
}

std::optional<double> general_tolerance(GeneralOf of, double nominal, char tolerance_class) {
  static const auto table = read_table(data::general_tolerances_csv);
  static constexpr std::string_view names[] = {"linear", "edge", "angle"};
  const int column = table.column(std::string(1, tolerance_class));
  if (column < 3) return std::nullopt;
  for (std::size_t r = 0; r < table.rows.size(); ++r) {
    if (table.rows[r][0] != names[static_cast<std::size_t>(of)]) continue;
    const double over = table.number(r, 1).value_or(0), up_to = table.number(r, 2).value_or(0);
    // The first row of a kind includes its lower end: 0.5 mm itself is tabled.
    const bool first = r == 0 || table.rows[r - 1][0] != table.rows[r][0];
    if (nominal > up_to || nominal < over || (nominal == over && !first)) continue;
    const auto value = table.number(r, column);
    if (!value) return std::nullopt;
    return of == GeneralOf::angle ? radians(*value / 60) : *value;
  }
  return std::nullopt;
}

} // namespace datrin
