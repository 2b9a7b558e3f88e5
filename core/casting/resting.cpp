#include "casting/resting.h"

#include "geometry/best_fit.h"
#include "quantity/length_text.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace datrin::casting {

namespace {

double turn(const Vec2& a, const Vec2& b, const Vec2& c) {
  return (b.x() - a.x()) * (c.y() - a.y()) - (b.y() - a.y()) * (c.x() - a.x());
}

/// Touches on paper: x, y across the face, z up (so that the lowest are stood on).
struct Hull {
  std::vector<Vec3> p;

  Vec2 flat(int i) const { return p[static_cast<std::size_t>(i)].head<2>(); }

  /// The point that a plane hinged on the edge a→b meets first on the left of it, coming from below; −1: none
  /// there.
  int pivot(int a, int b) const {
    int best = -1;
    for (int c = 0; c < static_cast<int>(p.size()); ++c) {
      if (c == a || c == b || turn(flat(a), flat(b), flat(c)) <= 1e-9) continue;
      if (best < 0) {
        best = c;
        continue;
      }
      // c is under the plane a, b, best?
      const Vec3 n = (p[static_cast<std::size_t>(b)] - p[static_cast<std::size_t>(a)])
                         .cross(p[static_cast<std::size_t>(best)] - p[static_cast<std::size_t>(a)]);
      if (n.dot(p[static_cast<std::size_t>(c)] - p[static_cast<std::size_t>(a)]) < 0) best = c;
    }
    return best;
  }

  /// An edge of the outline seen from above: everything lies on its left, and from there the hinged plane
  /// finds its first facet. The second is −1 where all lies on one point.
  std::pair<int, int> outline_edge() const {
    int a = 0;
    for (int i = 1; i < static_cast<int>(p.size()); ++i)
      if (p[static_cast<std::size_t>(i)].x() < p[static_cast<std::size_t>(a)].x() ||
          (p[static_cast<std::size_t>(i)].x() == p[static_cast<std::size_t>(a)].x() &&
           flat(i).y() < flat(a).y()))
        a = i;
    int b = -1;
    for (int i = 0; i < static_cast<int>(p.size()); ++i) {
      if (i == a || (flat(i) - flat(a)).norm() < 1e-9) continue;
      if (b < 0 || turn(flat(a), flat(b), flat(i)) < 0 ||
          (turn(flat(a), flat(b), flat(i)) == 0 && (flat(i) - flat(a)).norm() < (flat(b) - flat(a)).norm()))
        b = i;
    }
    return {a, b};
  }
};

/// What keeps a part that stands so from rocking, in words.
std::string cure_for(const RestingResult& out, const RestingOptions& options) {
  const auto figure = [&](double mm) {
    return length_text(mm, options.unit, {.decimals_mm = 2, .decimals_inch = 3, .show_unit = true});
  };
  if (out.falls)
    return "Its weight hangs out beyond what it stands on: it does not stand by itself; a jack is needed "
           "under the overhanging side.";
  if (out.rock < options.rock_that_matters)
    return fmt::format("It stands without rocking worth curing ({} at most).", figure(out.rock));
  const auto worst = std::max_element(out.rocks.begin(), out.rocks.end(),
                                      [](const auto& x, const auto& y) { return x.gap < y.gap; });
  return fmt::format("Soft packing {} thick under touch {}, or an adjustable jack there brought up "
                     "until it just bites; clamp only over the "
                     "three points it stands on and over the packing.",
                     figure(worst->gap), worst->lands + 1);
}

} // namespace

RestingResult rest_on(const RestingInput& in, const RestingOptions& options) {
  RestingResult out;
  const auto refuse = [&](std::string why) {
    out.status = RestingStatus::refused;
    out.message = std::move(why);
    return out;
  };
  if (in.points.size() < 3) return refuse("touch at least 3 places of the face, near its corners");
  if (std::abs(in.down.norm() - 1) > 1e-6) return refuse("the direction down must be of unit length");
  const Vec3 u = across(in.down), v = Vec3(-in.down).cross(u);
  Hull hull;
  const auto on_paper = [&](const Vec3& at) { return Vec3(at.dot(u), at.dot(v), -at.dot(in.down)); };
  for (const auto& at : in.points) {
    if (!at.allFinite()) return refuse("a touch has a coordinate that is not a number");
    hull.p.push_back(on_paper(at));
  }
  const Vec3 centroid = on_paper(in.centroid);

  const auto [a, b] = hull.outline_edge();
  int c = b < 0 ? -1 : hull.pivot(a, b);
  if (c < 0) return refuse("the touches lie on one line; touch near the corners of the face");

  // It rolls downhill: over the edge that the centroid hangs out beyond, until it hangs out beyond none.
  std::array<int, 3> on{a, b, c};
  const auto normal_of = [&](const std::array<int, 3>& t) {
    return Vec3((hull.p[static_cast<std::size_t>(t[1])] - hull.p[static_cast<std::size_t>(t[0])])
                    .cross(hull.p[static_cast<std::size_t>(t[2])] - hull.p[static_cast<std::size_t>(t[0])])
                    .normalized());
  };
  const auto foot_of = [&](const std::array<int, 3>& t) {
    const Vec3 n = normal_of(t);
    return Vec3(centroid - n.dot(centroid - hull.p[static_cast<std::size_t>(t[0])]) * n);
  };
  const auto lever_of = [&](const std::array<int, 3>& t, int edge) {
    const auto& from = hull.p[static_cast<std::size_t>(t[static_cast<std::size_t>(edge)])];
    const auto& to = hull.p[static_cast<std::size_t>(t[static_cast<std::size_t>((edge + 1) % 3)])];
    const Vec3 inward = normal_of(t).cross((to - from).normalized());
    return inward.dot(foot_of(t) - from);
  };
  for (std::size_t roll = 0; roll < 4 * hull.p.size() + 8; ++roll) {
    int worst = 0;
    for (int e = 1; e < 3; ++e)
      if (lever_of(on, e) < lever_of(on, worst)) worst = e;
    if (lever_of(on, worst) >= -1e-9) break;
    const int from = on[static_cast<std::size_t>(worst)], to = on[static_cast<std::size_t>((worst + 1) % 3)];
    const int next = hull.pivot(to, from);
    if (next < 0) {
      out.falls = true;
      break;
    }
    on = {to, from, next};
  }
  out.stands_on = on;
  const Vec3 n = normal_of(on);
  out.tilt = std::acos(std::clamp(n.z(), -1.0, 1.0));
  for (int e = 0; e < 3; ++e) {
    auto& rock = out.rocks[static_cast<std::size_t>(e)];
    rock.edge = {on[static_cast<std::size_t>(e)], on[static_cast<std::size_t>((e + 1) % 3)]};
    rock.lever = lever_of(on, e);
    rock.lands = hull.pivot(rock.edge[1], rock.edge[0]);
    if (rock.lands < 0) continue;
    rock.gap = n.dot(hull.p[static_cast<std::size_t>(rock.lands)] - hull.p[static_cast<std::size_t>(on[0])]);
    const auto &p0 = hull.p[static_cast<std::size_t>(rock.edge[0])],
               &p1 = hull.p[static_cast<std::size_t>(rock.edge[1])];
    const Vec3 along = (p1 - p0).normalized(), off = hull.p[static_cast<std::size_t>(rock.lands)] - p0;
    const double reach = (off - off.dot(along) * along).norm();
    rock.angle = reach > 0 ? std::asin(std::clamp(rock.gap / reach, 0.0, 1.0)) : 0.0;
    out.rock = std::max(out.rock, rock.gap);
  }
  out.cure = cure_for(out, options);
  out.status = RestingStatus::rests;
  return out;
}

} // namespace datrin::casting
