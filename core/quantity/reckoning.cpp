#include "quantity/reckoning.h"

#include "quantity/column_text.h"

#include <fmt/format.h>

namespace datrin {

ColumnText column_of(const Reckoning& reckoning, Unit unit) {
  std::vector<double> lengths;
  for (const auto& line : reckoning.lines) lengths.push_back(line.mm);
  constexpr int decimals_mm = 3, decimals_inch = 5;
  return column_text(lengths, unit, unit == Unit::mm ? decimals_mm : decimals_inch, true);
}

std::string reckoning_text(const Reckoning& reckoning, Unit first) {
  const auto second = first == Unit::mm ? Unit::inch : Unit::mm;
  const auto one = column_of(reckoning, first), other = column_of(reckoning, second);
  const auto both = [&](const std::string& a, const std::string& b) {
    return fmt::format("{}\u202F{} \u00B7 {}\u202F{}", a, unit_name(first), b, unit_name(second));
  };
  std::string text = reckoning.title + "\n";
  for (std::size_t k = 0; k < reckoning.lines.size(); ++k) {
    const auto& line = reckoning.lines[k];
    text +=
        fmt::format("{}  {}{}\n", line.figure.empty() ? both(one.figures[k], other.figures[k]) : line.figure,
                    line.label, line.source.empty() ? "" : " (" + line.source + ")");
  }
  return text +
         fmt::format("= {}\n", reckoning.answer.empty() ? both(one.total, other.total) : reckoning.answer);
}

} // namespace datrin
