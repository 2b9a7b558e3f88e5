#include "quantity/table.h"

#include "quantity/text.h"

#include <charconv>

namespace datrin {

int Table::column(std::string_view name) const {
  for (std::size_t k = 0; k < columns.size(); ++k)
    if (columns[k] == name) return static_cast<int>(k);
  return -1;
}

std::optional<double> Table::number(std::size_t row, int column) const {
  if (row >= rows.size() || column < 0 || static_cast<std::size_t>(column) >= rows[row].size())
    return std::nullopt;
  const auto& cell = rows[row][static_cast<std::size_t>(column)];
  double value = 0;
  const auto read = std::from_chars(cell.data(), cell.data() + cell.size(), value);
  if (cell.empty() || read.ec != std::errc{}) return std::nullopt;
  return value;
}

int Table::row_up_to(double value, std::string_view up_to) const {
  const int limit = column(up_to);
  for (std::size_t r = 0; r < rows.size(); ++r)
    if (const auto most = number(r, limit); most && value <= *most * (1 + 1e-12)) return static_cast<int>(r);
  return -1;
}

Table read_table(std::string_view csv) {
  Table table;
  while (!csv.empty()) {
    const auto end = csv.find('\n');
    auto line = trimmed(csv.substr(0, end));
    csv = end == std::string_view::npos ? std::string_view{} : csv.substr(end + 1);
    if (line.empty() || line.front() == '#') continue;
    std::vector<std::string> cells;
    for (;;) {
      const auto comma = line.find(',');
      cells.emplace_back(trimmed(line.substr(0, comma)));
      if (comma == std::string_view::npos) break;
      line.remove_prefix(comma + 1);
    }
    if (table.columns.empty())
      table.columns = std::move(cells);
    else
      table.rows.push_back(std::move(cells));
  }
  return table;
}

} // namespace datrin
