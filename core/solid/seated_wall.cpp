#include "solid/seated_wall.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>

namespace datrin::solid {

namespace {

/// Where a line goes into or out of the metal.
struct Crossing {
  double at = 0;     ///< mm along it
  double facing = 0; ///< cosine of its way to the outside there: below 0 it goes in
  std::size_t face = 0;
};

/// Every crossing of the line from `from` along unit `way`, in order.
std::vector<Crossing> crossings(const Mesh& mesh, const Vec3& from, const Vec3& way) {
  std::vector<Crossing> found;
  const auto at = [&](std::uint32_t k) { return Vec3(mesh.at[k][0], mesh.at[k][1], mesh.at[k][2]); };
  for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
    const auto& [i, j, k] = mesh.triangles[t];
    const Vec3 a = at(i), ab = at(j) - a, ac = at(k) - a; // T. Möller, B. Trumbore, 1997
    const Vec3 p = way.cross(ac);
    const double det = ab.dot(p);
    const Vec3 normal = ab.cross(ac);
    const double area = normal.norm();
    if (area < 1e-12 || std::abs(det) < 1e-9 * area) continue;
    const Vec3 off = from - a;
    const double u = off.dot(p) / det;
    const Vec3 q = off.cross(ab);
    const double v = way.dot(q) / det;
    constexpr double edge = 1e-9; // met on an edge it counts for both: twice at one place does no harm
    if (u < -edge || v < -edge || u + v > 1 + edge) continue;
    found.push_back({ac.dot(q) / det, way.dot(normal) / area, mesh.face[t]});
  }
  std::sort(found.begin(), found.end(), [](const Crossing& a, const Crossing& b) { return a.at < b.at; });
  return found;
}

} // namespace

SeatedWall thinnest_seated(const Solid& solid, const std::vector<CastTouch>& touches,
                           const SeatedWallOptions& options) {
  SeatedWall least;
  for (std::size_t k = 0; k < touches.size(); ++k) {
    const auto all = crossings(solid.mesh, touches[k].at, -touches[k].out);
    const Crossing* in = nullptr;
    for (const auto& c : all)
      if (c.facing < -options.askew && std::abs(c.at) <= options.reach &&
          (!in || std::abs(c.at) < std::abs(in->at)))
        in = &c;
    if (!in) continue;
    const auto out = std::find_if(all.begin(), all.end(),
                                  [&](const Crossing& c) { return c.at > in->at + 1e-6 && c.facing > 0; });
    if (out == all.end() || out->facing < options.askew || out->at - in->at > options.thickest) continue;
    const auto& front = solid.faces[in->face];
    const auto& behind = solid.faces[out->face];
    const double thick = behind.known() ? -stock_at(behind.shape, touches[k].at) : out->at;
    const double over = front.known() ? stock_at(front.shape, touches[k].at) : in->at;
    if (least.touch >= 0 && thick >= least.thick) continue;
    least = {static_cast<int>(k), thick, thick - over, over, out->face};
  }
  return least;
}

} // namespace datrin::solid
