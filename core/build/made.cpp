#include "build/made.h"

#include <fmt/format.h>

namespace datrin::build {

std::string piece_name(const Build& build, Id piece) {
  const auto* p = build.find<Piece>(piece);
  const auto* part = p ? build.find<Part>(p->part) : nullptr;
  if (part == nullptr) return "?";
  return part->quantity > 1 ? fmt::format("{} no. {}", part->name, p->number) : part->name;
}

std::string made_name(const Build& build, const Made& made) {
  const auto* d = build.find<Dimension>(made.dimension);
  if (d == nullptr) return "?";
  const auto* part = build.find<Part>(d->part);
  const auto name = build.find<Piece>(made.piece) != nullptr ? piece_name(build, made.piece)
                    : part != nullptr                        ? part->name
                                                             : "?";
  return name + ", " + d->name;
}

Side side_of(const Build& build, Id dimension) {
  const auto* d = build.find<Dimension>(dimension);
  if (d == nullptr) return Side::unknown;
  const auto* surface = build.find<PartSurface>(d->surface);
  const auto* other = build.find<PartSurface>(d->other);
  if (d->kind == DimensionKind::size && surface != nullptr)
    return is_hole(surface->kind) ? Side::hole : Side::shaft;
  if (d->kind == DimensionKind::distance && surface != nullptr && other != nullptr) {
    if (surface->round() || other->round()) return Side::unknown;
    return (surface->point - other->point).dot(surface->direction) < 0 ? Side::hole : Side::shaft;
  }
  for (const auto& [id, joint] : build.joints()) {
    if (joint.hole == dimension) return Side::hole;
    if (joint.shaft == dimension) return Side::shaft;
  }
  return Side::unknown;
}

} // namespace datrin::build
