#include "quantity/reckoning.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

namespace datrin {

std::string reckoning_text(const Reckoning& reckoning, Unit first) {
  const LengthTextOptions figures{.decimals_mm = 3, .decimals_inch = 5, .show_plus = true};
  std::string text = reckoning.title + "\n";
  for (const auto& line : reckoning.lines)
    text += fmt::format("{}  {}{}\n",
                        line.figure.empty() ? length_text_both(line.mm, first, figures) : line.figure,
                        line.label, line.source.empty() ? "" : " (" + line.source + ")");
  return text + fmt::format("= {}\n", reckoning.answer.empty()
                                          ? length_text_both(reckoning.total(), first, figures)
                                          : reckoning.answer);
}

} // namespace datrin
