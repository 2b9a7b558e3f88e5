#include "build/now.h"

#include <fmt/chrono.h>

#include <array>
#include <charconv>
#include <chrono>
#include <ctime>

namespace datrin::build {

namespace {

/// "2026-03-01T14:05:09Z", as utc_now writes it.
std::optional<std::chrono::sys_seconds> time_of(const std::string& text) {
  constexpr std::array<std::size_t, 6> starts{0, 5, 8, 11, 14, 17};
  constexpr std::size_t whole = 20;
  if (text.size() != whole) return std::nullopt;
  std::array<int, starts.size()> part{};
  for (std::size_t k = 0; k < starts.size(); ++k) {
    const char* from = text.data() + starts[k];
    const char* to = from + (k == 0 ? 4 : 2);
    if (const auto read = std::from_chars(from, to, part[k]); read.ptr != to || read.ec != std::errc())
      return std::nullopt;
  }
  const std::chrono::year_month_day day{std::chrono::year(part[0]),
                                        std::chrono::month(static_cast<unsigned>(part[1])),
                                        std::chrono::day(static_cast<unsigned>(part[2]))};
  if (!day.ok()) return std::nullopt;
  return std::chrono::sys_days(day) + std::chrono::hours(part[3]) + std::chrono::minutes(part[4]) +
         std::chrono::seconds(part[5]);
}

} // namespace

std::string utc_now() {
  return fmt::format("{:%Y-%m-%dT%H:%M:%SZ}", fmt::gmtime(std::time(nullptr)));
}

std::optional<double> hours_between(const std::string& from, const std::string& to) {
  const auto a = time_of(from), b = time_of(to);
  if (!a || !b) return std::nullopt;
  return std::chrono::duration<double, std::ratio<3600>>(*b - *a).count();
}

} // namespace datrin::build
