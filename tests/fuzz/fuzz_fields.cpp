// What a person types into a field: the first byte chooses the field, the rest is the text. Any text is read
// or refused with a reason; what is read keeps the rules of what it is, and says the same in the other unit.

#include "allowance/passes.h"
#include "chains/chain.h"
#include "drawing/dimension_limits.h"
#include "fits/reading_text.h"
#include "geometry/direction_text.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "quantity/unit.h"
#include "threads/threads.h"

#include <cmath>
#include <cstdint>
#include <cstdlib>
#include <string>
#include <string_view>

using namespace datrin;

namespace {

void check(bool holds) {
  if (!holds) std::abort();
}

LengthOptions lengths(bool comma) {
  LengthOptions options;
  options.bare_unit = comma ? Unit::inch : Unit::mm;
  options.decimal_comma = comma;
  options.thread_hole = [](std::string_view thread, ThreadHole) -> std::optional<double> {
    const auto found = threads::find(thread);
    return found.thread != nullptr ? std::optional(found.thread->major) : std::nullopt;
  };
  return options;
}

void length(std::string_view text, bool comma) {
  const auto read = parse_length(text, lengths(comma));
  check(read.ok() ? is_length(read.mm) : !read.message.empty());
  if (!read.ok()) return;
  const auto again = parse_length(length_entry_text(read.mm, Unit::mm), lengths(false));
  check(again.ok() && std::abs(again.mm - read.mm) <= 1e-3 + 1e-9 * std::abs(read.mm));
  // What was understood is the same when it is read.
  constexpr std::size_t longest = 400;
  if (read.understood.size() > longest) return;
  auto plain = lengths(comma);
  plain.decimal_comma = false;
  const auto told = parse_length(read.understood, plain);
  check(told.ok() && std::abs(told.mm - read.mm) <= 1e-6 + 1e-9 * std::abs(read.mm));
}

void angle(std::string_view text, bool comma) {
  for (const auto of : {TaperOf::slope, TaperOf::cone}) {
    AngleOptions options;
    options.decimal_comma = comma;
    options.taper = of;
    const auto read = parse_angle(text, options);
    check(read.ok ? std::isfinite(read.radian) : !read.message.empty());
  }
}

void limits(std::string_view text, bool comma) {
  LimitsOptions options;
  options.length = lengths(comma);
  options.general = comma ? 'm' : char{0};
  const auto read = parse_limits(text, options);
  check(read.ok ? read.lower <= read.upper && is_length(read.nominal) && is_length(read.lower) &&
                      is_length(read.upper)
                : !read.message.empty());
}

void dimension(std::string_view text, bool comma) {
  for (const auto kind : {build::DimensionKind::length, build::DimensionKind::angle}) {
    build::Dimension d;
    d.kind = kind;
    const auto read = drawing::typed_limits(d, std::string(text), lengths(comma), {.decimal_comma = comma});
    if (!read.ok()) continue;
    check(std::isfinite(read.dimension.nominal) && read.dimension.lower <= read.dimension.upper);
    (void)drawing::dimension_text(read.dimension, Unit::inch);
  }
}

void direction(std::string_view text) {
  if (const auto read = parse_direction(text)) {
    check(std::abs(read->norm() - 1) < 1e-9);
    check(parse_direction(direction_text(*read)).has_value());
  }
}

void reading(std::string_view text, bool comma) {
  for (const auto side : {fits::Side::unknown, fits::Side::hole, fits::Side::shaft}) {
    const auto read = fits::parse_reading(text, lengths(comma), side);
    check(read.ok ? is_length(read.shown) && is_length(read.pins) && read.play >= 0 && read.off_centre >= 0 &&
                        read.uncertainty.value_or(0) >= 0
                  : !read.message.empty());
    const bool difference =
        read.kind == fits::ReadingKind::comparison || read.kind == fits::ReadingKind::dial;
    check(!read.ok || difference || read.shown + read.pins > 0);
  }
}

void announced(std::string_view text, bool comma) {
  const auto read = allowance::check_announced(std::string(text), 1.5, comma ? Unit::inch : Unit::mm, comma);
  check(read.ok ? std::isfinite(read.total) : !read.message.empty());
}

void other(std::string_view text) {
  std::string why;
  const auto coefficient = chains::parse_coefficient(std::string(text), &why);
  check(coefficient ? std::isfinite(*coefficient) : !why.empty());
  const auto thread = threads::find(text);
  check(thread.thread != nullptr || !thread.message.empty());
  const auto line = one_line(text, 40);
  check(line.find('\n') == std::string::npos && line.size() <= 4 * 40 + 3);
  check(is_utf8(line));
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  if (size == 0) return 0;
  const std::string_view text(reinterpret_cast<const char*>(data) + 1, size - 1);
  const bool comma = (data[0] & 8) != 0;
  switch (data[0] & 7) {
  case 0:
    length(text, comma);
    break;
  case 1:
    angle(text, comma);
    break;
  case 2:
    limits(text, comma);
    break;
  case 3:
    dimension(text, comma);
    break;
  case 4:
    direction(text);
    break;
  case 5:
    reading(text, comma);
    break;
  case 6:
    announced(text, comma);
    break;
  default:
    other(text);
  }
  return 0;
}
