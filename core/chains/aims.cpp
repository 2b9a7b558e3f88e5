#include "chains/aims.h"

#include "geometry/surface.h"

#include <cmath>

namespace datrin::chains {

using namespace build;

namespace {

/// mm of metal a side that `d` being `make` leaves on `surface`; nothing when it is no matter of that
/// surface.
std::optional<double> left_on(const Build& build, Id piece, const Dimension& d, Id surface, double make) {
  const auto* own = build.find<PartSurface>(surface);
  if (own == nullptr || !own->machined) return std::nullopt;
  if (d.kind == DimensionKind::size && d.surface == surface && own->round())
    return stock_of_size(own->shape(), make);
  if (d.kind != DimensionKind::distance || own->round()) return std::nullopt;
  const Id other_id = d.surface == surface ? d.other : d.surface;
  const auto* other = build.find<PartSurface>(other_id);
  if (other == nullptr || other->round()) return std::nullopt;
  const bool gap = (own->point - other->point).dot(own->direction) < 0;
  const double both = gap ? d.nominal - make : make - d.nominal;
  if (!other->machined) return both;
  const auto cuts = build.cuts_of(piece, other_id);
  if (cuts.empty()) return both / 2;
  const auto seat = build.seat_of(piece);
  return both - readings::left_by(*other, cuts.back().second, seat ? seat->second.pose : Pose{});
}

} // namespace

std::vector<allowance::Aim> aims_of(const Build& build, Id piece, const BuildTargets& targets) {
  std::vector<allowance::Aim> aims;
  const auto* of = build.find<Piece>(piece);
  if (of == nullptr || !targets.result.usable()) return aims;
  for (const auto& [id, d] : build.dimensions_of(of->part)) {
    const Made made{id, piece};
    const auto* target = targets.target(made);
    if (target == nullptr) continue;
    const auto& size = targets.sizes[static_cast<std::size_t>(target->dimension)];
    for (const Id surface : {d.surface, d.other}) {
      const auto left = surface != 0 ? left_on(build, piece, d, surface, target->make) : std::nullopt;
      if (!left) continue;
      // Of a diameter half of it is a side.
      const double within = std::isfinite(target->hold) ? target->hold : 0;
      aims.push_back({surface, *left, d.kind == DimensionKind::size ? within / 2 : within,
                      size.standing == readings::Standing::metal_on});
    }
  }
  return aims;
}

} // namespace datrin::chains
