#include "casting/jacks.h"

#include "quantity/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

namespace {

constexpr std::size_t many = 60; // of more touches only the outermost are tried: no triangle is wider
constexpr int outermost_ways = 48;

using Triangle = std::array<Vec2, 3>;

double cross2(const Vec2& a, const Vec2& b) {
  return a.x() * b.y() - a.y() * b.x();
}

bool inside(const Vec2& p, const Triangle& t) {
  const double a = cross2(t[1] - t[0], p - t[0]), b = cross2(t[2] - t[1], p - t[1]),
               c = cross2(t[0] - t[2], p - t[2]);
  return (a >= 0 && b >= 0 && c >= 0) || (a <= 0 && b <= 0 && c <= 0);
}

double twice_area(const Triangle& t) {
  return std::abs(cross2(t[1] - t[0], t[2] - t[0]));
}

/// The touches as seen from above, and the middle of them all.
struct SeenFromAbove {
  std::vector<Vec2> at;
  Vec2 centre = Vec2::Zero();

  explicit SeenFromAbove(const JackInput& in) {
    const Vec3 u = across(in.up), v = in.up.cross(u);
    for (const auto& point : in.part.points) {
      const Vec3 p = in.seat.apply(point.xyz);
      at.emplace_back(p.dot(u), p.dot(v));
      centre += at.back();
    }
    centre /= static_cast<double>(std::max<std::size_t>(1, at.size()));
  }
  const Vec2& of(int touch) const { return at[static_cast<std::size_t>(touch)]; }
  Triangle triangle(const std::array<int, 3>& touches) const {
    return {of(touches[0]), of(touches[1]), of(touches[2])};
  }
};

std::vector<int> outermost(const std::vector<int>& touches, const SeenFromAbove& seen) {
  std::vector<int> hull;
  for (int k = 0; k < outermost_ways; ++k) {
    const double angle = 2 * pi * k / outermost_ways;
    const Vec2 way(std::cos(angle), std::sin(angle));
    const int best = *std::max_element(touches.begin(), touches.end(), [&](int a, int b) {
      return seen.of(a).dot(way) < seen.of(b).dot(way);
    });
    if (std::find(hull.begin(), hull.end(), best) == hull.end()) hull.push_back(best);
  }
  return hull;
}

std::array<int, 3> widest_triangle(const std::vector<int>& from, const SeenFromAbove& seen) {
  std::array<int, 3> best{from[0], from[1], from[2]};
  double best_area = -1;
  bool best_inside = false;
  for (std::size_t a = 0; a < from.size(); ++a)
    for (std::size_t b = a + 1; b < from.size(); ++b)
      for (std::size_t c = b + 1; c < from.size(); ++c) {
        const std::array<int, 3> three{from[a], from[b], from[c]};
        const auto t = seen.triangle(three);
        const double area = twice_area(t);
        const bool holds = inside(seen.centre, t);
        if ((holds && !best_inside) || (holds == best_inside && area > best_area)) {
          best = three;
          best_area = area;
          best_inside = holds;
        }
      }
  return best;
}

} // namespace

std::vector<int> touches_underneath(const SeatInput& part, const Pose& seat, const Vec3& up,
                                    double underside) {
  std::vector<int> found;
  for (std::size_t i = 0; i < part.points.size(); ++i) {
    const auto& p = part.points[i];
    const auto& shape = part.surfaces[static_cast<std::size_t>(p.surface)].shape;
    if (!is_hole(shape.kind) && stock_direction(shape, seat.apply(p.xyz)).dot(up) < -underside)
      found.push_back(static_cast<int>(i));
  }
  return found;
}

JackPlaces choose_jacks(const JackInput& in, const JackOptions& options) {
  JackPlaces out;
  const SeenFromAbove seen(in);
  out.touches = in.wanted;
  if (std::any_of(in.wanted.begin(), in.wanted.end(), [](int j) { return j < 0; })) {
    auto underneath = touches_underneath(in.part, in.seat, in.up, options.underside);
    if (underneath.size() > many) underneath = outermost(underneath, seen);
    if (underneath.size() < 3) {
      out.message = fmt::format(
          "only {} of the touches are on the underside this way up; touch at least three places there, well "
          "apart, for the jacks to stand under",
          underneath.size());
      return out;
    }
    out.touches = widest_triangle(underneath, seen);
  }
  const auto t = seen.triangle(out.touches);
  const double longest = std::max({(t[1] - t[0]).norm(), (t[2] - t[1]).norm(), (t[0] - t[2]).norm()});
  if (longest < options.flat_triangle || twice_area(t) / longest < options.flat_triangle) {
    out.status = JackStatus::in_line;
    out.message = "the three jacks stand nearly in one line; choose touches further apart";
    return out;
  }
  out.stands = inside(seen.centre, t);
  out.status = JackStatus::chosen;
  return out;
}

} // namespace datrin::casting
