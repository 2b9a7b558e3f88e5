#include "cutting/chain_holes.h"

#include <polyclipping/clipper.hpp>

#include <algorithm>
#include <cmath>

namespace datrin::cutting {

namespace {

/// Clipper reckons in whole numbers: millionths of a millimetre.
constexpr double whole = 1e6;

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
  const bool real =
      std::all_of(in.outline.begin(), in.outline.end(), [](const Vec2& at) { return at.allFinite(); });
  if (!real || in.outline.size() < 3 || !(in.drill > 0) || !(in.web >= 0) || !(in.leave >= 0)) {
    out.wrong = "an outline has three corners at least; the drill is above 0, web and what is left not below";
    return out;
  }
  ClipperLib::Path outline;
  for (const auto& at : in.outline)
    outline.emplace_back(std::llround(at.x() * whole), std::llround(at.y() * whole));
  ClipperLib::Paths simple;
  ClipperLib::SimplifyPolygon(outline, simple, ClipperLib::pftEvenOdd);
  if (simple.size() != 1) {
    out.wrong = "the outline crosses itself, or has no area";
    return out;
  }
  ClipperLib::ClipperOffset inwards(2, 0.005 * whole); // corners that go in are rounded to 5 thousandths
  inwards.AddPath(simple.front(), ClipperLib::jtRound, ClipperLib::etClosedPolygon);
  ClipperLib::Paths inner;
  inwards.Execute(inner, -(in.drill / 2 + in.leave) * whole);
  if (inner.empty()) {
    out.wrong = "the drill does not go in: take a smaller one, or leave less";
    return out;
  }
  if (inner.size() > 1) {
    out.wrong = "somewhere the outline is narrower than the drill: do its parts one by one";
    return out;
  }
  std::vector<Vec2> line;
  for (const auto& at : inner.front())
    line.emplace_back(static_cast<double>(at.X) / whole, static_cast<double>(at.Y) / whole);
  line.push_back(line.front());
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
