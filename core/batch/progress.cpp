#include "batch/progress.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>

namespace datrin::batch {

std::optional<double> utc_seconds(const std::string& at) {
  if (at.size() < 19 || at[4] != '-' || at[7] != '-' || at[10] != 'T' || at[13] != ':' || at[16] != ':')
    return std::nullopt;
  const auto part = [&at](std::size_t from, std::size_t length) {
    return whole_from(at.substr(from, length));
  };
  const auto year = part(0, 4), month = part(5, 2), day = part(8, 2), hour = part(11, 2),
             minute = part(14, 2), second = part(17, 2);
  if (!year || !month || !day || !hour || !minute || !second) return std::nullopt;
  const std::chrono::year_month_day date{std::chrono::year(static_cast<int>(*year)),
                                         std::chrono::month(static_cast<unsigned>(*month)),
                                         std::chrono::day(static_cast<unsigned>(*day))};
  if (!date.ok()) return std::nullopt;
  const auto days = std::chrono::sys_days(date).time_since_epoch().count();
  return 86400.0 * static_cast<double>(days) + 3600.0 * static_cast<double>(*hour) +
         60.0 * static_cast<double>(*minute) + static_cast<double>(*second);
}

Progress progress(const ProgressInput& in, const ProgressOptions& options) {
  Progress out;
  out.pieces = in.pieces;
  out.rejected = in.rejected;
  out.done = static_cast<int>(in.done_at.size());
  out.open = std::max(0, in.pieces - in.rejected - out.done);
  std::vector<double> at, between;
  for (const auto& text : in.done_at)
    if (const auto seconds = utc_seconds(text)) at.push_back(*seconds);
  std::sort(at.begin(), at.end());
  for (std::size_t k = 1; k < at.size(); ++k)
    if (const double minutes = (at[k] - at[k - 1]) / 60;
        minutes > options.least_minutes && minutes <= options.most_minutes)
      between.push_back(minutes);
  if (between.size() < 2) return out;
  const auto middle = between.begin() + static_cast<std::ptrdiff_t>(between.size() / 2);
  std::nth_element(between.begin(), middle, between.end());
  out.minutes_each = *middle;
  out.minutes_left = *middle * out.open;
  return out;
}

std::string progress_words(const Progress& p) {
  auto words = fmt::format("{} of {} done", p.done, p.pieces);
  if (p.rejected > 0) words += fmt::format(", {} rejected", p.rejected);
  if (p.open == 0) return words + (p.pieces > 0 ? ". Nothing is left to do." : ".");
  if (!p.minutes_each) return words + ".";
  const auto left = static_cast<long long>(std::llround(*p.minutes_left));
  const auto each = *p.minutes_each < 1 ? std::string("less than a minute")
                                        : fmt::format("about {} min", std::llround(*p.minutes_each));
  return words + fmt::format("; {} each, {}{} min left.", each,
                             left >= 60 ? fmt::format("{} h ", left / 60) : "", left % 60);
}

} // namespace datrin::batch
