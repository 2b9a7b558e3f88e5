#include "app/casting/piece_state.h"

#include "app/casting/spots_panel.h"
#include "app/document.h"
#include "app/marks/part_canvas.h"
#include "sheets/figures.h"
#include "stock/part_stock.h"

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
  state.cast = stock::needs_touches(build, state.part);
  if (state.cast)
    state.gaps = casting::survey_gaps(state.input.seat);
  else
    state.made_of = stock::stock_text(build.stock_of(state.part)->second, build.info().unit);
  return state;
}

namespace {

sheets::SceneSurface scene_surface(const build::PartSurface& s) {
  return {s.name, s.shape(), s.width, s.height, s.machined};
}

} // namespace

void draw_solid_of_part(PartCanvas* canvas, Document& document) {
  canvas->set_solid_source([&document]() -> std::shared_ptr<const sheets::SolidPicture> {
    return document.is_open() ? with_solid({}, document).solid : nullptr;
  });
  QObject::connect(&document.solids(), &PartSolids::made, canvas, &PartCanvas::draw_again);
}

sheets::SceneInput with_solid(sheets::SceneInput scene, const Document& document) {
  if (const auto solid = document.solid_of(document.part())) scene.solid = solid->picture;
  return scene;
}

sheets::SceneInput part_scene(const build::Build& build, build::Id part) {
  sheets::SceneInput scene;
  for (const auto& [id, surface] : build.surfaces_of(part)) scene.surfaces.push_back(scene_surface(surface));
  return sheets::with_extents(std::move(scene));
}

sheets::SceneInput piece_scene(const build::Build& build, const PieceState& state, const Pose& pose,
                               const std::vector<int>& must) {
  sheets::SceneInput scene;
  for (const auto id : state.input.surface_ids)
    if (const auto* surface = build.find<build::PartSurface>(id))
      scene.surfaces.push_back(scene_surface(*surface));
  scene = sheets::with_extents(std::move(scene));
  for (const auto& [id, spot] : build.spots_of(state.piece))
    scene.spots.push_back({spot_letter(spot.kind), pose.apply(spot.at)});
  for (const auto& [id, scan] : build.scans_of(state.piece)) {
    if (!scan.points) continue;
    constexpr std::size_t most_strays = 400;
    std::vector<std::size_t> strays;
    for (std::size_t i = 0; i < scan.points->surface.size(); ++i)
      if (scan.points->surface[i] == build::ScanPoints::no_surface) strays.push_back(i);
    const auto step = std::max<std::size_t>(1, strays.size() / most_strays);
    for (std::size_t k = 0; k < strays.size(); k += step) {
      const auto& p = scan.points->at[strays[k]];
      scene.strays.push_back(pose.apply(scan.pose.apply(Vec3(p[0], p[1], p[2]))));
    }
  }
  constexpr std::size_t shown_whole = 3000, shown_of_scan = 2000;
  const auto& points = state.input.seat.points;
  const bool all = points.size() <= shown_whole;
  const std::size_t stride = std::max<std::size_t>(1, points.size() / shown_of_scan);
  scene.touches.reserve(std::min(points.size(), shown_whole + shown_of_scan));
  std::vector<char> wanted;
  if (!all) {
    wanted.assign(points.size(), 0);
    for (std::size_t i = 0; i < points.size(); i += stride) wanted[i] = 1;
    for (const int i : must) wanted[static_cast<std::size_t>(i)] = 1;
    for (const auto& group : state.margins.groups)
      if (group.least_point >= 0) wanted[static_cast<std::size_t>(group.least_point)] = 1;
  }
  for (std::size_t i = 0; i < points.size(); ++i)
    if (all || wanted[i])
      scene.touches.push_back({points[i].surface, pose.apply(points[i].xyz), all ? -1 : static_cast<int>(i)});
  return scene;
}

QString no_touches_words(const PieceState& state) {
  return QString("Made from %1: no touches are asked for. The metal over its faces stands under Stock in the "
                 "Drawing "
                 "step, and what to cut to in Allowance.")
      .arg(sheets::qt(state.made_of));
}

QString piece_title(const build::Build& build, build::Id piece_id) {
  const auto* piece = build.find<build::Piece>(piece_id);
  const auto* part = piece ? build.find<build::Part>(piece->part) : nullptr;
  if (part == nullptr) return {};
  const auto count = build.pieces_of(piece->part).size();
  if (count < 2) return name_words(part->name);
  return filled("%1, no. %2 of %3", name_words(part->name), piece->number, count);
}

} // namespace datrin::app
