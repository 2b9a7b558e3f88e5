#include "sheets/scene.h"

#include "sheets/solid_picture.h"

#include "quantity/unit.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

namespace datrin::sheets {
namespace {

constexpr double edge_on =
    0.02; // |cosine| below which a plane is seen as a line, or an axis lies in the paper
constexpr double end_on = 0.999; // |cosine| above which an axis points at the eye
constexpr int circle_points = 96;

std::vector<Vec2> circle(const Vec2& centre, double radius) {
  std::vector<Vec2> loop;
  for (int k = 0; k < circle_points; ++k) {
    const double angle = 2 * pi * k / circle_points;
    loop.push_back(centre + radius * Vec2(std::cos(angle), std::sin(angle)));
  }
  return loop;
}

/// A plane seen as a line, with the rough line fitted through its touches: stock at the two ends.
struct Edge {
  int surface = -1;
  Vec2 from = Vec2::Zero(), to = Vec2::Zero(); ///< finished
  Vec2 normal = Vec2::UnitY();                 ///< on the paper, out of the metal
  bool touched = false;
  Vec2 rough_from = Vec2::Zero(), rough_to = Vec2::Zero();
};

class SceneMaker {
public:
  SceneMaker(const SceneInput& input, const ViewAxes& view)
      : in_(input), view_(view), stated_(drawn_as_stated(input)) {}

  Scene run() {
    touched_.resize(in_.surfaces.size());
    for (std::size_t i = 0; i < in_.touches.size(); ++i) {
      const auto& touch = in_.touches[i];
      const Vec2 at = view_.on_paper(touch.at);
      scene_.pips.push_back({at, static_cast<int>(i), touch.surface});
      if (touch.surface >= 0) touched_[static_cast<std::size_t>(touch.surface)].push_back(at);
    }
    if (in_.solid) scene_.paths.push_back({Role::plate, -1, covered_by(in_.solid->solid, view_), true, true});
    for (int i = 0; i < static_cast<int>(in_.surfaces.size()); ++i)
      if (stated(i)) plates(i);
    for (int i = 0; i < static_cast<int>(in_.surfaces.size()); ++i) edges(i);
    mitre();
    for (const auto& edge : edges_)
      if (edge.touched) {
        if (surface(edge.surface).machined)
          area(Role::raw, edge.surface, {{edge.from, edge.to, edge.rough_to, edge.rough_from}});
        line(Role::rough, edge.surface, edge.rough_from, edge.rough_to);
      }
    for (int i = 0; i < static_cast<int>(in_.surfaces.size()); ++i) rounds(i);
    if (in_.solid) solid_lines();
    for (const auto& edge : edges_) {
      if (!stated(edge.surface)) continue;
      if (surface(edge.surface).machined)
        line(Role::finished, edge.surface, edge.from, edge.to);
      else
        for (const auto& [from, to] : uncovered(edge)) line(Role::cast, edge.surface, from, to);
    }
    return std::move(scene_);
  }

private:
  /// Drawn as it was stated, not as a face of the solid.
  bool stated(int i) const { return stated_[static_cast<std::size_t>(i)]; }
  const SceneSurface& surface(int i) const { return in_.surfaces[static_cast<std::size_t>(i)]; }

  void line(Role role, int i, const Vec2& from, const Vec2& to) {
    scene_.paths.push_back({role, i, {{from, to}}, false});
  }
  void area(Role role, int i, std::vector<std::vector<Vec2>> loops) {
    scene_.paths.push_back({role, i, std::move(loops), true});
  }

  void plates(int i) {
    const auto& s = surface(i);
    const double facing = s.shape.direction.dot(view_.toward);
    if (!s.shape.round()) {
      if (std::abs(facing) < edge_on) return;
      std::vector<Vec2> loop;
      if (const auto* boss = boss_behind(in_, s); boss != nullptr && std::abs(facing) > end_on) {
        loop = circle(view_.on_paper(boss->shape.point), boss->shape.diameter / 2);
      } else {
        for (const auto& corner : corners(s.patch())) loop.push_back(view_.on_paper(corner));
      }
      area(Role::plate, i, {loop});
      if (std::abs(facing) < end_on) { // seen at an angle: its border is needed to see it at all
        scene_.paths.push_back({s.machined ? Role::finished : Role::cast, i, {loop}, true});
      }
      return;
    }
    if (is_hole(s.shape.kind)) return;
    const Vec2 at = view_.on_paper(s.shape.point);
    if (std::abs(facing) > end_on) {
      area(Role::plate, i, {circle(at, largest_radius(s.patch()))});
    } else {
      area(Role::plate, i, {side_outline(s)});
    }
  }

  /// The stretches of an as-cast edge that a boss seen from the side does not cover.
  std::vector<std::pair<Vec2, Vec2>> uncovered(const Edge& edge) const {
    std::vector<std::pair<double, double>> open{{0, 1}};
    for (const auto& s : in_.surfaces) {
      if (!is_outside(s.shape.kind) || std::abs(s.shape.direction.dot(view_.toward)) > 0.5) continue;
      const auto outline = side_outline(s);
      double from = 0, to = 1;
      for (std::size_t k = 0; k < 4; ++k) { // clipped by the four sides, a little inside
        const Vec2 side = outline[(k + 1) % 4] - outline[k];
        const Vec2 inward = Vec2(-side.y(), side.x()).normalized();
        const double a = inward.dot(edge.from - outline[k]) - 0.05,
                     b = inward.dot(edge.to - outline[k]) - 0.05;
        if (a < 0 && b < 0)
          to = -1;
        else if (a < 0)
          from = std::max(from, a / (a - b));
        else if (b < 0)
          to = std::min(to, a / (a - b));
      }
      if (to <= from) continue;
      std::vector<std::pair<double, double>> left;
      for (const auto& [p, q] : open) {
        if (p < from) left.emplace_back(p, std::min(q, from));
        if (q > to) left.emplace_back(std::max(p, to), q);
      }
      open = std::move(left);
    }
    std::vector<std::pair<Vec2, Vec2>> lines;
    for (const auto& [p, q] : open)
      if (q - p > 1e-6)
        lines.emplace_back(edge.from + (edge.to - edge.from) * p, edge.from + (edge.to - edge.from) * q);
    return lines;
  }

  /// A round surface seen from the side: its rectangle, or of a cone the trapezium.
  std::vector<Vec2> side_outline(const SceneSurface& s) const {
    const Vec2 at = view_.on_paper(s.shape.point);
    const Vec2 along = view_.on_paper(s.shape.direction);
    const Vec2 axis = along.normalized();
    const Vec2 side(-axis.y(), axis.x());
    const Vec2 a = along * s.height / 2;
    const Vec2 low = side * radius_at(s.shape, -s.height / 2), high = side * radius_at(s.shape, s.height / 2);
    return {at - a - low, at + a - high, at + a + high, at - a + low};
  }

  void edges(int i) {
    const auto& s = surface(i);
    if (s.shape.round() || std::abs(s.shape.direction.dot(view_.toward)) >= edge_on) return;
    const auto [u, v] = patch_directions(s.shape.direction);
    const bool width_shows = std::abs(u.dot(view_.toward)) < std::abs(v.dot(view_.toward));
    const Vec3 half = width_shows ? Vec3(u * s.width / 2) : Vec3(v * s.height / 2);
    Edge edge;
    edge.surface = i;
    edge.from = view_.on_paper(s.shape.point - half);
    edge.to = view_.on_paper(s.shape.point + half);
    edge.normal = view_.on_paper(s.shape.direction).normalized();
    const auto& touches = touched_[static_cast<std::size_t>(i)];
    const Vec2 way = edge.to - edge.from;
    const double length = way.norm();
    if (!touches.empty() && length > 1e-9) {
      // Stock along the line, fitted as a straight line through the touches; level when they do not spread.
      const Vec2 unit = way / length;
      double n = 0, st = 0, sh = 0, stt = 0, sth = 0;
      for (const auto& touch : touches) {
        const double t = (touch - edge.from).dot(unit), h = (touch - edge.from).dot(edge.normal);
        n += 1, st += t, sh += h, stt += t * t, sth += t * h;
      }
      const double spread = stt - st * st / n;
      const double slope =
          spread > 0.02 * length * length ? std::clamp((sth - st * sh / n) / spread, -0.2, 0.2) : 0.0;
      const double at_from = sh / n - slope * st / n;
      edge.touched = true;
      edge.rough_from = edge.from + edge.normal * at_from;
      edge.rough_to = edge.to + edge.normal * (at_from + slope * length);
    }
    edges_.push_back(edge);
  }

  /// Where two touched edges meet in a corner, so do their rough lines.
  void mitre() {
    for (std::size_t a = 0; a < edges_.size(); ++a)
      for (std::size_t b = a + 1; b < edges_.size(); ++b) {
        auto &p = edges_[a], &q = edges_[b];
        if (!p.touched || !q.touched) continue;
        for (auto [pf, pr] : {std::pair{&p.from, &p.rough_from}, std::pair{&p.to, &p.rough_to}})
          for (auto [qf, qr] : {std::pair{&q.from, &q.rough_from}, std::pair{&q.to, &q.rough_to}}) {
            if ((*pf - *qf).norm() > 2.0) continue;
            const auto meet = crossing(p.rough_from, p.rough_to, q.rough_from, q.rough_to);
            if (meet && (*meet - *pf).norm() < 12.0) *pr = *qr = *meet;
          }
      }
  }

  static std::optional<Vec2> crossing(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d) {
    const Vec2 p = b - a, q = c - d, r = c - a;
    const double determinant = p.x() * q.y() - p.y() * q.x();
    if (std::abs(determinant) < 1e-3 * p.norm() * q.norm()) return std::nullopt;
    return Vec2(a + p * ((r.x() * q.y() - r.y() * q.x()) / determinant));
  }

  void rounds(int i) {
    const auto& s = surface(i);
    if (!s.shape.round()) return;
    const Vec2 at = view_.on_paper(s.shape.point);
    const double radius = s.shape.diameter / 2;
    const Role role = s.machined ? Role::finished : Role::cast;
    if (std::abs(s.shape.direction.dot(view_.toward)) > end_on) {
      const auto rough =
          is_cone(s.shape.kind) ? std::nullopt : fit_circle(touched_[static_cast<std::size_t>(i)]);
      if (rough) {
        auto loop = circle(rough->centre, rough->radius);
        if (s.machined) area(Role::raw, i, {circle(at, radius), loop});
        loop.push_back(loop.front());
        scene_.paths.push_back({Role::rough, i, {loop}, true});
      }
      if (!stated(i)) return;
      for (const double end : {-s.height / 2, s.height / 2}) { // of a cone both ends show
        scene_.paths.push_back({role, i, {circle(at, radius_at(s.shape, end))}, true});
        if (!is_cone(s.shape.kind)) break;
      }
      centre_cross(i, at, radius);
      return;
    }
    if (!stated(i)) return;
    const auto outline = side_outline(s);
    if (is_hole(s.shape.kind)) {
      line(Role::hidden, i, outline[0], outline[1]);
      line(Role::hidden, i, outline[2], outline[3]);
    } else {
      scene_.paths.push_back({role, i, {outline}, true});
    }
    if (!outer_of_bore(i)) {
      const Vec2 half = (outline[1] + outline[2] - outline[0] - outline[3]) / 4,
                 beyond = half.normalized() * 4;
      line(Role::centre, i, at - half - beyond, at + half + beyond);
    }
  }

  /// The true lines: each by what it is an edge of, where that is a surface; and the centre lines of round
  /// faces.
  void solid_lines() {
    for (const auto& drawn : in_.solid->lines_in(view_)) {
      ScenePath path;
      path.loops = {drawn.at};
      switch (drawn.kind) {
      case solid::LineKind::hidden:
        path.role = Role::hidden;
        break;
      case solid::LineKind::smooth:
        path.role = Role::smooth;
        break;
      case solid::LineKind::sharp:
      case solid::LineKind::outline:
        path.role = Role::cast;
        break;
      }
      if (path.role != Role::smooth) path.surface = edge_of(drawn.at);
      if (path.role == Role::cast && path.surface >= 0 && surface(path.surface).machined)
        path.role = Role::finished;
      scene_.paths.push_back(std::move(path));
    }
    for (const auto& mark : in_.solid->solid.marks) {
      if (mark.out.dot(view_.toward) < edge_on) continue; // on the far side
      const Vec2 from = view_.on_paper(mark.from), to = view_.on_paper(mark.to);
      if ((to - from).norm() > edge_on)
        line(Role::cast, -1, from, to);
      else
        for (const Vec2& arm : {Vec2(0.8, 0.8), Vec2(0.8, -0.8)})
          line(Role::cast, -1, from - arm, from + arm); // mm
    }
    for (const auto& thread : in_.solid->solid.threads) thread_lines(thread);
    std::vector<const solid::SolidFace*> axes;
    for (const auto& face : in_.solid->solid.faces) {
      if (!face.known() || !face.shape.round()) continue;
      if (std::any_of(axes.begin(), axes.end(),
                      [&](const auto* other) { return coaxial(other->shape, face.shape); }))
        continue;
      axes.push_back(&face);
    }
    for (const auto* face : axes) centre_of(face->shape);
  }

  /// A thread as drawings have it (ISO 6410-1): from the side two thin lines, dashed where it is within the
  /// metal; looked at along its axis three quarters of a thin circle.
  void thread_lines(const solid::SolidThread& thread) {
    const Vec3 axis = (thread.to - thread.from).normalized();
    const double r = thread.diameter / 2, along = axis.dot(view_.toward);
    if (std::abs(along) > end_on) {
      if (along < 0 && !thread.through) return; // its mouth, or its end, is on the far side
      constexpr int steps = 48;
      std::vector<Vec2> loop;
      const Vec2 centre = view_.on_paper(thread.from);
      for (int k = 0; k <= steps; ++k) {
        const double turn = std::numbers::pi / 2 * (1 + 3.0 * k / steps) + 0.12; // open at the upper right
        loop.push_back(centre + r * Vec2(std::cos(turn), std::sin(turn)));
      }
      ScenePath path;
      path.role = Role::smooth;
      path.loops = {std::move(loop)};
      scene_.paths.push_back(std::move(path));
      return;
    }
    const Vec2 from = view_.on_paper(thread.from), to = view_.on_paper(thread.to);
    if ((to - from).norm() < edge_on) return;
    const Vec2 way = (to - from).normalized(), side = r * Vec2(-way.y(), way.x());
    for (const Vec2& off : {side, Vec2(-side)})
      line(thread.inside ? Role::hidden : Role::smooth, -1, from + off, to + off);
  }

  /// The centre line of all that lies about one axis.
  void centre_of(const Surface& about) {
    double low = 1e300, high = -1e300, radius = 0;
    for (const auto& face : in_.solid->solid.faces) {
      if (!face.known() || !face.shape.round() || !coaxial(face.shape, about)) continue;
      const double z = (face.shape.point - about.point).dot(about.direction);
      low = std::min(low, z - face.height / 2);
      high = std::max(high, z + face.height / 2);
      radius = std::max(radius, largest_radius(face.patch()));
    }
    constexpr double least_beyond = 2, most_beyond = 4; // mm
    const double beyond = std::clamp(0.3 * radius, least_beyond, most_beyond);
    const Vec2 at = view_.on_paper(about.point);
    if (std::abs(about.direction.dot(view_.toward)) > end_on) {
      line(Role::centre, -1, at - Vec2(radius + beyond, 0), at + Vec2(radius + beyond, 0));
      line(Role::centre, -1, at - Vec2(0, radius + beyond), at + Vec2(0, radius + beyond));
      return;
    }
    const Vec2 along = view_.on_paper(about.direction);
    if (along.norm() < edge_on) return;
    line(Role::centre, -1, at + along * low - along.normalized() * beyond,
         at + along * high + along.normalized() * beyond);
  }

  /// The surface a line of a view is an edge or outline of, machined ones first; −1: none that is stated.
  int edge_of(const std::vector<Vec2>& at) const {
    constexpr double on = 0.03; // mm
    int found = -1;
    for (int i = 0; i < static_cast<int>(in_.surfaces.size()); ++i) {
      const auto& s = surface(i);
      if (found >= 0 && !s.machined) continue;
      const double facing = std::abs(s.shape.direction.dot(view_.toward));
      const Vec2 point = view_.on_paper(s.shape.point);
      bool fits = false;
      if (!s.shape.round()) {
        if (facing >= edge_on) continue;
        const Vec2 normal = view_.on_paper(s.shape.direction).normalized();
        fits = std::all_of(at.begin(), at.end(),
                           [&](const Vec2& p) { return std::abs(normal.dot(p - point)) < on; });
        // Within its reach: two faces may lie in one plane.
        const auto [u, v] = patch_directions(s.shape.direction);
        const double half = std::abs(u.dot(view_.toward)) < 0.7 ? s.width / 2 : s.height / 2;
        const Vec2 way(-normal.y(), normal.x());
        fits = fits && std::all_of(at.begin(), at.end(),
                                   [&](const Vec2& p) { return std::abs(way.dot(p - point)) < half + on; });
      } else if (facing > end_on) {
        const double r0 = radius_at(s.shape, -s.height / 2), r1 = radius_at(s.shape, s.height / 2);
        const auto near = [&](double r) {
          return std::all_of(at.begin(), at.end(),
                             [&](const Vec2& p) { return std::abs((p - point).norm() - r) < on; });
        };
        fits = near(r0) || near(r1);
      } else if (facing < edge_on) {
        const Vec2 axis = view_.on_paper(s.shape.direction).normalized();
        const Vec2 side(-axis.y(), axis.x());
        fits = std::all_of(at.begin(), at.end(), [&](const Vec2& p) {
          const double z = axis.dot(p - point);
          return std::abs(z) < s.height / 2 + on &&
                 std::abs(std::abs(side.dot(p - point)) - radius_at(s.shape, z)) < on;
        });
      }
      if (!fits) continue;
      found = i;
      if (s.machined) return i;
    }
    return found;
  }

  /// A boss around a bore on the same axis leaves the centre lines to the bore.
  bool outer_of_bore(int i) const {
    const auto& s = surface(i);
    if (!is_outside(s.shape.kind)) return false;
    return std::any_of(in_.surfaces.begin(), in_.surfaces.end(), [&](const SceneSurface& o) {
      return is_hole(o.shape.kind) && coaxial(o.shape, s.shape);
    });
  }

  void centre_cross(int i, const Vec2& at, double radius) {
    if (outer_of_bore(i)) return;
    const double reach = radius + std::max(4.0, 0.3 * radius);
    line(Role::centre, i, at - Vec2(reach, 0), at + Vec2(reach, 0));
    line(Role::centre, i, at - Vec2(0, reach), at + Vec2(0, reach));
  }

  const SceneInput& in_;
  const ViewAxes& view_;
  std::vector<bool> stated_;
  Scene scene_;
  std::vector<std::vector<Vec2>> touched_;
  std::vector<Edge> edges_;
};

} // namespace

const SceneSurface* boss_behind(const SceneInput& input, const SceneSurface& face) {
  for (const auto& o : input.surfaces)
    if (is_outside(o.shape.kind) && o.shape.direction.cross(face.shape.direction).norm() < 1e-6 &&
        (o.shape.point - face.shape.point).cross(o.shape.direction).norm() < 0.01 &&
        std::abs(o.shape.diameter - face.width) < 0.02 * face.width &&
        std::abs(o.shape.diameter - face.height) < 0.02 * face.height)
      return &o;
  return nullptr;
}

ViewAxes elevation(const Vec3& up, const Vec3& eye) {
  const Vec3 toward = (eye - up * up.dot(eye)).normalized();
  return {up.cross(toward), up, toward};
}

namespace {

std::vector<Patch> patches_of(const SceneInput& input) {
  std::vector<Patch> patches;
  for (const auto& s : input.surfaces) patches.push_back(s.patch());
  return patches;
}

} // namespace

Box bounds(const SceneInput& input) {
  constexpr double empty_half = 20, least_depth = 4; // mm
  auto box = box_of(patches_of(input));
  if (input.solid) {
    box.take(input.solid->solid.box.low);
    box.take(input.solid->solid.box.high);
  }
  if (box.empty()) return {Vec3::Constant(-empty_half), Vec3::Constant(empty_half)};
  // A lone plane is flat; give the picture some depth.
  for (int k = 0; k < 3; ++k)
    if (box.high[k] - box.low[k] < least_depth) {
      const double middle = (box.high[k] + box.low[k]) / 2;
      box.low[k] = middle - least_depth / 2;
      box.high[k] = middle + least_depth / 2;
    }
  return box;
}

SceneInput with_extents(SceneInput input) {
  const auto patches = datrin::with_extents(patches_of(input));
  for (std::size_t k = 0; k < patches.size(); ++k) {
    input.surfaces[k].shape = patches[k].shape;
    input.surfaces[k].width = patches[k].width;
    input.surfaces[k].height = patches[k].height;
  }
  return input;
}

Scene make_scene(const SceneInput& input, const ViewAxes& view) {
  auto scene = SceneMaker(input, view).run();
  const auto box = bounds(input);
  bool first = true;
  for (int k = 0; k < 8; ++k) {
    const Vec2 at = view.on_paper({k & 1 ? box.low.x() : box.high.x(), k & 2 ? box.low.y() : box.high.y(),
                                   k & 4 ? box.low.z() : box.high.z()});
    scene.low = first ? at : Vec2(scene.low.cwiseMin(at));
    scene.high = first ? at : Vec2(scene.high.cwiseMax(at));
    first = false;
  }
  return scene;
}

} // namespace datrin::sheets
