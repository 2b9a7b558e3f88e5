#include "sheets/shade.h"

#include <algorithm>
#include <cmath>

namespace datrin::sheets {

namespace {

constexpr float far_away = -1e30F;

struct Corner {
  float x = 0, y = 0, depth = 0; ///< pixels; mm towards the eye
  float light = 0;
  float over = 0; ///< mm beyond the cut
};

class Shader {
public:
  Shader(const solid::Solid& solid, const ShadeInput& in) : solid_(solid), in_(in) {
    out_.width = std::max(0, in.width);
    out_.height = std::max(0, in.height);
    const auto pixels = static_cast<std::size_t>(out_.width) * static_cast<std::size_t>(out_.height);
    out_.face.assign(pixels, Shaded::nothing);
    out_.light.assign(pixels, 0);
    out_.edge.assign(pixels, 0);
    out_.depth.assign(pixels, far_away);
    light_ = (in.axes.toward + 0.6 * in.axes.up - 0.5 * in.axes.right).normalized();
  }

  Shaded run() {
    const auto& mesh = solid_.mesh;
    corners_.resize(mesh.at.size());
    for (std::size_t k = 0; k < mesh.at.size(); ++k) {
      corners_[k] = corner(mesh.at[k]);
      const Vec3 normal(mesh.normal[k][0], mesh.normal[k][1], mesh.normal[k][2]);
      corners_[k].light = static_cast<float>(std::clamp(0.22 + 0.78 * normal.dot(light_), 0.08, 1.0));
    }
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
      const auto& [i, j, k] = mesh.triangles[t];
      triangle(corners_[i], corners_[j], corners_[k], static_cast<std::int32_t>(mesh.face[t]));
    }
    if (in_.section) lay_cut();
    for (const auto& edge : solid_.edges) line(edge);
    for (const auto& mark : solid_.marks) line(edge_of(mark));
    return std::move(out_);
  }

private:
  Corner corner(const std::array<float, 3>& p) const {
    const Vec3 at(p[0], p[1], p[2]);
    const Vec2 paper = in_.axes.on_paper(at);
    Corner c;
    c.x = static_cast<float>(out_.width / 2.0 + (paper.x() - in_.middle_mm.x()) * in_.scale);
    c.y = static_cast<float>(out_.height / 2.0 - (paper.y() - in_.middle_mm.y()) * in_.scale);
    c.depth = static_cast<float>(in_.axes.toward.dot(at));
    if (in_.section) c.over = static_cast<float>(in_.section->normal.dot(at) - in_.section->at);
    return c;
  }

  void triangle(const Corner& a, const Corner& b, const Corner& c, std::int32_t face) {
    // y counts down: counter-clockwise on the paper is clockwise here.
    const float all = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
    if (all == 0) return;
    const bool away = all > 0;
    if (away && !in_.section) return;
    if (a.over > 0 && b.over > 0 && c.over > 0) return;
    const int left = std::max(0, static_cast<int>(std::floor(std::min({a.x, b.x, c.x}))));
    const int right = std::min(out_.width - 1, static_cast<int>(std::ceil(std::max({a.x, b.x, c.x}))));
    const int top = std::max(0, static_cast<int>(std::floor(std::min({a.y, b.y, c.y}))));
    const int bottom = std::min(out_.height - 1, static_cast<int>(std::ceil(std::max({a.y, b.y, c.y}))));
    const float one = 1 / all;
    for (int y = top; y <= bottom; ++y)
      for (int x = left; x <= right; ++x) {
        const float px = static_cast<float>(x) + 0.5F, py = static_cast<float>(y) + 0.5F;
        const float u = ((b.x - px) * (c.y - py) - (b.y - py) * (c.x - px)) * one;
        const float v = ((c.x - px) * (a.y - py) - (c.y - py) * (a.x - px)) * one;
        const float w = 1 - u - v;
        if (u < 0 || v < 0 || w < 0) continue;
        if (in_.section && u * a.over + v * b.over + w * c.over > 1e-4F) continue;
        const float depth = u * a.depth + v * b.depth + w * c.depth;
        const auto k = index(x, y);
        if (depth <= out_.depth[k]) continue;
        out_.depth[k] = depth;
        // The inside of a face is seen where the cut has opened the metal: there the cut itself is what one
        // sees.
        out_.face[k] = away ? Shaded::cut : face;
        out_.light[k] = static_cast<std::uint8_t>(
            std::clamp(255 * (u * a.light + v * b.light + w * c.light), 0.0F, 255.0F));
      }
  }

  /// The cut lies nearer than the inside of the faces it opened.
  void lay_cut() {
    const Vec3& normal = in_.section->normal;
    const double facing = normal.dot(in_.axes.toward);
    if (facing < 1e-3) return;
    for (int y = 0; y < out_.height; ++y)
      for (int x = 0; x < out_.width; ++x) {
        const auto k = index(x, y);
        if (out_.face[k] != Shaded::cut) continue;
        const Vec2 paper((x + 0.5 - out_.width / 2.0) / in_.scale + in_.middle_mm.x(),
                         (out_.height / 2.0 - y - 0.5) / in_.scale + in_.middle_mm.y());
        const Vec3 on_paper = in_.axes.right * paper.x() + in_.axes.up * paper.y();
        out_.depth[k] = static_cast<float>((in_.section->at - normal.dot(on_paper)) / facing);
        out_.light[k] =
            static_cast<std::uint8_t>(255 * std::clamp(0.22 + 0.78 * normal.dot(light_), 0.08, 1.0));
      }
  }

  /// A pop is a short stroke across.
  static solid::SolidEdge edge_of(const solid::SolidMark& mark) {
    constexpr double least = 0.5; // mm
    const Vec3 way =
        (mark.to - mark.from).norm() > least ? Vec3(Vec3::Zero()) : Vec3(least * across(mark.out));
    const auto at = [](const Vec3& p) {
      return std::array<float, 3>{static_cast<float>(p.x()), static_cast<float>(p.y()),
                                  static_cast<float>(p.z())};
    };
    return {{at(mark.from - way), at(mark.to + way)}, false};
  }

  void line(const solid::SolidEdge& edge) {
    const float near = static_cast<float>(1.5 / in_.scale); // an edge lies on its faces: a little is given
    const std::uint8_t strength = edge.smooth ? 90 : 255;
    for (std::size_t k = 1; k < edge.at.size(); ++k) {
      const Corner a = corner(edge.at[k - 1]), b = corner(edge.at[k]);
      const int steps =
          std::max(1, static_cast<int>(std::ceil(std::max(std::abs(b.x - a.x), std::abs(b.y - a.y)))));
      if (steps > 4 * (out_.width + out_.height)) continue;
      for (int s = 0; s <= steps; ++s) {
        const float t = static_cast<float>(s) / static_cast<float>(steps);
        if (in_.section && a.over + t * (b.over - a.over) > 1e-3F) continue;
        const int x = static_cast<int>(std::floor(a.x + t * (b.x - a.x))),
                  y = static_cast<int>(std::floor(a.y + t * (b.y - a.y)));
        if (x < 0 || y < 0 || x >= out_.width || y >= out_.height) continue;
        const float depth = a.depth + t * (b.depth - a.depth);
        if (hidden(x, y, depth + near)) continue;
        auto& pixel = out_.edge[index(x, y)];
        pixel = std::max(pixel, strength);
      }
    }
  }
  bool hidden(int x, int y, float depth) const {
    // On a slope the faces beside rise within a pixel: it is hidden only where it is behind all around it.
    for (int dy = -1; dy <= 1; ++dy)
      for (int dx = -1; dx <= 1; ++dx) {
        const int px = std::clamp(x + dx, 0, out_.width - 1), py = std::clamp(y + dy, 0, out_.height - 1);
        if (depth >= out_.depth[index(px, py)]) return false;
      }
    return true;
  }

  std::size_t index(int x, int y) const {
    return static_cast<std::size_t>(y) * static_cast<std::size_t>(out_.width) + static_cast<std::size_t>(x);
  }

  const solid::Solid& solid_;
  const ShadeInput& in_;
  Shaded out_;
  Vec3 light_ = Vec3::UnitZ();
  std::vector<Corner> corners_;
};

} // namespace

Shaded shade(const solid::Solid& solid, const ShadeInput& input) {
  return Shader(solid, input).run();
}

} // namespace datrin::sheets
