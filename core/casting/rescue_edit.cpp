#include "casting/rescue_edit.h"

#include "build/edits.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <map>

namespace datrin::casting {

build::Edit take_rescue(const build::Build& build, build::Id piece, const PieceInput& input,
                        const Rescue& rescue, double short_by, const std::string& at) {
  const auto* p = build.find<build::Piece>(piece);
  if (p == nullptr) return build::is_gone();
  build::Edit edit{"Rescue: " + rescue.what, {}};
  std::map<build::Id, build::PartSurface> changed;
  build::Id next = build.next_id();
  for (const auto& change : rescue.changes) {
    const auto id = input.surface_ids[static_cast<std::size_t>(change.surface)];
    const auto* surface = build.find<build::PartSurface>(id);
    if (surface == nullptr) return build::is_gone();
    auto& s = changed.try_emplace(id, *surface).first->second;
    std::string what;
    switch (change.kind) {
    case RescueKind::leave_low:
      s.required -= change.amount;
      what = fmt::format("{} left low by {} mm", s.name, number_text(change.amount, 2));
      break;
    case RescueKind::move_face:
      s.point -= s.direction * change.amount;
      what = fmt::format("{} moved {} mm into the metal", s.name, number_text(change.amount, 2));
      break;
    case RescueKind::shift_bore:
      s.point += change.shift;
      what = fmt::format("{} shifted by {}, {}, {} mm", s.name, number_text(change.shift.x(), 2, true),
                         number_text(change.shift.y(), 2, true), number_text(change.shift.z(), 2, true));
      break;
    case RescueKind::sleeve:
      // Bored larger it has so much more to come off: asking that much less of the drawn bore says the same.
      s.required -= change.amount;
      what = fmt::format("{} opened to {} mm and sleeved back", s.name,
                         number_text(s.diameter + 2 * change.amount, 2));
      break;
    case RescueKind::build_up:
      s.required -= change.amount;
      what = fmt::format("{} built up by {} mm before machining", s.name, number_text(change.amount, 2));
      break;
    }
    edit.changes.push_back(
        {next++, std::nullopt,
         build::Decision{p->part, piece, id, what,
                         fmt::format("did not clean up by {} mm", number_text(short_by, 2)), at}});
  }
  for (auto& [id, s] : changed) edit.changes.push_back({id, *build.find<build::PartSurface>(id), s});
  const build::Seat seat{piece, rescue.pose, false};
  if (const auto old = build.seat_of(piece))
    edit.changes.push_back({old->first, old->second, seat});
  else
    edit.changes.push_back({next++, std::nullopt, seat});
  return edit;
}

} // namespace datrin::casting
