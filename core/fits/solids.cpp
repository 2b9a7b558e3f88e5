#include "fits/solids.h"

#include "quantity/table.h"
#include "quantity/text.h"
#include "solids_csv.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::fits {

namespace {

struct Named {
  std::vector<Solid> solids;
  std::vector<std::pair<std::string, std::size_t>> names; ///< every name, in lower case, and whose it is
  std::vector<std::string> spoken;                        ///< the same as they are written
};

const Named& named() {
  static const auto all = [] {
    Named out;
    const auto table = read_table(data::solids_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
      const auto cell = [&](const char* column) { return table.number(r, table.column(column)).value_or(0); };
      out.solids.push_back({table.rows[r][0], cell("expansion") * 1e-6, cell("contraction") * 1e-6,
                            cell("modulus") * 1e3, cell("poisson"), cell("yield"), cell("most_temperature"),
                            cell("friction"), cell("density"), cell("cutting")});
      const auto name = [&](std::string_view one) {
        out.names.emplace_back(lower_case(one), r);
        out.spoken.emplace_back(one);
      };
      name(table.rows[r][0]);
      std::string_view also = table.rows[r][1];
      while (!also.empty()) {
        const auto bar = also.find('|');
        name(also.substr(0, bar));
        also = bar == std::string_view::npos ? std::string_view{} : also.substr(bar + 1);
      }
    }
    return out;
  }();
  return all;
}

} // namespace

const std::vector<Solid>& solids() {
  return named().solids;
}

FoundSolid find_solid(std::string_view name) {
  const auto wanted = lower_case(trimmed(name));
  std::vector<std::string> names;
  std::string list;
  for (const auto& [known, k] : named().names) {
    if (known == wanted) return {&solids()[k], {}};
    names.push_back(known);
  }
  for (const auto& solid : solids()) list += (list.empty() ? "" : ", ") + solid.name;
  const auto near = did_you_mean(wanted, names);
  FoundSolid none{nullptr, fmt::format("there is no metal called \"{}\"{}; there are {}",
                                       one_line(trimmed(name)), near, list)};
  none.nearest = nearest_name(wanted, names);
  return none;
}

std::vector<std::string> solid_names() {
  auto out = named().spoken;
  std::sort(out.begin(), out.end());
  return out;
}

std::string unknown_material(std::string_view name) {
  if (trimmed(name).empty()) return {};
  const auto found = find_solid(name);
  if (found.solid != nullptr) return {};
  return fmt::format("\"{}\" is no material of the table{}: heat, press and weight say nothing of it.",
                     one_line(trimmed(name)),
                     found.nearest.empty() ? "" : fmt::format(" (it has {})", found.nearest));
}

} // namespace datrin::fits
