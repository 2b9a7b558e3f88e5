#include "cutting/chain_holes.h"

#include "quantity/refused.h"

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
    return refused_as<ChainHoles>(
        "an outline has three corners at least; the drill is above 0, web and what is left not below");
  }
  ClipperLib::Path outline;
  for (const auto& at : in.outline)
    outline.emplace_back(std::llround(at.x() * whole), std::llround(at.y() * whole));
  ClipperLib::Paths simple;
  ClipperLib::SimplifyPolygon(outline, simple, ClipperLib::pftEvenOdd);
  if (simple.size() != 1) {
    return refused_as<ChainHoles>("the outline crosses itself, or has no area");
  }
  ClipperLib::ClipperOffset inwards(2, 0.005 * whole); // corners that go in are rounded to 5 thousandths
  inwards.AddPath(simple.front(), ClipperLib::jtRound, ClipperLib::etClosedPolygon);
  ClipperLib::Paths inner;
  inwards.Execute(inner, -(in.drill / 2 + in.leave) * whole);
  if (inner.empty()) {
    return refused_as<ChainHoles>("the drill does not go in: take a smaller one, or leave less");
  }
  if (inner.size() > 1) {
    return refused_as<ChainHoles>(
        "somewhere the outline is narrower than the drill: do its parts one by one");
  }
  std::vector<Vec2> line;
  for (const auto& at : inner.front())
    line.emplace_back(static_cast<double>(at.X) / whole, static_cast<double>(at.Y) / whole);
  line.push_back(line.front());
  for (std::size_t k = 0; k + 1 < line.size(); ++k) out.length += (line[k + 1] - line[k]).norm();
  const double pitch = in.drill + in.web;
  const auto count = static_cast<std::size_t>(std::floor(out.length / pitch + 1e-9));
  if (count < 3) {
    return refused_as<ChainHoles>("there is no room for three holes: one drill of its own will do");
  }
  if (count > most_holes) {
    return refused_as<ChainHoles>("more than 2000 holes: is the unit right?");
  }
  for (std::size_t k = 0; k < count; ++k)
    out.holes.push_back(place_on(line, out.length * static_cast<double>(k) / static_cast<double>(count)));
  out.web = in.drill;
  for (std::size_t k = 0; k < count; ++k)
    out.web = std::min(out.web, (out.holes[(k + 1) % count] - out.holes[k]).norm() - in.drill);
  out.status = ChainHolesStatus::found;
  return out;
}

} // namespace datrin::cutting
