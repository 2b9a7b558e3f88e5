#include "geometry/direction_text.h"

#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

namespace datrin {

std::optional<Vec3> parse_direction(std::string_view typed) {
  std::string text(trimmed(typed));
  for (std::size_t at = text.find("\u2212"); at != std::string::npos; at = text.find("\u2212"))
    text.replace(at, 3, "-");
  text = lower_case(text);
  double sign = 1;
  std::string_view rest = text;
  if (rest.starts_with('+') || rest.starts_with('-')) {
    sign = rest.front() == '-' ? -1 : 1;
    if (rest.size() == 2) rest.remove_prefix(1);
  }
  if (rest.size() == 1 && rest[0] >= 'x' && rest[0] <= 'z') return Vec3(sign * Vec3::Unit(rest[0] - 'x'));

  Vec3 direction = Vec3::Zero();
  int count = 0;
  rest = text;
  while (!rest.empty()) {
    const auto skip = rest.find_first_not_of(" ,;\t");
    if (skip == std::string_view::npos) break;
    rest.remove_prefix(skip);
    if (rest.starts_with('+')) rest.remove_prefix(1);
    double value = 0;
    const auto [end, error] = std::from_chars(rest.data(), rest.data() + rest.size(), value);
    if (error != std::errc{} || count == 3 || !std::isfinite(value)) return std::nullopt;
    direction[count++] = value;
    rest.remove_prefix(static_cast<std::size_t>(end - rest.data()));
  }
  if (count != 3 || !(direction.norm() > 1e-12) || !std::isfinite(direction.norm())) return std::nullopt;
  return Vec3(direction.normalized());
}

std::string direction_text(const Vec3& direction) {
  for (int k = 0; k < 3; ++k)
    if (std::abs(std::abs(direction[k]) - 1) < 1e-9)
      return (direction[k] > 0 ? "+" : "\u2212") + std::string(1, "xyz"[k]);
  return fmt::format("{} {} {}", number_text(direction.x(), 4), number_text(direction.y(), 4),
                     number_text(direction.z(), 4));
}

} // namespace datrin
