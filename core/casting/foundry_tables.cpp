#include "casting/foundry_tables.h"

#include "casting_grades_csv.h"
#include "casting_tolerances_csv.h"
#include "machining_allowances_csv.h"
#include "metals_csv.h"
#include "quantity/table.h"
#include "quantity/text.h"
#include "quantity/unit.h"

namespace datrin::casting {

const std::vector<Metal>& metals() {
  static const auto list = [] {
    std::vector<Metal> all;
    const auto table = read_table(data::metals_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
      const auto n = [&](const char* column) { return table.number(r, table.column(column)).value_or(0); };
      all.push_back({table.rows[r][0], table.rows[r][1], n("shrink_least") / 100, n("shrink_usual") / 100,
                     n("shrink_most") / 100, n("skin_mm"), radians(n("draft_degrees"))});
    }
    return all;
  }();
  return list;
}

std::optional<Metal> metal_named(std::string_view given) {
  const auto name = lower_case(trimmed(given));
  for (const auto& m : metals())
    if (m.name == name) return m;
  static constexpr std::pair<std::string_view, std::string_view> meant[] = {{"ductile", "ductile iron"},
                                                                            {"nodular", "ductile iron"},
                                                                            {"iron", "grey iron"},
                                                                            {"steel", "steel"},
                                                                            {"gunmetal", "gunmetal"},
                                                                            {"brass", "brass"},
                                                                            {"bronze", "phosphor bronze"},
                                                                            {"alumin", "aluminium"},
                                                                            {"zinc", "zinc"}};
  for (const auto& [word, metal] : meant)
    if (name.find(word) != std::string::npos) return metal_named(metal);
  return std::nullopt;
}

const std::vector<CastingGrade>& casting_grades() {
  static const auto list = [] {
    std::vector<CastingGrade> all;
    const auto table = read_table(data::casting_grades_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r)
      all.push_back({table.rows[r][0], table.rows[r][1], static_cast<int>(table.number(r, 2).value_or(0)),
                     table.rows[r][3]});
    return all;
  }();
  return list;
}

std::optional<CastingGrade> usual_grade(std::string_view process, std::string_view group) {
  for (const auto& g : casting_grades())
    if (g.process == process && g.group == group) return g;
  return std::nullopt;
}

std::optional<double> casting_tolerance(double raw, int grade, CastOf of) {
  static const auto table = read_table(data::casting_tolerances_csv);
  const int row = table.row_up_to(raw);
  if (row < 0 || !(raw > 0) || grade > 15) return std::nullopt;
  return table.number(static_cast<std::size_t>(row),
                      table.column(std::to_string(of == CastOf::wall ? grade + 1 : grade)));
}

std::optional<double> machining_allowance(double largest, std::string_view grade) {
  static const auto table = read_table(data::machining_allowances_csv);
  const int row = table.row_up_to(largest);
  if (row < 0 || largest <= 0) return std::nullopt;
  const int column = table.column(grade);
  return column < 1 ? std::nullopt : table.number(static_cast<std::size_t>(row), column);
}

} // namespace datrin::casting
