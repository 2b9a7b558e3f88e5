#include "route/travel.h"

#include "build/edits.h"
#include "route/features.h"
#include "stock/part_stock.h"

#include <algorithm>
#include <array>

namespace datrin::route {

using namespace build;

namespace {

struct Reach {
  std::array<double, 3> low{1e300, 1e300, 1e300}, high{-1e300, -1e300, -1e300};

  void take(const std::array<double, 3>& at, double beside) {
    for (std::size_t k = 0; k < 3; ++k) {
      low[k] = std::min(low[k], at[k] - (k < 2 ? beside : 0));
      high[k] = std::max(high[k], at[k] + (k < 2 ? beside : 0));
    }
  }
  double over(std::size_t k) const { return high[k] - low[k]; }
};

bool on_a_table(OperationKind kind) {
  return kind == OperationKind::mill || kind == OperationKind::face || kind == OperationKind::drill ||
         kind == OperationKind::bore || kind == OperationKind::ream || kind == OperationKind::tap ||
         kind == OperationKind::slit;
}

} // namespace

WantedTravel wanted_travel(const Build& build, Id part, Id setup, const Vec3& way) {
  const auto [u, v] = patch_directions(way);
  Reach reach;
  const auto take = [&, x = u, y = v](const Vec3& at, double beside) {
    reach.take({at.dot(x), at.dot(y), at.dot(way)}, beside);
  };
  const auto features = features_to_make(build, part);
  const auto patches = stock::patches_of(build, part);
  for (const auto& [id, o] : build.operations_of(part)) {
    if (o.setup != setup || !on_a_table(o.kind)) continue;
    for (const auto& f : features) {
      if (!makes(o, f)) continue;
      for (const Vec3& at : mouths_of(build, part, f)) {
        take(at, 0);
        take(at - f.deep * f.way, 0);
      }
      if (o.kind != OperationKind::face && o.kind != OperationKind::mill) continue;
      for (const auto& [surface, patch] : patches) {
        if (!contains(f.surfaces, surface) || patch.shape.round()) continue;
        const auto [a, c] = patch_directions(patch.shape.direction);
        for (const double i : {-0.5, 0.5})
          for (const double j : {-0.5, 0.5})
            take(patch.shape.point + i * patch.width * a + j * patch.height * c, o.size / 2);
      }
    }
  }
  if (reach.low[0] > reach.high[0]) return {};
  return {std::max(reach.over(0), reach.over(1)), std::min(reach.over(0), reach.over(1)), reach.over(2)};
}

} // namespace datrin::route
