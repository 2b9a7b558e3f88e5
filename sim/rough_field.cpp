#include "sim/rough_field.h"

#include "geometry/best_fit.h"

#include <Eigen/Cholesky>

#include <algorithm>
#include <cmath>
#include <random>

namespace datrin::sim {

FieldCasting field_casting(const FieldOptions& o) {
  std::mt19937_64 random(o.seed);
  std::normal_distribution<double> normal;
  std::uniform_real_distribution<double> even(0, 1);
  FieldCasting out;
  out.least = 1e300;
  const Vec3 normals[] = {-Vec3::UnitZ(), Vec3::UnitX(),  -Vec3::UnitX(),
                          Vec3::UnitY(),  -Vec3::UnitY(), Vec3::UnitZ()};
  for (int f = 0; f < o.faces; ++f) {
    const Vec3 n = normals[f % 6];
    const double wide = 40 + 40 * even(random), tall = 24 + 26 * even(random);
    casting::SeatSurface s;
    s.id = "face " + std::to_string(f + 1);
    s.shape = {SurfaceKind::plane, 40 * n, n, 0};
    s.required = 0.7;
    const double sigma = 0.05 * std::pow(7.0, even(random)), length = 4 * std::pow(10.0, even(random));
    const double stock = s.required + 0.25 + 1.2 * even(random), steep = even(random) < 0.5 ? 0.003 : 0.015,
                 lean_a = steep * normal(random), lean_b = steep * normal(random);
    const auto [u, v] = patch_directions(n);
    // The net of the truth and the touched places, drawn together.
    std::vector<Vec2> at;
    const int columns = static_cast<int>(wide / o.step) + 1, rows = static_cast<int>(tall / o.step) + 1;
    for (int r = 0; r < rows; ++r)
      for (int c = 0; c < columns; ++c)
        at.emplace_back(wide * (c / (columns - 1.0) - 0.5), tall * (r / (rows - 1.0) - 0.5));
    const std::size_t net = at.size();
    for (int k = 0; k < o.touches; ++k) {
      const auto spread = [&](double step) {
        const double g = 0.5 + k * step;
        return std::clamp(g - std::floor(g) - 0.5 + 0.12 * (even(random) - 0.5), -0.47, 0.47);
      };
      at.emplace_back(wide * spread(0.7548776662466927), tall * spread(0.5698402909980532));
    }
    Eigen::MatrixXd k(static_cast<Eigen::Index>(at.size()), static_cast<Eigen::Index>(at.size()));
    for (std::size_t i = 0; i < at.size(); ++i)
      for (std::size_t j = 0; j < at.size(); ++j) {
        const double a = std::sqrt(3.0) * (at[i] - at[j]).norm() / length;
        k(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j)) =
            sigma * sigma * (1 + a) * std::exp(-a) + (i == j ? 1e-8 : 0);
      }
    Eigen::VectorXd z(static_cast<Eigen::Index>(at.size()));
    for (auto& value : z) value = normal(random);
    const Eigen::VectorXd rough = Eigen::LLT<Eigen::MatrixXd>(k).matrixL() * z;
    for (std::size_t i = 0; i < at.size(); ++i) {
      const double metal =
          stock + lean_a * at[i].x() + lean_b * at[i].y() + rough[static_cast<Eigen::Index>(i)];
      if (i < net) {
        out.least = std::min(out.least, metal - s.required);
        out.truth.emplace_back(s.shape.point + at[i].x() * u + at[i].y() * v, metal - s.required);
        continue;
      }
      const double read = metal + o.uncertainty / 2 * normal(random);
      out.input.points.push_back(
          {f, s.shape.point + at[i].x() * u + at[i].y() * v + read * n, o.uncertainty});
    }
    out.input.surfaces.push_back(std::move(s));
    out.reach.push_back({wide, tall});
  }
  return out;
}

} // namespace datrin::sim
