#include "app/casting/piece_state.h"

#include "sheets/figures.h"

namespace datrin::app {

PieceState piece_state(const build::Build& build, build::Id piece_id) {
  PieceState state;
  state.piece = piece_id;
  const auto* piece = build.find<build::Piece>(piece_id);
  if (piece == nullptr) return state;
  state.part = piece->part;
  state.input = casting::piece_input(build, piece_id);
  state.pose = casting::seat_or_start(build, piece_id, state.input);
  if (const auto seat = build.seat_of(piece_id)) {
    state.seated = true;
    state.best = seat->second.best;
  }
  if (!state.input.seat.points.empty()) state.margins = casting::margins_at(state.input.seat, state.pose);
  state.gaps = casting::survey_gaps(state.input.seat);
  return state;
}

namespace {

sheets::SceneSurface scene_surface(const build::PartSurface& s) {
  return {s.name, s.shape(), s.width, s.height, s.machined};
}

} // namespace

sheets::SceneInput part_scene(const build::Build& build, build::Id part) {
  sheets::SceneInput scene;
  for (const auto& [id, surface] : build.surfaces_of(part)) scene.surfaces.push_back(scene_surface(surface));
  return sheets::with_extents(std::move(scene));
}

sheets::SceneInput piece_scene(const build::Build& build, const PieceState& state, const Pose& pose) {
  sheets::SceneInput scene;
  for (const auto id : state.input.surface_ids)
    if (const auto* surface = build.find<build::PartSurface>(id))
      scene.surfaces.push_back(scene_surface(*surface));
  scene = sheets::with_extents(std::move(scene));
  scene.touches.reserve(state.input.seat.points.size());
  for (const auto& point : state.input.seat.points)
    scene.touches.push_back({point.surface, pose.apply(point.xyz)});
  return scene;
}

QString piece_title(const build::Build& build, build::Id piece_id) {
  const auto* piece = build.find<build::Piece>(piece_id);
  const auto* part = piece ? build.find<build::Part>(piece->part) : nullptr;
  if (part == nullptr) return {};
  const auto count = build.pieces_of(piece->part).size();
  if (count < 2) return sheets::qt(part->name);
  return QString("%1, no. %2 of %3").arg(sheets::qt(part->name)).arg(piece->number).arg(count);
}

} // namespace datrin::app
