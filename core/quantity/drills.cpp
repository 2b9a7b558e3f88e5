#include "quantity/drills.h"

#include "drills_csv.h"
#include "quantity/table.h"
#include "quantity/unit.h"

#include <cctype>
#include <map>
#include <string>

namespace datrin {

const std::vector<std::pair<std::string, double>>& named_drills() {
  static const auto drills = [] {
    const auto table = read_table(data::drills_csv);
    std::vector<std::pair<std::string, double>> list;
    for (std::size_t r = 0; r < table.rows.size(); ++r)
      if (const auto inch = table.number(r, 1))
        list.emplace_back(table.rows[r].front(), to_mm(*inch, Unit::inch));
    return list;
  }();
  return drills;
}

std::optional<double> drill_diameter(std::string_view name) {
  static const std::map<std::string, double, std::less<>> table(named_drills().begin(), named_drills().end());
  std::string key(name);
  if (key.size() == 1) key[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(key[0])));
  const auto found = table.find(key);
  if (found == table.end()) return std::nullopt;
  return found->second;
}

} // namespace datrin
