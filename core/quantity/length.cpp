#include "quantity/length.h"

#include "quantity/expression.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <utility>

namespace datrin {

LengthResult parse_length(std::string_view text, const LengthOptions& options) {
  auto reckoned = reckon(text, options);
  LengthResult out;
  out.status = reckoned.status;
  out.message = std::move(reckoned.message);
  out.column = reckoned.column;
  if (!reckoned.ok()) return out;
  if (reckoned.power != 1) {
    out.status = LengthStatus::not_a_length;
    out.message = fmt::format("that is {}{}; a length is wanted", power_words(reckoned.power),
                              reckoned.power == 0 ? ", " + number_text(reckoned.value, 4) : std::string());
    out.column = 1;
    return out;
  }
  out.mm = reckoned.value;
  out.terms = std::move(reckoned.terms);
  out.understood = std::move(reckoned.understood);
  out.fraction_as_inches = reckoned.fraction_as_inches;
  return out;
}

} // namespace datrin
