#include "app/overview/map_layout.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

namespace datrin::app {

namespace {

constexpr double cell_wide = plate_wide + 34, cell_high = plate_high + 46;
constexpr double screen = 1.45; ///< width over height the map is to have

/// Parts on the cells of a grid. What it costs that two parts that mate stand where they do: how far apart,
/// and more when other plates would stand on the line between them.
class Grid {
public:
  Grid(int parts, const std::vector<MapLink>& links) : links_of_(static_cast<std::size_t>(parts)) {
    columns_ = std::max(1, static_cast<int>(std::lround(std::sqrt(parts * screen * cell_high / cell_wide))));
    rows_ = (parts + columns_ - 1) / columns_ + 1; // one row to spare: room to move
    cell_of_.resize(static_cast<std::size_t>(parts));
    for (int cell = 0; cell < columns_ * rows_; ++cell) at_.push_back({cell % columns_, cell / columns_});
    steps_.resize(at_.size());
    for (std::size_t cell = 0; cell < at_.size(); ++cell) steps_[cell] = std::gcd(at_[cell].x, at_[cell].y);
    part_at_.assign(static_cast<std::size_t>(columns_ * rows_), -1);
    for (const auto& link : links) {
      links_of_[static_cast<std::size_t>(link.a)].push_back(link.b);
      links_of_[static_cast<std::size_t>(link.b)].push_back(link.a);
    }
    begin(parts);
  }

  void settle() {
    std::mt19937 random(20); // always the same map
    const auto cells = static_cast<int>(part_at_.size());
    const int parts = static_cast<int>(cell_of_.size());
    if (parts < 2) return;
    const int tries = std::min(400000, 4000 * parts);
    std::uniform_int_distribution<int> any_part(0, parts - 1), any_cell(0, cells - 1);
    std::uniform_real_distribution<double> chance(0, 1);
    for (int k = 0; k < tries; ++k) {
      const double heat = 6.0 * std::pow(1 - static_cast<double>(k) / tries, 2) + 0.02;
      const int part = any_part(random), to = any_cell(random),
                from = cell_of_[static_cast<std::size_t>(part)];
      if (to == from) continue;
      const int other = part_at_[static_cast<std::size_t>(to)];
      const double before = cost(part) + (other >= 0 ? cost(other) : 0);
      swap(from, to);
      const double after = cost(part) + (other >= 0 ? cost(other) : 0);
      if (after > before && chance(random) > std::exp((before - after) / heat)) swap(from, to);
    }
  }

  std::vector<MapPlace> places() const {
    int top = rows_; // the empty row is cut off
    for (const int cell : cell_of_) top = std::min(top, cell / columns_);
    std::vector<MapPlace> at;
    for (const int cell : cell_of_) {
      const int column = cell % columns_, row = cell / columns_ - top;
      at.push_back({plate_wide / 2 + column * cell_wide, plate_high / 2 + row * cell_high});
    }
    return at;
  }

private:
  /// Neighbours first: breadth first from the part with the most joints.
  void begin(int parts) {
    std::vector<int> order(static_cast<std::size_t>(parts)), queue;
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
      return links_of_[static_cast<std::size_t>(a)].size() > links_of_[static_cast<std::size_t>(b)].size();
    });
    std::vector<char> seen(static_cast<std::size_t>(parts), 0);
    for (const int first : order) {
      if (seen[static_cast<std::size_t>(first)]) continue;
      seen[static_cast<std::size_t>(first)] = 1;
      queue.push_back(first);
      for (std::size_t at = queue.size() - 1; at < queue.size(); ++at)
        for (const int next : links_of_[static_cast<std::size_t>(queue[at])])
          if (!seen[static_cast<std::size_t>(next)]) {
            seen[static_cast<std::size_t>(next)] = 1;
            queue.push_back(next);
          }
    }
    for (int k = 0; k < parts; ++k) {
      const int row = k / columns_, column = row % 2 == 0 ? k % columns_ : columns_ - 1 - k % columns_;
      place(queue[static_cast<std::size_t>(k)], row * columns_ + column);
    }
  }

  void place(int part, int cell) {
    cell_of_[static_cast<std::size_t>(part)] = cell;
    part_at_[static_cast<std::size_t>(cell)] = part;
  }
  void swap(int a, int b) {
    std::swap(part_at_[static_cast<std::size_t>(a)], part_at_[static_cast<std::size_t>(b)]);
    for (const int cell : {a, b})
      if (const int part = part_at_[static_cast<std::size_t>(cell)]; part >= 0)
        cell_of_[static_cast<std::size_t>(part)] = cell;
  }

  double cost(int part) const {
    double sum = 0;
    const int cell = cell_of_[static_cast<std::size_t>(part)];
    const auto [x, y] = at_[static_cast<std::size_t>(cell)];
    for (const int other : links_of_[static_cast<std::size_t>(part)]) {
      const int to = cell_of_[static_cast<std::size_t>(other)];
      const int dx = at_[static_cast<std::size_t>(to)].x - x, dy = at_[static_cast<std::size_t>(to)].y - y;
      sum += 1.5 * dx * dx + dy * dy + 0.4 * std::abs(dx * dy);
      // Cells the line goes straight through.
      const int steps = steps_[static_cast<std::size_t>(std::abs(dy) * columns_ + std::abs(dx))];
      if (steps < 2) continue;
      const int step = dy / steps * columns_ + dx / steps;
      for (int k = 1; k < steps; ++k)
        if (part_at_[static_cast<std::size_t>(cell + k * step)] >= 0) sum += 7;
    }
    return sum;
  }

  struct Cell {
    int x = 0, y = 0;
  };
  int columns_ = 1, rows_ = 1;
  std::vector<Cell> at_;   ///< per cell
  std::vector<int> steps_; ///< per cell: equal steps of whole cells from cell 0 to it, as many as there are
  std::vector<std::vector<int>> links_of_;
  std::vector<int> cell_of_, part_at_;
};

} // namespace

std::vector<MapPlace> lay_out_map(int parts, const std::vector<MapLink>& links) {
  if (parts <= 0) return {};
  Grid grid(parts, links);
  grid.settle();
  return grid.places();
}

} // namespace datrin::app
