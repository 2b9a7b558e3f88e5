#include "cutting/speed.h"

#include "cutting_speeds_csv.h"
#include "quantity/table.h"
#include "quantity/text.h"
#include "quantity/unit.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::cutting {

namespace {

struct Row {
  std::string metal;
  std::vector<std::string> names;
  double high_speed = 0, carbide = 0;
};

const std::vector<Row>& rows() {
  static const auto list = [] {
    std::vector<Row> all;
    const auto table = read_table(data::cutting_speeds_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
      Row row;
      row.metal = table.rows[r][0];
      const auto& names = table.rows[r][1];
      for (std::size_t at = 0; at < names.size();) {
        const auto bar = std::min(names.find('|', at), names.size());
        row.names.push_back(names.substr(at, bar - at));
        at = bar + 1;
      }
      row.high_speed = table.number(r, table.column("high_speed")).value_or(0);
      row.carbide = table.number(r, table.column("carbide")).value_or(0);
      all.push_back(std::move(row));
    }
    return all;
  }();
  return list;
}

/// By its name whole; else the one whose longest word stands in it.
const Row* row_of(std::string_view metal) {
  const auto name = lower_case(trimmed(metal));
  if (name.empty()) return nullptr;
  const Row* best = nullptr;
  std::size_t longest = 0;
  for (const auto& row : rows()) {
    auto words = row.names;
    words.push_back(row.metal);
    for (const auto& word : words) {
      if (word == name) return &row;
      if (word.size() > longest && name.find(word) != std::string::npos) longest = word.size(), best = &row;
    }
  }
  return best;
}

} // namespace

std::vector<std::string> metals_with_speeds() {
  std::vector<std::string> names;
  for (const auto& row : rows()) names.push_back(row.metal);
  return names;
}

double cutting_speed(std::string_view metal, ToolMetal tool) {
  const auto* row = row_of(metal);
  if (!row) return 0;
  return tool == ToolMetal::carbide ? row->carbide : row->high_speed;
}

double revolutions(double m_per_min, double diameter) {
  return m_per_min > 0 && diameter > 0 ? 1000 * m_per_min / (pi * diameter) : 0;
}

double speed_below(const std::vector<double>& speeds, double wanted) {
  if (speeds.empty()) return 0;
  double best = *std::min_element(speeds.begin(), speeds.end());
  for (const double speed : speeds)
    if (speed <= wanted && speed > best) best = speed;
  return best;
}

double MachineSpeeds::below(double wanted) const {
  if (stepless) return std::clamp(wanted, speeds.front(), speeds.back());
  return speed_below(speeds, wanted);
}

MachineSpeeds speeds_of(std::string_view text) {
  MachineSpeeds out;
  const auto refuse = [&](std::string_view word) {
    MachineSpeeds none;
    none.wrong = fmt::format("\"{}\" is no speed: write them as 60 105 170, or a stepless range as 200-1100",
                             one_line(word));
    return none;
  };
  std::string plain(text);
  for (const std::string_view dash : {"\u2013", "\u2212"})
    for (auto at = plain.find(dash); at != std::string::npos; at = plain.find(dash))
      plain.replace(at, dash.size(), "-");
  for (auto& c : plain)
    if (c == ',' || c == ';') c = ' ';
  constexpr double fastest = 200000; // rev/min: beyond it is a slip of the keys
  const auto speed_from = [&](std::string_view word) {
    const auto speed = number_from(word);
    return speed && *speed > 0 && *speed <= fastest ? speed : std::nullopt;
  };
  const auto words = words_of(plain);
  for (const auto word : words) {
    const auto dash = word.find('-');
    if (dash == std::string_view::npos) {
      const auto speed = speed_from(word);
      if (!speed) return refuse(word);
      out.speeds.push_back(*speed);
      continue;
    }
    const auto low = speed_from(word.substr(0, dash)), high = speed_from(word.substr(dash + 1));
    if (!low || !high || !(*low < *high) || words.size() != 1) return refuse(word);
    out.speeds = {*low, *high};
    out.stepless = true;
  }
  return out;
}

} // namespace datrin::cutting
