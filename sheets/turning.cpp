#include "sheets/turning.h"

#include "geometry/solve.h"
#include "sheets/solid_picture.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>

namespace datrin::sheets {
namespace {

constexpr int around = 36; // strips of a round surface

using Loop = std::vector<Vec3>;

class Turner {
public:
  Turner(const SceneInput& input, const ViewAxes& view, const std::optional<SectionPlane>& section)
      : in_(input), view_(view), section_(section), stated_(drawn_as_stated(input)) {}

  TurnedScene run() {
    std::vector<std::vector<Vec3>> touched(in_.surfaces.size());
    for (std::size_t i = 0; i < in_.touches.size(); ++i) {
      const auto& touch = in_.touches[i];
      if (touch.surface >= 0) touched[static_cast<std::size_t>(touch.surface)].push_back(touch.at);
      if (!section_ || section_->normal.dot(touch.at) <= section_->at)
        out_.pips.push_back({view_.on_paper(touch.at), static_cast<int>(i), touch.surface});
    }
    for (int i = 0; i < static_cast<int>(in_.surfaces.size()); ++i) {
      const auto& s = in_.surfaces[static_cast<std::size_t>(i)];
      if (s.shape.round())
        round(i, s, touched[static_cast<std::size_t>(i)]);
      else
        flat(i, s, touched[static_cast<std::size_t>(i)]);
    }
    std::stable_sort(out_.faces.begin(), out_.faces.end(),
                     [](const TurnedFace& a, const TurnedFace& b) { return a.depth < b.depth; });
    bounds_of_box();
    return std::move(out_);
  }

private:
  void bounds_of_box() {
    const auto box = bounds(in_);
    // A sphere around it: turning does not make the picture breathe.
    const Vec2 middle = view_.on_paper((box.low + box.high) / 2);
    const double radius = (box.high - box.low).norm() / 2;
    out_.low = middle - Vec2::Constant(radius);
    out_.high = middle + Vec2::Constant(radius);
  }

  void flat(int i, const SceneSurface& s, const std::vector<Vec3>& touches) {
    const auto [u, v] = patch_directions(s.shape.direction);
    Loop loop;
    if (const auto* disc = boss_behind(in_, s)) {
      for (int k = 0; k < around; ++k) {
        const double a = 2 * pi_ * k / around;
        loop.push_back(s.shape.point + disc->shape.diameter / 2 * (std::cos(a) * u + std::sin(a) * v));
      }
    } else {
      loop = corners(s.patch());
    }
    add(s.machined ? TurnedFace::Role::finished : TurnedFace::Role::cast, i, loop, s.shape.direction, 0, true,
        0);
    holes(i, s, u, v);
    if (!s.machined || touches.size() < 3) return;
    // The rough face: a plane through the touches, as far as they lean.
    Mat3 normal = Eigen::Vector3d(1e-9, 20, 20).asDiagonal();
    Eigen::Vector3d right = Eigen::Vector3d::Zero();
    for (const auto& at : touches) {
      const Vec3 d = at - s.shape.point;
      const Eigen::Vector3d row(1, d.dot(u), d.dot(v));
      normal += row * row.transpose();
      right += row * d.dot(s.shape.direction);
    }
    const Eigen::Vector3d fit = least_norm(normal, right);
    Loop rough;
    for (const auto& at : loop) {
      const Vec3 d = at - s.shape.point;
      rough.push_back(at + s.shape.direction * (fit[0] + fit[1] * d.dot(u) + fit[2] * d.dot(v)));
    }
    add(TurnedFace::Role::rough, i, rough, s.shape.direction, fit[0], true, 0.5);
    if (s.shape.direction.dot(view_.toward) > 0.2 && !rough.empty()) {
      Vec3 middle = Vec3::Zero();
      for (const auto& at : rough) middle += at / static_cast<double>(rough.size());
      if (!section_ || section_->normal.dot(middle) <= section_->at)
        out_.figures.push_back({view_.on_paper(middle), fit[0], i});
    }
  }

  /// Bores that come out at a face.
  void holes(int i, const SceneSurface& face, const Vec3& u, const Vec3& v) {
    for (const auto& s : in_.surfaces) {
      if (!is_hole(s.shape.kind) || s.shape.direction.cross(face.shape.direction).norm() > 1e-6) continue;
      const double along = face.shape.direction.dot(s.shape.point - face.shape.point);
      if (std::abs(std::abs(along) - s.height / 2) > 1.0) continue;
      const Vec3 centre = s.shape.point - face.shape.direction * along;
      if (!reaches(face.patch(), centre)) continue;
      const double radius = radius_at(s.shape, (centre - s.shape.point).dot(s.shape.direction));
      Loop loop;
      for (int k = 0; k < around; ++k) {
        const double a = 2 * pi_ * k / around;
        loop.push_back(centre + radius * (std::cos(a) * u + std::sin(a) * v));
      }
      if (face.shape.direction.dot(view_.toward) > 1e-9)
        add(TurnedFace::Role::hole, i, loop, face.shape.direction, 0, true, 0.05);
    }
  }

  void round(int i, const SceneSurface& s, const std::vector<Vec3>& touches) {
    const Vec3 a = s.shape.direction, u = across(a), v = a.cross(u);
    const auto role = s.machined ? TurnedFace::Role::finished : TurnedFace::Role::cast;
    strips(role, i, s.shape, s.height, 0);
    if (touches.size() < 3) return;
    // Touches on a cone are brought to its size at `point`, as if it were a cylinder.
    std::vector<Vec2> flat_touches;
    for (const auto& at : touches) {
      const Vec3 d = at - s.shape.point;
      const Vec2 out(d.dot(u), d.dot(v));
      const double wider = radius_at(s.shape, d.dot(a)) - s.shape.diameter / 2;
      flat_touches.push_back(out * (1 - wider / std::max(1e-9, out.norm())));
    }
    const auto circle = fit_circle(flat_touches);
    if (!circle || circle->radius > 2 * s.shape.diameter) return;
    const double stock = stock_of_size(s.shape, 2 * circle->radius).value_or(0);
    if (!s.machined) return;
    Surface rough = s.shape;
    rough.point += u * circle->centre.x() + v * circle->centre.y();
    rough.diameter = 2 * circle->radius;
    strips(TurnedFace::Role::rough, i, rough, s.height, stock);
    const double sign = a.dot(view_.toward) > 0 ? 1 : -1;
    const Vec3 end = s.shape.point + a * (sign * s.height / 2);
    if (std::abs(a.dot(view_.toward)) > 0.2 && (!section_ || section_->normal.dot(end) <= section_->at))
      out_.figures.push_back({view_.on_paper(end), stock, i});
  }

  void strips(TurnedFace::Role role, int i, const Surface& shape, double length, double stock) {
    const Chart chart(shape);
    const double half = length / 2;
    for (int k = 0; k < around; ++k) {
      const double from = 2 * pi_ * k / around, to = 2 * pi_ * (k + 1) / around;
      const Vec3 out = stock_direction(shape, chart.place({(from + to) / 2, 0}));
      add(role, i,
          {chart.place({from, -half}), chart.place({to, -half}), chart.place({to, half}),
           chart.place({from, half})},
          out, stock, false, 0);
    }
  }

  /// Cuts a loop, notes where the section meets it, and puts what is left among the faces. Faces that look
  /// away are left out where the metal hides them; with a section, or of a rough surface, they may be seen.
  void add(TurnedFace::Role role, int i, Loop loop, const Vec3& out, double stock, bool edge, double nearer) {
    if (role != TurnedFace::Role::rough && !stated_[static_cast<std::size_t>(i)])
      return; // the solid is drawn there
    if (section_) loop = cut(loop, role);
    if (loop.size() < 3) return;
    const double facing = out.dot(view_.toward);
    // A drawing need not be closed: of a plane the back may show.
    const bool plane = !in_.surfaces[static_cast<std::size_t>(i)].shape.round();
    if (facing < 0 && !section_ && !plane) return;
    if (facing < 0 && role == TurnedFace::Role::rough) return;
    TurnedFace face;
    face.role = role;
    face.surface = i;
    face.stock = stock;
    face.edge = edge;
    Vec3 middle = Vec3::Zero();
    for (const auto& at : loop) {
      face.outline.push_back(view_.on_paper(at));
      middle += at / static_cast<double>(loop.size());
    }
    const Vec3 light = (view_.toward + 0.6 * view_.up - 0.5 * view_.right).normalized();
    face.light = std::clamp(facing < 0 ? 0.12 : 0.25 + 0.75 * out.dot(light), 0.1, 1.0);
    face.depth = middle.dot(view_.toward) + nearer + (facing < 0 ? -0.01 : 0);
    out_.faces.push_back(std::move(face));
  }

  Loop cut(const Loop& loop, TurnedFace::Role role) {
    Loop kept;
    std::vector<Vec3> met;
    for (std::size_t k = 0; k < loop.size(); ++k) {
      const Vec3 &p = loop[k], &q = loop[(k + 1) % loop.size()];
      const double a = section_->normal.dot(p) - section_->at, b = section_->normal.dot(q) - section_->at;
      if (a <= 0) kept.push_back(p);
      if ((a < 0 && b > 0) || (a > 0 && b < 0)) {
        const Vec3 at = p + (q - p) * (a / (a - b));
        kept.push_back(at);
        met.push_back(at);
      }
    }
    if (met.size() == 2 && role != TurnedFace::Role::hole)
      (role == TurnedFace::Role::rough ? out_.cut_rough : out_.cut)
          .emplace_back(view_.on_paper(met[0]), view_.on_paper(met[1]));
    return kept;
  }

  static constexpr double pi_ = 3.14159265358979323846;
  const SceneInput& in_;
  const ViewAxes& view_;
  std::optional<SectionPlane> section_;
  std::vector<bool> stated_;
  TurnedScene out_;
};

} // namespace

ViewAxes turned_axes(double yaw, double pitch) {
  const Vec3 toward(std::sin(yaw) * std::cos(pitch), -std::cos(yaw) * std::cos(pitch), std::sin(pitch));
  const Vec3 right(std::cos(yaw), std::sin(yaw), 0);
  return {right, toward.cross(right), toward};
}

TurnedScene make_turned(const SceneInput& input, const ViewAxes& view,
                        const std::optional<SectionPlane>& section) {
  return Turner(input, view, section).run();
}

} // namespace datrin::sheets
