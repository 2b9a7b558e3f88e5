#include "cutting/travel_order.h"

#include <algorithm>
#include <limits>

namespace datrin::cutting {

namespace {

using Order = std::vector<std::size_t>;

class Places {
public:
  explicit Places(const std::vector<Vec2>& at) : at_(at) {}
  std::size_t count() const { return at_.size(); }
  double far(std::size_t a, std::size_t b) const { return (at_[a] - at_[b]).norm(); }
  double from_zero(std::size_t a) const { return at_[a].norm(); }
  double travel(const Order& order) const {
    double sum = 0;
    for (std::size_t k = 0; k + 1 < order.size(); ++k) sum += far(order[k], order[k + 1]);
    return sum;
  }

private:
  const std::vector<Vec2>& at_;
};

/// Every set of places with every last one, the shortest way there (Held and Karp, 1962).
Order shortest(const Places& places) {
  const std::size_t n = places.count(), all = (std::size_t{1} << n) - 1;
  constexpr double none = std::numeric_limits<double>::infinity();
  std::vector<double> way((all + 1) * n, none);
  std::vector<std::size_t> before((all + 1) * n, n);
  for (std::size_t k = 0; k < n; ++k) way[(std::size_t{1} << k) * n + k] = 0;
  for (std::size_t set = 1; set <= all; ++set)
    for (std::size_t last = 0; last < n; ++last) {
      const double so_far = way[set * n + last];
      if (so_far == none) continue;
      for (std::size_t next = 0; next < n; ++next) {
        if (set >> next & 1) continue;
        const std::size_t with = (set | std::size_t{1} << next) * n + next;
        const double then = so_far + places.far(last, next);
        if (then >= way[with]) continue;
        way[with] = then;
        before[with] = last;
      }
    }
  std::size_t last = 0, set = all;
  for (std::size_t k = 1; k < n; ++k)
    if (way[all * n + k] < way[all * n + last]) last = k;
  Order order;
  while (last < n) {
    order.push_back(last);
    const auto from = before[set * n + last];
    set &= ~(std::size_t{1} << last);
    last = from;
  }
  return order;
}

Order nearest_next(const Places& places, std::size_t first) {
  Order order(places.count());
  for (std::size_t k = 0; k < order.size(); ++k) order[k] = k;
  std::swap(order[0], order[first]);
  for (std::size_t k = 1; k + 1 < order.size(); ++k)
    std::iter_swap(
        order.begin() + static_cast<std::ptrdiff_t>(k),
        std::min_element(order.begin() + static_cast<std::ptrdiff_t>(k), order.end(), [&](auto a, auto b) {
          return places.far(order[k - 1], a) < places.far(order[k - 1], b);
        }));
  return order;
}

/// A stretch turned round, or up to three places taken elsewhere, as long as anything becomes shorter.
void improve(const Places& places, Order& order) {
  constexpr double shorter = 1e-9;
  const auto n = static_cast<std::ptrdiff_t>(order.size());
  const auto far = [&](std::ptrdiff_t a, std::ptrdiff_t b) { // beyond either end nothing is gone
    return a < 0 || b >= n
               ? 0
               : places.far(order[static_cast<std::size_t>(a)], order[static_cast<std::size_t>(b)]);
  };
  for (bool better = true; better;) {
    better = false;
    for (std::ptrdiff_t a = 0; a < n; ++a)
      for (std::ptrdiff_t b = a + 1; b < n; ++b) {
        if (far(a - 1, b) + (b + 1 < n ? far(a, b + 1) : 0) >
            far(a - 1, a) + (b + 1 < n ? far(b, b + 1) : 0) - shorter)
          continue;
        std::reverse(order.begin() + a, order.begin() + b + 1);
        better = true;
      }
    constexpr std::ptrdiff_t most_taken = 3;
    for (std::ptrdiff_t many = 1; many <= most_taken && !better; ++many)
      for (std::ptrdiff_t from = 0; from + many <= n && !better; ++from) {
        const std::ptrdiff_t last = from + many - 1;
        const double gained = far(from - 1, from) + far(last, last + 1) -
                              (from > 0 && last + 1 < n ? far(from - 1, last + 1) : 0);
        for (std::ptrdiff_t gap = -1; gap < n && !better; ++gap) { // between `gap` and the next one
          if (gap >= from - 1 && gap <= last) continue;
          const double was = gap >= 0 && gap + 1 < n ? far(gap, gap + 1) : 0;
          for (const bool turned : {false, true}) {
            const double then = far(gap, turned ? last : from) + far(turned ? from : last, gap + 1);
            if (then - was > gained - shorter) continue;
            if (turned) std::reverse(order.begin() + from, order.begin() + last + 1);
            if (gap < from)
              std::rotate(order.begin() + gap + 1, order.begin() + from, order.begin() + last + 1);
            else
              std::rotate(order.begin() + from, order.begin() + last + 1, order.begin() + gap + 1);
            better = true;
            break;
          }
        }
      }
  }
}

} // namespace

TravelOrder travel_order(const std::vector<Vec2>& at) {
  TravelOrder out;
  const Places places(at);
  constexpr std::size_t searched = 12; // a dozen take some milliseconds, each one more twice as long
  out.shortest = at.size() <= searched;
  if (at.empty()) return out;
  if (out.shortest) {
    out.order = shortest(places);
  } else {
    std::size_t first = 0;
    for (std::size_t k = 1; k < at.size(); ++k)
      if (places.from_zero(k) < places.from_zero(first)) first = k;
    out.order = nearest_next(places, first);
    improve(places, out.order);
  }
  if (places.from_zero(out.order.back()) < places.from_zero(out.order.front()))
    std::reverse(out.order.begin(), out.order.end());
  out.travel = places.travel(out.order);
  return out;
}

} // namespace datrin::cutting
