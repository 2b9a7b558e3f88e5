#include "cutting/travel_order.h"

#include <algorithm>

namespace datrin::cutting {

std::vector<std::size_t> travel_order(const std::vector<Vec2>& places, double* travel) {
  std::vector<std::size_t> order(places.size());
  for (std::size_t k = 0; k < order.size(); ++k) order[k] = k;
  const auto far = [&](std::size_t a, std::size_t b) { return (places[a] - places[b]).norm(); };
  if (!places.empty()) {
    std::iter_swap(order.begin(), std::min_element(order.begin(), order.end(), [&](auto a, auto b) {
                     return places[a].norm() < places[b].norm();
                   }));
    for (std::size_t k = 1; k + 1 < order.size(); ++k)
      std::iter_swap(
          order.begin() + static_cast<std::ptrdiff_t>(k),
          std::min_element(order.begin() + static_cast<std::ptrdiff_t>(k), order.end(),
                           [&](auto a, auto b) { return far(order[k - 1], a) < far(order[k - 1], b); }));
  }
  // Two stretches crossing: turned round between them it is shorter.
  constexpr double shorter = 1e-9;
  for (bool better = true; better;) {
    better = false;
    for (std::size_t a = 0; a + 2 < order.size(); ++a)
      for (std::size_t b = a + 1; b < order.size(); ++b) {
        const bool last = b + 1 == order.size();
        const double now = far(order[a], order[a + 1]) + (last ? 0 : far(order[b], order[b + 1]));
        const double then = far(order[a], order[b]) + (last ? 0 : far(order[a + 1], order[b + 1]));
        if (then > now - shorter) continue;
        std::reverse(order.begin() + static_cast<std::ptrdiff_t>(a + 1),
                     order.begin() + static_cast<std::ptrdiff_t>(b + 1));
        better = true;
      }
  }
  if (travel) {
    *travel = 0;
    for (std::size_t k = 0; k + 1 < order.size(); ++k) *travel += far(order[k], order[k + 1]);
  }
  return order;
}

} // namespace datrin::cutting
