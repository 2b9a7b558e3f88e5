#include "quantity/drills.h"

#include "drills_csv.h"
#include "quantity/unit.h"

#include <cctype>
#include <charconv>
#include <map>
#include <string>

namespace datrin {
namespace {

std::map<std::string, double, std::less<>> read_table() {
  std::map<std::string, double, std::less<>> table;
  std::string_view rest = data::drills_csv;
  while (!rest.empty()) {
    const auto end = rest.find('\n');
    const auto line = rest.substr(0, end);
    rest = end == std::string_view::npos ? std::string_view{} : rest.substr(end + 1);
    const auto comma = line.find(',');
    if (line.empty() || line.front() == '#' || comma == std::string_view::npos) continue;
    const auto value = line.substr(comma + 1);
    double inch = 0;
    if (std::from_chars(value.data(), value.data() + value.size(), inch).ec == std::errc{})
      table.emplace(std::string(line.substr(0, comma)), to_mm(inch, Unit::inch));
  }
  return table;
}

} // namespace

std::optional<double> drill_diameter(std::string_view name) {
  static const auto table = read_table();
  std::string key(name);
  if (key.size() == 1) key[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(key[0])));
  const auto found = table.find(key);
  if (found == table.end()) return std::nullopt;
  return found->second;
}

} // namespace datrin
