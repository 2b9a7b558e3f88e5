#include "route/datum_input.h"

#include "casting/as_cast.h"
#include "casting/expect.h"
#include "stock/part_stock.h"

#include <cmath>
#include <map>

namespace datrin::route {

using namespace build;

casting::FirstDatumInput datum_input(const Build& build, Id part, Id piece, const casting::PieceInput& input,
                                     const Pose& pose) {
  casting::FirstDatumInput in;
  in.unit = build.info().unit;
  const auto foundry = casting::foundry_or_usual(build, part);
  const auto made = casting::as_cast(input.seat, pose);
  const bool cast = stock::needs_touches(build, part);
  constexpr double of_bar = 0.03; // mm, standard deviation (common practice)
  std::map<Id, Patch> patches;
  for (const auto& [id, patch] : stock::patches_of(build, part))
    if (id != 0) patches[id] = patch;
  for (const auto& [id, s] : build.surfaces_of(part)) {
    casting::DatumSurface d;
    d.name = s.name;
    d.shape = s.shape();
    d.width = patches[id].width;
    d.height = patches[id].height;
    // A hole is no place to stand on, and what was cut is no longer as cast.
    d.as_cast = !is_hole(s.kind) && build.cuts_of(piece, id).empty();
    d.to_machine = s.machined;
    if (!cast) d.roughness = of_bar; // bright or sawn, no sand
    if (cast && !s.round() && std::abs(s.direction.dot(foundry.draw)) < 0.1) d.draft = foundry.draft;
    if (const int i = input.surface_index(id); i >= 0) {
      const auto& fit = made.surfaces[static_cast<std::size_t>(i)];
      if (fit.fitted) {
        d.roughness = fit.roughness;
        if (!s.round()) d.draft = fit.lean.value > fit.lean.uncertainty ? fit.lean.value : 0.0;
      }
    }
    for (const auto& [spot_id, spot] : build.spots_of(piece))
      d.flash = d.flash || (spot.surface == id && spot.kind == SpotKind::flash);
    in.surfaces.push_back(std::move(d));
  }
  return in;
}

std::vector<Id> usual_first_datums(const Build& build, Id part) {
  if (!stock::needs_touches(build, part)) return {};
  const auto pieces = build.pieces_of(part);
  const Id piece = pieces.empty() ? 0 : pieces.front().first;
  const auto input = casting::piece_input(build, piece);
  const auto found = casting::first_datums(
      datum_input(build, part, piece, input, casting::seat_or_start(build, piece, input)));
  std::vector<Id> datums;
  if (!found.usable() || found.choices.empty()) return datums;
  const auto surfaces = build.surfaces_of(part);
  for (const int k : found.choices.front().surfaces)
    if (k >= 0) datums.push_back(surfaces[static_cast<std::size_t>(k)].first);
  return datums;
}

} // namespace datrin::route
