#include "solid/rough.h"

#include "build/rows.h"
#include "solid/body_edits.h"
#include "solid/follow.h"

namespace datrin::solid {

using namespace build;

std::vector<PlacedBody> rough_bodies(const Build& build, Id part) {
  Rows rows(build);
  const auto& rough = rows.build();
  for (const auto& [id, body] : build.bodies_of(part))
    if (is_cut_only(body)) rows.apply(remove_body(rough, id));
  const auto surfaces = rough.surfaces_of(part);
  for (const auto& [id, stated] : surfaces) {
    const auto* now = rough.find<PartSurface>(id);
    if (!now || !now->machined || now->from_solid || now->body == 0 || stated.required <= 0 || now->copy != 0)
      continue;
    // What it should be is counted from the finished part, not from what an earlier face has moved by now:
    // two faces may be sized by one dimension.
    auto wanted = *now;
    if (!now->round()) {
      const double out = (stated.point + stated.required * stated.direction - now->point).dot(now->direction);
      wanted.point += out * now->direction;
    } else {
      wanted.diameter = stated.diameter + 2 * metal_sign(stated.kind) * stated.required;
      if (wanted.diameter <= 0) {
        rows.apply(remove_body(rough, now->body)); // too small a hole to core
        continue;
      }
    }
    rows.apply(followed(rough, replace(rough, id, wanted, {})));
  }
  return place_bodies(rough, part);
}

} // namespace datrin::solid
