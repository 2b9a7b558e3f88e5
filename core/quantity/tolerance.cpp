#include "quantity/tolerance.h"

#include "general_tolerances_csv.h"
#include "it_grades_csv.h"
#include "quantity/table.h"
#include "quantity/unit.h"
#include "shaft_deviations_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

namespace datrin {

namespace {

constexpr double micrometre = 0.001;

std::optional<double> shaft_deviation(double nominal, char letter) {
  static const auto table = read_table(data::shaft_deviations_csv);
  const int row = table.row_up_to(nominal);
  if (row < 0) return std::nullopt;
  const auto value = table.number(static_cast<std::size_t>(row), table.column(std::string(1, letter)));
  if (!value) return std::nullopt;
  return *value * micrometre;
}

std::optional<Deviations> shaft(double nominal, char letter, int grade, double it) {
  const auto deviation = shaft_deviation(nominal, letter);
  if (!deviation) return std::nullopt;
  if (letter <= 'h') return Deviations{*deviation - it, *deviation};
  const double lower = letter == 'k' && (grade < 4 || grade > 7) ? 0.0 : *deviation;
  return Deviations{lower, lower + it};
}

std::optional<Deviations> hole(double nominal, char letter, int grade, double it) {
  const auto deviation = shaft_deviation(nominal, letter);
  if (!deviation) return std::nullopt;
  if (letter <= 'h') return Deviations{-*deviation, -*deviation + it};
  // The rule with Δ = ITn − IT(n−1): K, M, N up to IT8, P and on up to IT7, above 3 mm.
  const bool with_delta = nominal > 3 && grade >= 3 && (letter <= 'n' ? grade <= 8 : grade <= 7);
  const double delta = with_delta ? it - it_grade(nominal, grade - 1).value_or(it) : 0.0;
  double upper = -*deviation + delta;
  if (letter == 'n' && grade >= 9 && nominal > 3) upper = 0; // and so for N9 and coarser
  if (letter == 'm' && grade == 6 && nominal > 250 && nominal <= 315)
    upper = -9 * micrometre;                           // its exception
  if (letter == 'k' && grade > 8) return std::nullopt; // K is stated to IT8 only
  return Deviations{upper - it, upper};
}

} // namespace

std::optional<double> it_grade(double nominal, int grade) {
  static const auto table = read_table(data::it_grades_csv);
  const int row = table.row_up_to(nominal);
  if (row < 0 || nominal <= 0 || grade < 1) return std::nullopt;
  const auto value = table.number(static_cast<std::size_t>(row), table.column(fmt::format("IT{}", grade)));
  if (!value) return std::nullopt;
  return *value * micrometre;
}

std::optional<Deviations> iso_286(double nominal, std::string_view name, std::string* message) {
  const auto fail = [&](std::string why) -> std::optional<Deviations> {
    if (message != nullptr) *message = std::move(why);
    return std::nullopt;
  };
  const auto digits = std::find_if(name.begin(), name.end(), [](unsigned char c) { return std::isdigit(c); });
  const std::string letters(name.begin(), digits);
  int grade = 0;
  for (auto c = digits; c != name.end(); ++c) {
    if (!std::isdigit(static_cast<unsigned char>(*c)) || grade > 99)
      return fail(
          fmt::format("\"{}\" is no tolerance class; write a letter and a grade, like H7 or g6", name));
    grade = grade * 10 + (*c - '0');
  }
  if (letters.empty() || grade == 0)
    return fail(fmt::format("\"{}\" is no tolerance class; write a letter and a grade, like H7 or g6", name));
  if (nominal <= 0 || nominal > 500) return fail("tolerance classes are tabled for sizes up to 500 mm");
  const auto it = it_grade(nominal, grade);
  if (!it) return fail(fmt::format("there is no grade {}; grades run from 1 to 16", grade));
  std::string lower = letters;
  std::transform(lower.begin(), lower.end(), lower.begin(), [](unsigned char c) { return std::tolower(c); });
  const bool is_hole = std::isupper(static_cast<unsigned char>(letters.front()));
  if (lower == "js") return Deviations{-*it / 2, *it / 2};
  std::optional<Deviations> found;
  if (lower.size() == 1)
    found = is_hole ? hole(nominal, lower[0], grade, *it) : shaft(nominal, lower[0], grade, *it);
  if (!found)
    return fail(fmt::format("class {} is not in the tables; d to h, js, k, m, n, p, r, s are", name));
  return found;
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
