#include "sim/pedestal.h"

#include <random>

namespace datrin::sim {

Pedestal random_pedestal(const PedestalOptions& options) {
  std::mt19937_64 random(options.seed * 7919 + 17);
  std::normal_distribution<double> normal;
  std::uniform_real_distribution<double> uniform(-1, 1);
  const auto plane = [](const Vec3& point, const Vec3& n) {
    return Surface{SurfaceKind::plane, point, n, 0};
  };
  struct Plan {
    const char* id;
    Surface shape;
    bool machined;
    double required, stock, width, height;
  };
  const Vec3 centre(0, 0, 34), axis = Vec3::UnitY();
  const std::vector<Plan> plans{
      {"foot", plane({0, 0, 0}, {0, 0, -1}), true, 0.6, 2.0, 70, 32},
      {"end a", plane({-38, 0, 6}, {-1, 0, 0}), true, 0.4, 1.8, 32, 10},
      {"end b", plane({38, 0, 6}, {1, 0, 0}), true, 0.4, 1.8, 32, 10},
      {"cheek left", plane({0, -18, 34}, {0, -1, 0}), true, 0.5, 1.8, 34, 34},
      {"cheek right", plane({0, 18, 34}, {0, 1, 0}), true, 0.5, 1.8, 34, 34},
      {"bore", {SurfaceKind::bore, centre, axis, 22}, true, 0.7, 1.9, 0, 34},
      {"boss", {SurfaceKind::boss, centre, axis, 36}, false, 0.0, 0.0, 0, 34},
  };
  Pedestal pedestal;
  std::vector<RoughSurface> rough;
  for (const auto& plan : plans) {
    pedestal.input.surfaces.push_back({plan.id, plan.shape, plan.machined, plan.required});
    pedestal.extent.push_back({plan.width, plan.height});
    RoughSurface surface;
    surface.finished = plan.shape;
    surface.stock =
        plan.machined ? plan.stock - options.tightness + 0.15 * normal(random) : 0.2 * normal(random);
    surface.width = plan.width;
    surface.height = plan.height;
    if (plan.shape.kind == SurfaceKind::bore)
      surface.drift = options.core_drift * Vec3(normal(random), 0, normal(random));
    if (!plan.shape.round()) surface.draft = 0.012 * uniform(random);
    rough.push_back(surface);
  }
  pedestal.input.walls.push_back({6, 5, 5.0});
  const Vec3 turn = options.most_turn * Vec3(uniform(random), uniform(random), uniform(random));
  pedestal.truth = {rotation_from_vector(turn),
                    options.most_shift * Vec3(uniform(random), uniform(random), uniform(random))};
  RoughOptions touching;
  touching.touches = options.touches;
  touching.roughness = options.roughness;
  touching.seed = options.seed;
  for (const auto& touch : touch_all(rough, pedestal.truth, touching))
    pedestal.input.points.push_back({touch.surface, touch.xyz, 0});
  return pedestal;
}

} // namespace datrin::sim
