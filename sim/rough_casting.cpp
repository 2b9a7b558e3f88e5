#include "sim/rough_casting.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <random>

namespace datrin::sim {

std::vector<RoughTouch> touch_all(const std::vector<RoughSurface>& surfaces, const Pose& truth,
                                  const RoughOptions& options) {
  std::mt19937_64 random(options.seed);
  std::normal_distribution<double> normal;
  std::uniform_real_distribution<double> uniform(-0.5, 0.5);
  const Pose to_survey = truth.inverse();
  std::vector<RoughTouch> touches;
  touches.reserve(surfaces.size() * static_cast<std::size_t>(options.touches));
  for (std::size_t s = 0; s < surfaces.size(); ++s) {
    const auto& rough = surfaces[s];
    const auto& finished = rough.finished;
    const auto [u, v] = patch_directions(finished.direction);
    for (int k = 0; k < options.touches; ++k) {
      const double bump = options.roughness * normal(random);
      Vec3 at;
      if (finished.round()) {
        // Spread over the arc by thirds of a turn and a little chance, as a careful person would.
        const double angle =
            rough.arc_start + rough.arc * (k + 0.5 + 0.8 * uniform(random)) / options.touches;
        const double depth = rough.height * uniform(random);
        const double radius =
            finished.diameter / 2 + (finished.kind == SurfaceKind::bore ? -1 : 1) * (rough.stock + bump);
        at = finished.point + finished.direction * depth +
             radius * (std::cos(angle) * u + std::sin(angle) * v);
      } else {
        // Well spread, as a careful person would touch it: the R2 low-discrepancy sequence, shaken a little.
        const auto spread = [&](double step) {
          const double f = 0.5 + k * step;
          return std::clamp(f - std::floor(f) - 0.5 + 0.12 * uniform(random), -0.5, 0.5);
        };
        const double a = rough.width * spread(0.7548776662466927),
                     b = rough.height * spread(0.5698402909980532);
        at = finished.point + a * u + b * v +
             finished.direction * (rough.stock + bump + b * std::tan(rough.draft));
      }
      at += rough.drift;
      const Vec3 misread(normal(random), normal(random), normal(random));
      touches.push_back({static_cast<int>(s), to_survey.apply(at) + options.misread * misread});
    }
  }
  return touches;
}

} // namespace datrin::sim
