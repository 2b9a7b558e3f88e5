#include "casting/next_touch.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace datrin::casting {

namespace {

double variance_of(const std::vector<double>& values) {
  const double mean = std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
  double sum = 0;
  for (const double v : values) sum += (v - mean) * (v - mean);
  return sum / static_cast<double>(values.size() - 1);
}

constexpr std::size_t classes = 10;

/// The draws in order of their height at one net point.
void order_by(const GroupCertainty& g, std::size_t point, std::vector<std::size_t>& order) {
  const std::size_t width = g.net.size();
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    return g.draws[a * width + point] < g.draws[b * width + point];
  });
}

/// Mean variance of `value` within classes of equal height.
double left_over(const std::vector<std::size_t>& order, const std::vector<double>& value) {
  double sum = 0;
  for (std::size_t c = 0; c < classes; ++c) {
    const std::size_t from = order.size() * c / classes, to = order.size() * (c + 1) / classes;
    std::vector<double> part;
    for (std::size_t k = from; k < to; ++k) part.push_back(value[order[k]]);
    sum += variance_of(part) * static_cast<double>(part.size());
  }
  return sum / static_cast<double>(order.size());
}

} // namespace

NextTouchResult next_touches(const SeatMargins& margins, const CertaintyResult& drawn,
                             const NextTouchOptions& options) {
  NextTouchResult out;
  if (!drawn.usable() || drawn.least.size() < 10 * classes) {
    out.message = drawn.usable() ? "too few draws to tell" : drawn.message;
    return out;
  }
  std::vector<double> rest = drawn.least; // what is not explained yet
  const double first = variance_of(rest);
  out.spread = 2 * std::sqrt(first);
  std::vector<std::size_t> order(rest.size());
  double now = first;
  for (int n = 0; n < options.count && now > 0; ++n) {
    double best = now;
    const GroupCertainty* from = nullptr;
    std::size_t at = 0;
    for (const auto& g : drawn.groups) {
      // A surface that is never the thinnest has nothing to tell.
      if (!g.known || g.draws.empty()) continue;
      const bool ever = [&] {
        for (std::size_t k = 0; k < drawn.least.size(); ++k)
          if (g.least[k] <= drawn.least[k]) return true;
        return false;
      }();
      if (!ever) continue;
      for (std::size_t i = 0; i < g.net.size(); ++i) {
        const bool taken = std::any_of(out.touches.begin(), out.touches.end(), [&](const TouchAdvice& t) {
          return t.group == g.group && (t.at - g.net[i]).norm() < 2;
        });
        if (taken) continue;
        order_by(g, i, order);
        const double left = left_over(order, rest);
        if (left < best) {
          best = left;
          from = &g;
          at = i;
        }
      }
    }
    if (from == nullptr) break;
    order_by(*from, at, order);
    for (std::size_t c = 0; c < classes; ++c) {
      const std::size_t lo = order.size() * c / classes, hi = order.size() * (c + 1) / classes;
      double mean = 0;
      for (std::size_t k = lo; k < hi; ++k) mean += rest[order[k]] / static_cast<double>(hi - lo);
      for (std::size_t k = lo; k < hi; ++k) rest[order[k]] -= mean;
    }
    out.touches.push_back({from->group, margins.groups[static_cast<std::size_t>(from->group)].surface,
                           from->net[at], (now - best) / first});
    now = best;
  }
  out.spread_after = 2 * std::sqrt(now);
  out.known = true;
  const double gain = 1 - now / first;
  const auto mm = [&options](double v) { return length_text(v, options.unit, {.show_unit = true}); };
  if (out.spread <= options.fine_enough) {
    out.message = fmt::format("More touching no longer pays: the least room is known to \u00B1{} already.",
                              mm(out.spread));
  } else if (out.touches.empty() || gain < options.worth) {
    out.message =
        fmt::format("More touching no longer pays: three more would take \u00B1{} to \u00B1{} only.",
                    mm(out.spread), mm(out.spread_after));
  } else {
    out.pays = true;
    out.message = fmt::format("These narrow the least room from \u00B1{} to about \u00B1{}.", mm(out.spread),
                              mm(out.spread_after));
  }
  return out;
}

} // namespace datrin::casting
