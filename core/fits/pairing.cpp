#include "fits/pairing.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace datrin::fits {

std::vector<int> assign_least(const std::vector<std::vector<double>>& costs) {
  const std::size_t rows = costs.size(), columns = rows == 0 ? 0 : costs.front().size();
  std::vector<int> given(rows, -1);
  if (rows == 0 || columns == 0) return given;
  if (rows > columns) { // turned over: the method wants no more rows than columns
    std::vector<std::vector<double>> turned(columns, std::vector<double>(rows));
    for (std::size_t r = 0; r < rows; ++r)
      for (std::size_t c = 0; c < columns; ++c) turned[c][r] = costs[r][c];
    const auto other = assign_least(turned);
    for (std::size_t c = 0; c < columns; ++c)
      if (other[c] >= 0) given[static_cast<std::size_t>(other[c])] = static_cast<int>(c);
    return given;
  }
  // Shortest augmenting paths with potentials u (rows) and v (columns); index 0 is the one being placed.
  constexpr double far = std::numeric_limits<double>::infinity();
  std::vector<double> u(rows + 1, 0), v(columns + 1, 0);
  std::vector<std::size_t> owner(columns + 1, 0), before(columns + 1, 0);
  for (std::size_t r = 1; r <= rows; ++r) {
    owner[0] = r;
    std::size_t at = 0;
    std::vector<double> shortest(columns + 1, far);
    std::vector<char> done(columns + 1, 0);
    do {
      done[at] = 1;
      const auto row = owner[at];
      double step = far;
      std::size_t next = 0;
      for (std::size_t c = 1; c <= columns; ++c) {
        if (done[c]) continue;
        const double length = costs[row - 1][c - 1] - u[row] - v[c];
        if (length < shortest[c]) {
          shortest[c] = length;
          before[c] = at;
        }
        if (shortest[c] < step) {
          step = shortest[c];
          next = c;
        }
      }
      for (std::size_t c = 0; c <= columns; ++c) {
        if (done[c]) {
          u[owner[c]] += step;
          v[c] -= step;
        } else {
          shortest[c] -= step;
        }
      }
      at = next;
    } while (owner[at] != 0);
    while (at != 0) {
      owner[at] = owner[before[at]];
      at = before[at];
    }
  }
  for (std::size_t c = 1; c <= columns; ++c)
    if (owner[c] != 0) given[owner[c] - 1] = static_cast<int>(c - 1);
  return given;
}

PairingResult pair_up(const PairingInput& in, PairingGoal goal) {
  PairingResult out;
  if (in.holes.empty() || in.shafts.empty()) {
    out.message = "there must be at least one measured hole and one measured shaft";
    return out;
  }
  if (in.holes.size() > 500 || in.shafts.size() > 500) {
    out.message = "at most 500 pieces of a kind are paired at once";
    return out;
  }
  const auto miss = [&](std::size_t h, std::size_t s) { return in.holes[h] - in.shafts[s] - in.target; };
  std::vector<std::vector<double>> costs(in.holes.size(), std::vector<double>(in.shafts.size()));
  std::vector<double> misses;
  for (std::size_t h = 0; h < in.holes.size(); ++h)
    for (std::size_t s = 0; s < in.shafts.size(); ++s) {
      costs[h][s] = miss(h, s) * miss(h, s);
      misses.push_back(std::abs(miss(h, s)));
    }
  if (goal == PairingGoal::worst_pair) {
    // The least cap under which everyone still finds a mate; then the best sum under that cap.
    std::sort(misses.begin(), misses.end());
    const auto most = std::min(in.holes.size(), in.shafts.size());
    const double forbidden = 1e6 * (misses.back() * misses.back() + 1);
    const auto capped = [&](double cap) {
      auto c = costs;
      for (std::size_t h = 0; h < c.size(); ++h)
        for (std::size_t s = 0; s < c[h].size(); ++s)
          if (std::abs(miss(h, s)) > cap + 1e-12) c[h][s] = forbidden;
      return c;
    };
    const auto fits = [&](double cap) {
      const auto c = capped(cap);
      const auto given = assign_least(c);
      std::size_t placed = 0;
      for (std::size_t h = 0; h < given.size(); ++h)
        if (given[h] >= 0 && c[h][static_cast<std::size_t>(given[h])] < forbidden) ++placed;
      return placed == most;
    };
    std::size_t low = 0, high = misses.size() - 1;
    while (low < high) {
      const auto middle = (low + high) / 2;
      if (fits(misses[middle]))
        high = middle;
      else
        low = middle + 1;
    }
    costs = capped(misses[low]);
  }
  const auto given = assign_least(costs);
  std::vector<char> used(in.shafts.size(), 0);
  for (std::size_t h = 0; h < given.size(); ++h) {
    if (given[h] < 0) {
      out.spare_holes.push_back({static_cast<int>(h), in.holes[h] - in.target});
      continue;
    }
    const auto s = static_cast<std::size_t>(given[h]);
    used[s] = 1;
    Pairing pair{static_cast<int>(h), given[h], in.holes[h] - in.shafts[s], miss(h, s), true};
    if (in.least != 0 || in.most != 0)
      pair.good = pair.clearance >= in.least - 1e-12 && pair.clearance <= in.most + 1e-12;
    out.worst = std::max(out.worst, std::abs(pair.miss));
    out.sum_squares += pair.miss * pair.miss;
    out.pairs.push_back(pair);
  }
  for (std::size_t s = 0; s < used.size(); ++s)
    if (!used[s]) out.spare_shafts.push_back({static_cast<int>(s), in.shafts[s] + in.target});
  out.ok = true;
  return out;
}

} // namespace datrin::fits
