#include "dividing/indexing.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numeric>

namespace datrin::dividing {

namespace {

constexpr int most_divisions = 100000, most_holes = 1000, most_worm = 1000;
constexpr std::size_t most_circles = 60, most_wheels = 30; // what a search over pairs of them bears

double error_of(const IndexingInput& in, double crank_turns) {
  const double error = (crank_turns - static_cast<double>(in.worm) / in.divisions) * 360 / in.worm;
  return std::abs(error) < 1e-12 ? 0 : error;
}

/// On one circle: exact on the largest there is (it steps surest), else the nearest.
IndexingStep on_one_circle(const IndexingInput& in) {
  IndexingStep best;
  best.turns = in.worm / in.divisions;
  const std::int64_t rest = in.worm % in.divisions; // of `divisions`
  if (rest == 0) return best;
  bool any = false;
  for (const int circle : in.plates) {
    IndexingStep step;
    step.turns = in.worm / in.divisions;
    step.circle = circle;
    step.holes = static_cast<int>((rest * circle * 2 + in.divisions) / (2 * in.divisions)); // rounded
    const bool exact = rest * circle % in.divisions == 0;
    if (step.holes == circle) ++step.turns, step.holes = 0;
    step.error = exact ? 0 : error_of(in, step.turns + static_cast<double>(step.holes) / circle);
    const bool better = !any || std::abs(step.error) < std::abs(best.error) ||
                        (std::abs(step.error) == std::abs(best.error) && circle > best.circle);
    if (better) best = step;
    any = true;
  }
  return best;
}

/// rest / divisions = a / A ± b / B, in whole holes: the fewest holes together.
std::optional<IndexingStep> on_two_circles(const IndexingInput& in) {
  const std::int64_t rest = in.worm % in.divisions, n = in.divisions;
  std::optional<IndexingStep> best;
  int fewest = 1 << 30;
  for (std::size_t i = 0; i < in.plates.size(); ++i)
    for (std::size_t j = i + 1; j < in.plates.size(); ++j) {
      if (!in.plate_of.empty() && in.plate_of[i] != in.plate_of[j])
        continue; // one plate is on the head at a time
      const std::int64_t a_circle = in.plates[i], b_circle = in.plates[j];
      for (std::int64_t a = -a_circle + 1; a < a_circle; ++a) {
        // b / B = rest / n − a / A
        const std::int64_t top = (rest * a_circle - a * n) * b_circle, bottom = n * a_circle;
        if (top % bottom != 0) continue;
        const std::int64_t b = top / bottom;
        if (std::abs(b) >= b_circle || a == 0 || b == 0) continue;
        const int holes = static_cast<int>(std::abs(a) + std::abs(b));
        if (holes >= fewest) continue;
        fewest = holes;
        IndexingStep step;
        step.turns = in.worm / in.divisions;
        const bool a_first = a > 0;
        step.holes = static_cast<int>(a_first ? a : b);
        step.circle = static_cast<int>(a_first ? a_circle : b_circle);
        step.holes_b = static_cast<int>(a_first ? b : a);
        step.circle_b = static_cast<int>(a_first ? b_circle : a_circle);
        best = step;
      }
    }
  return best;
}

/// Wheels whose ratio is top / bottom, two or four, each used once.
bool wheels_for(std::int64_t top, std::int64_t bottom, const std::vector<int>& wheels, Differential& out) {
  for (std::size_t i = 0; i < wheels.size(); ++i)
    for (std::size_t j = 0; j < wheels.size(); ++j)
      if (i != j && wheels[i] * bottom == wheels[j] * top) {
        out.driver = wheels[i];
        out.driven = wheels[j];
        return true;
      }
  for (std::size_t i = 0; i < wheels.size(); ++i)
    for (std::size_t j = i + 1; j < wheels.size(); ++j)
      for (std::size_t k = 0; k < wheels.size(); ++k)
        for (std::size_t l = k + 1; l < wheels.size(); ++l) {
          if (k == i || k == j || l == i || l == j) continue;
          if (static_cast<std::int64_t>(wheels[i]) * wheels[j] * bottom !=
              static_cast<std::int64_t>(wheels[k]) * wheels[l] * top)
            continue;
          out.driver = wheels[i];
          out.driven = wheels[k];
          out.driver_b = wheels[j];
          out.driven_b = wheels[l];
          return true;
        }
  return false;
}

/// Indexed for m divisions the crank makes worm / m; n wanted: over a turn of the work the plate must turn by
/// worm · (m − n) / m (with the crank where m > n). Any textbook of milling.
std::optional<Differential> by_differential(const IndexingInput& in) {
  if (in.wheels.size() < 2) return std::nullopt;
  for (int by = 1; by <= 10; ++by)
    for (const int sign : {1, -1}) {
      IndexingInput near = in;
      near.divisions = in.divisions + sign * by;
      if (near.divisions < 2) continue;
      Differential out;
      out.near_divisions = near.divisions;
      out.step = on_one_circle(near);
      if (out.step.error != 0) continue;
      out.with_crank = sign > 0;
      const std::int64_t top = static_cast<std::int64_t>(in.worm) * by, bottom = near.divisions;
      const auto common = std::gcd(top, bottom);
      if (wheels_for(top / common, bottom / common, in.wheels, out)) return out;
    }
  return std::nullopt;
}

} // namespace

Indexing indexing(const IndexingInput& in) {
  Indexing out;
  out.status = IndexingStatus::refused;
  const auto in_range = [](int n, int most) { return n >= 1 && n <= most; };
  if (!in_range(in.divisions, most_divisions)) {
    out.message = "divisions: a whole number from 1 to 100000";
    return out;
  }
  if (!in_range(in.worm, most_worm)) {
    out.message = "worm: a whole number from 1 to 1000";
    return out;
  }
  if (in.plates.size() > most_circles || in.wheels.size() > most_wheels) {
    out.message = "at most 60 circles and 30 change wheels";
    return out;
  }
  for (const int circle : in.plates)
    if (!in_range(circle, most_holes)) {
      out.message = "plates: whole numbers from 1 to 1000";
      return out;
    }
  if (!in.plate_of.empty() && in.plate_of.size() != in.plates.size()) {
    out.message = "plates: each circle is on one";
    return out;
  }
  if (in.plates.empty() && in.worm % in.divisions != 0) {
    out.message = "plates: say which circles there are";
    return out;
  }
  out.status = IndexingStatus::found;
  out.best = on_one_circle(in);
  if (!out.exact()) {
    out.compound = on_two_circles(in);
    out.differential = by_differential(in);
  }
  return out;
}

} // namespace datrin::dividing
