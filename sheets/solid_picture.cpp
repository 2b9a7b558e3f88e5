#include "sheets/solid_picture.h"

#include "sheets/three_views.h"

#include <algorithm>

namespace datrin::sheets {

namespace {

Vec3 at(const solid::Mesh& mesh, std::uint32_t k) {
  const auto& p = mesh.at[k];
  return {p[0], p[1], p[2]};
}

/// Twice the area of a triangle on the paper, above 0 counter-clockwise.
double turn(const Vec2& a, const Vec2& b, const Vec2& c) {
  return (b.x() - a.x()) * (c.y() - a.y()) - (b.y() - a.y()) * (c.x() - a.x());
}

} // namespace

const std::vector<solid::DrawnLine>& SolidPicture::lines_in(const ViewAxes& axes) const {
  const std::lock_guard lock(asked_);
  for (const auto& view : views_)
    if ((view.axes.toward - axes.toward).norm() < 1e-9 && (view.axes.up - axes.up).norm() < 1e-9)
      return view.lines;
  views_.push_back({axes, solid::drawn_lines(solid, {-axes.toward, axes.up})});
  return views_.back().lines;
}

std::shared_ptr<const SolidPicture> picture_of(solid::Solid solid) {
  if (!solid.usable()) return nullptr;
  auto picture = std::make_shared<SolidPicture>(std::move(solid));
  for (const auto& axes : {view_axes(View::front, false), view_axes(View::plan, false),
                           view_axes(View::end, false), view_axes(View::end, true)})
    (void)picture->lines_in(axes);
  return picture;
}

std::vector<bool> drawn_as_stated(const SceneInput& input) {
  std::vector<bool> stated(input.surfaces.size(), true);
  if (!input.solid) return stated;
  const auto& faces = input.solid->solid.faces;
  for (std::size_t i = 0; i < stated.size(); ++i)
    stated[i] = std::none_of(faces.begin(), faces.end(), [&](const solid::SolidFace& face) {
      return face.known() && same_surface(face.shape, input.surfaces[i].shape);
    });
  return stated;
}

int face_seen(const solid::Solid& solid, const ViewAxes& axes, const Vec2& paper) {
  const auto& mesh = solid.mesh;
  double nearest = -1e300;
  int face = -1;
  for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
    const auto& [i, j, k] = mesh.triangles[t];
    const Vec3 p = at(mesh, i), q = at(mesh, j), r = at(mesh, k);
    const Vec2 a = axes.on_paper(p), b = axes.on_paper(q), c = axes.on_paper(r);
    const double all = turn(a, b, c);
    if (all <= 1e-12) continue; // looks away, or is seen as a line
    const double u = turn(b, c, paper) / all, v = turn(c, a, paper) / all, w = 1 - u - v;
    if (u < 0 || v < 0 || w < 0) continue;
    const double depth = axes.toward.dot(u * p + v * q + w * r);
    if (depth <= nearest) continue;
    nearest = depth;
    face = static_cast<int>(mesh.face[t]);
  }
  return face;
}

std::vector<std::vector<Vec2>> covered_by(const solid::Solid& solid, const ViewAxes& axes) {
  std::vector<std::vector<Vec2>> triangles;
  for (const auto& [i, j, k] : solid.mesh.triangles) {
    const Vec2 a = axes.on_paper(at(solid.mesh, i)), b = axes.on_paper(at(solid.mesh, j)),
               c = axes.on_paper(at(solid.mesh, k));
    if (turn(a, b, c) > 1e-9) triangles.push_back({a, b, c});
  }
  return triangles;
}

} // namespace datrin::sheets
