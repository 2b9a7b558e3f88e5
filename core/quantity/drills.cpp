#include "quantity/drills.h"

#include "drills_csv.h"
#include "quantity/length_text.h"
#include "quantity/table.h"
#include "quantity/unit.h"
#include "wire_gauges_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <map>
#include <numeric>
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

std::optional<double> wire_gauge(std::string_view gauge, std::string_view number) {
  // 0, 00, 000 and so on: each nought a step thicker.
  const auto noughts = static_cast<int>(number.size());
  if (noughts > 1 && number.find_first_not_of('0') == std::string_view::npos) {
    if (gauge == "awg" && noughts <= 4)
      return to_mm(0.005 * std::pow(92.0, (35 + noughts) / 39.0), Unit::inch);
    static constexpr double swg[] = {0.348, 0.372, 0.400,
                                     0.432, 0.464, 0.500}; // 2/0 to 7/0: BS 3737, from memory
    if (gauge == "swg" && noughts <= 7) return to_mm(swg[noughts - 2], Unit::inch);
    return std::nullopt;
  }
  int n = 0;
  const auto read = std::from_chars(number.data(), number.data() + number.size(), n);
  if (read.ec != std::errc{} || read.ptr != number.data() + number.size() || n < 0) return std::nullopt;
  // Each step of the American gauge is the 39th root of 92 (ASTM B258), 36 being 0.005 in.
  if (gauge == "awg" && n <= 40) return to_mm(0.005 * std::pow(92.0, (36 - n) / 39.0), Unit::inch);
  if (gauge != "swg") return std::nullopt;
  static const auto table = read_table(data::wire_gauges_csv);
  for (std::size_t r = 0; r < table.rows.size(); ++r)
    if (table.number(r, 0) == n) return to_mm(table.number(r, 1).value_or(0), Unit::inch);
  return std::nullopt;
}

namespace {

std::vector<Drill> make_drawer(Unit unit) {
  std::vector<Drill> all;
  if (unit == Unit::mm) {
    for (int twentieths = 6; twentieths < 60; ++twentieths)
      all.push_back({fmt::format("{} mm", number_text(twentieths / 20.0, twentieths % 2 == 0 ? 1 : 2)),
                     twentieths / 20.0});
    for (int tenths = 30; tenths <= 130; ++tenths)
      all.push_back({fmt::format("{:.1f} mm", tenths / 10.0), tenths / 10.0});
    for (int quarters = 53; quarters <= 100; ++quarters)
      all.push_back({fmt::format("{} mm", number_text(quarters / 4.0, 2)), quarters / 4.0});
    for (int halves = 51; halves <= 100; ++halves)
      all.push_back({fmt::format("{:.1f} mm", halves / 2.0), halves / 2.0});
  } else {
    for (int n = 1; n <= 128; ++n) {
      const int over = std::gcd(n, 64), whole = n / 64, rest = n % 64;
      std::string name = rest == 0   ? fmt::format("{} in", whole)
                         : whole > 0 ? fmt::format("{} {}/{} in", whole, rest / over, 64 / over)
                                     : fmt::format("{}/{} in", n / over, 64 / over);
      all.push_back({std::move(name), n / 64.0 * mm_per_inch});
    }
    for (const auto& [name, size] : named_drills())
      all.push_back(
          {name.size() > 1 || std::isdigit(static_cast<unsigned char>(name[0])) ? "#" + name : name, size});
  }
  std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.size < b.size; });
  return all;
}

} // namespace

const std::vector<Drill>& drill_drawer(Unit unit) {
  static const auto metric = make_drawer(Unit::mm), inch = make_drawer(Unit::inch);
  return unit == Unit::mm ? metric : inch;
}

} // namespace datrin
