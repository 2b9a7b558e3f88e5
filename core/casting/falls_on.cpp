#include "casting/falls_on.h"

#include "build/edits.h"
#include "geometry/patch.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

FallsOn falls_on(const build::Build& build, build::Id part, const Pose& pose, const Vec3& at,
                 const Vec3& toward, const FallsOnOptions& options) {
  struct Near {
    build::Id id = 0;
    double away = 0, off = 0;
  };
  std::vector<Patch> patches;
  std::vector<build::Id> ids;
  for (const auto& [id, s] : build.surfaces_of(part)) {
    if (s.from_solid) continue; // nothing of it is there yet
    patches.push_back(s.patch());
    ids.push_back(id);
  }
  patches = with_extents(std::move(patches));
  const Vec3 here = pose.apply(at), way = pose.turn(toward);
  std::vector<Near> near;
  for (std::size_t k = 0; k < patches.size(); ++k) {
    const auto& shape = patches[k].shape;
    const double off = stock_at(shape, here);
    // The tip went into the metal: against the way the stock grows.
    if (way.norm() > 0.5 && way.dot(stock_direction(shape, here)) > -0.3) continue;
    const double away = std::hypot(off, beyond_edge(patches[k], here));
    if (away <= options.reach) near.push_back({ids[k], away, off});
  }
  std::sort(near.begin(), near.end(), [](const Near& a, const Near& b) { return a.away < b.away; });
  FallsOn found;
  if (near.empty()) {
    found.words = "no surface is near that place: say which it is on";
    return found;
  }
  found.surface = near.front().id;
  found.off = near.front().off;
  found.words = "on " + build::surface_name(build, found.surface);
  if (near.size() > 1 && near[1].away - near[0].away < options.doubtful) {
    found.next = near[1].id;
    found.words += ", or on " + build::surface_name(build, found.next);
  }
  return found;
}

} // namespace datrin::casting
