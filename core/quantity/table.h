#pragma once
// The tables of data/, compiled in as text: rows of cells.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin {

struct Table {
  std::vector<std::string> columns;
  std::vector<std::vector<std::string>> rows;

  int column(std::string_view name) const; ///< −1 when there is none
  /// The number in a cell; nothing when the cell is empty or not there.
  std::optional<double> number(std::size_t row, int column) const;
  /// The first row whose `up_to` column is at least `value`; −1 when all are below.
  int row_up_to(double value, std::string_view up_to = "up_to_mm") const;
};

/// Reads CSV text: lines that begin with # are left out, the first other line names the columns.
Table read_table(std::string_view csv);

} // namespace datrin
