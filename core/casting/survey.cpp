#include "casting/survey.h"

#include <algorithm>
#include <cmath>

namespace datrin::casting {

using build::Id;

namespace {

int index_of(const std::vector<Id>& ids, Id id) {
  const auto found = std::find(ids.begin(), ids.end(), id);
  return found == ids.end() ? -1 : static_cast<int>(found - ids.begin());
}

} // namespace

std::optional<Vec3> touched_point(const build::Touch& touch) {
  if (touch.tip_radius == 0) return touch.centre;
  const double length = touch.toward.norm();
  if (!(length > 1e-12)) return std::nullopt;
  return Vec3(touch.centre + touch.toward * (touch.tip_radius / length));
}

int PieceInput::surface_index(Id id) const {
  return index_of(surface_ids, id);
}
int PieceInput::touch_index(Id id) const {
  return index_of(touch_ids, id);
}

PieceInput piece_input(const build::Build& build, Id piece_id) {
  PieceInput input;
  const auto* piece = build.find<build::Piece>(piece_id);
  if (piece == nullptr) return input;
  for (const auto& [id, surface] : build.surfaces_of(piece->part)) {
    if (surface.round() && !(surface.diameter > 0)) continue;
    input.seat.surfaces.push_back({surface.name, surface.shape(), surface.machined, surface.required});
    input.surface_ids.push_back(id);
  }
  for (const auto& [id, wall] : build.walls_of(piece->part)) {
    const int from = input.surface_index(wall.from), to = input.surface_index(wall.to);
    if (from < 0 || to < 0 || from == to) continue;
    input.seat.walls.push_back({from, to, wall.least});
    input.wall_ids.push_back(id);
  }
  for (const auto& [id, touch] : build.touches_of(piece_id)) {
    const int surface = input.surface_index(touch.surface);
    if (surface < 0) continue;
    const auto at = touched_point(touch);
    if (!at) {
      input.uncorrected.push_back(id);
      continue;
    }
    input.seat.points.push_back({surface, *at, touch.uncertainty});
    input.touch_ids.push_back(id);
  }
  return input;
}

Pose seat_or_start(const build::Build& build, Id piece, const PieceInput& input) {
  if (const auto seat = build.seat_of(piece)) return seat->second.pose;
  Pose start;
  Vec3 touched = Vec3::Zero(), finished = Vec3::Zero();
  for (const auto& point : input.seat.points) {
    touched += point.xyz;
    finished += input.seat.surfaces[static_cast<std::size_t>(point.surface)].shape.point;
  }
  if (!input.seat.points.empty())
    start.translation = (finished - touched) / static_cast<double>(input.seat.points.size());
  return start;
}

build::Marking marking_or_start(const build::Build& build, Id piece, const PieceInput& input) {
  if (const auto marking = build.marking_of(piece)) return marking->second;
  build::Marking marking;
  marking.piece = piece;
  double widest = -1;
  for (std::size_t i = 0; i < input.seat.surfaces.size(); ++i) {
    const auto* surface = build.find<build::PartSurface>(input.surface_ids[i]);
    if (surface == nullptr || surface->round() || !surface->machined) continue;
    const double area = surface->width * surface->height;
    const bool plain = surface->direction.cwiseAbs().maxCoeff() > 1 - 1e-9;
    if (plain && area > widest) {
      widest = area;
      marking.up = -surface->direction;
      marking.reference = input.surface_ids[i];
    }
  }
  return marking;
}

MarkingInput marking_input(const PieceInput& input, const Pose& seat, const build::Marking& marking) {
  MarkingInput result;
  result.part = input.seat;
  result.seat = seat;
  result.up = marking.up;
  result.base_height = marking.base_height;
  result.reference = marking.reference == 0 ? -1 : input.surface_index(marking.reference);
  for (std::size_t k = 0; k < 3; ++k)
    result.jacks[k] = marking.jacks[k] == 0 ? -1 : input.touch_index(marking.jacks[k]);
  return result;
}

} // namespace datrin::casting
