#include "cutting/chain_holes.h"

#if defined(__GNUC__) && !defined(__clang__)
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wmaybe-uninitialized" // wrongly, of a box it fills in
#endif
#include <boost/geometry/algorithms/append.hpp>
#include <boost/geometry/algorithms/buffer.hpp>
#include <boost/geometry/algorithms/correct.hpp>
#include <boost/geometry/algorithms/is_valid.hpp>
#include <boost/geometry/geometries/multi_polygon.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>
#include <boost/geometry/strategies/strategies.hpp>
#if defined(__GNUC__) && !defined(__clang__)
#pragma GCC diagnostic pop
#endif

#include <algorithm>
#include <cmath>

namespace datrin::cutting {

namespace bg = boost::geometry;

namespace {

using Point = bg::model::d2::point_xy<double>;
using Polygon = bg::model::polygon<Point>;

constexpr std::size_t most_holes = 2000;

/// Where `along` mm of the closed line are.
Vec2 place_on(const std::vector<Vec2>& line, double along) {
  for (std::size_t k = 0; k + 1 < line.size(); ++k) {
    const double piece = (line[k + 1] - line[k]).norm();
    if (along <= piece && piece > 0) return line[k] + along / piece * (line[k + 1] - line[k]);
    along -= piece;
  }
  return line.back();
}

} // namespace

ChainHoles chain_holes(const ChainHolesInput& in) {
  ChainHoles out;
  if (in.outline.size() < 3 || !(in.drill > 0) || !(in.web >= 0) || !(in.leave >= 0)) {
    out.wrong = "an outline has three corners at least; the drill is above 0, web and what is left not below";
    return out;
  }
  Polygon outline;
  for (const auto& at : in.outline) bg::append(outline.outer(), Point(at.x(), at.y()));
  bg::correct(outline);
  std::string why;
  if (!bg::is_valid(outline, why)) {
    out.wrong = "the outline crosses itself, or has no area";
    return out;
  }
  bg::model::multi_polygon<Polygon> inner;
  const bg::strategy::buffer::distance_symmetric<double> by(-(in.drill / 2 + in.leave));
  constexpr int round_points = 36;
  bg::buffer(outline, inner, by, bg::strategy::buffer::side_straight(),
             bg::strategy::buffer::join_round(round_points), bg::strategy::buffer::end_flat(),
             bg::strategy::buffer::point_circle(round_points));
  if (inner.empty()) {
    out.wrong = "the drill does not go in: take a smaller one, or leave less";
    return out;
  }
  if (inner.size() > 1) {
    out.wrong = "somewhere the outline is narrower than the drill: do its parts one by one";
    return out;
  }
  std::vector<Vec2> line;
  for (const auto& at : inner.front().outer()) line.emplace_back(at.x(), at.y());
  for (std::size_t k = 0; k + 1 < line.size(); ++k) out.length += (line[k + 1] - line[k]).norm();
  const double pitch = in.drill + in.web;
  const auto count = static_cast<std::size_t>(std::ceil(out.length / pitch - 1e-9));
  if (count < 3) {
    out.wrong = "there is no room for three holes: one drill of its own will do";
    return out;
  }
  if (count > most_holes) {
    out.wrong = "more than 2000 holes: is the unit right?";
    return out;
  }
  for (std::size_t k = 0; k < count; ++k)
    out.holes.push_back(place_on(line, out.length * static_cast<double>(k) / static_cast<double>(count)));
  out.web = in.drill;
  for (std::size_t k = 0; k < count; ++k)
    out.web = std::min(out.web, (out.holes[(k + 1) % count] - out.holes[k]).norm() - in.drill);
  return out;
}

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
