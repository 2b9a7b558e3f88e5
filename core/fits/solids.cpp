#include "fits/solids.h"

#include "quantity/table.h"
#include "quantity/text.h"
#include "solids_csv.h"

#include <fmt/format.h>

namespace datrin::fits {

namespace {

struct Named {
  std::vector<Solid> solids;
  std::vector<std::pair<std::string, std::size_t>> names; ///< every name, in lower case, and whose it is
};

const Named& named() {
  static const auto all = [] {
    Named out;
    const auto table = read_table(data::solids_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
      const auto cell = [&](const char* column) { return table.number(r, table.column(column)).value_or(0); };
      out.solids.push_back({table.rows[r][0], cell("expansion") * 1e-6, cell("contraction") * 1e-6,
                            cell("modulus") * 1e3, cell("poisson"), cell("yield"), cell("most_temperature"),
                            cell("friction"), cell("density")});
      out.names.emplace_back(lower_case(table.rows[r][0]), r);
      std::string_view also = table.rows[r][1];
      while (!also.empty()) {
        const auto bar = also.find('|');
        out.names.emplace_back(lower_case(also.substr(0, bar)), r);
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
  return {nullptr, fmt::format("there is no metal called \"{}\"{}; there are {}", one_line(trimmed(name)),
                               near, list)};
}

} // namespace datrin::fits
