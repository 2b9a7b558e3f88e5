#include "casting/spots.h"

#include "build/words.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

namespace datrin::casting {

using namespace build;

SpotCure usual_cure(SpotKind kind) {
  switch (kind) {
  case SpotKind::flash:
  case SpotKind::parting:
    return SpotCure::dress_off;
  case SpotKind::pore:
  case SpotKind::chill:
  case SpotKind::inclusion:
  case SpotKind::hard_skin:
  case SpotKind::repair:
    return SpotCure::watch;
  case SpotKind::short_fill:
    return SpotCure::fill;
  case SpotKind::draft:
  case SpotKind::mismatch:
    return SpotCure::leave;
  case SpotKind::warp:
  case SpotKind::defect:
    return SpotCure::undecided;
  }
  return SpotCure::undecided;
}

bool is_open(const Spot& spot) {
  return !spot.done && spot.cure != SpotCure::leave;
}

std::string spot_text(const Build& build, const Spot& spot) {
  std::string text(shown_word(spot.kind));
  if (build.find<PartSurface>(spot.surface) != nullptr) text += " on " + surface_name(build, spot.surface);
  if (spot.size > 0) text += ", " + length_text(spot.size, build.info().unit, {.show_unit = true});
  return fmt::format("{}: {}", text, shown_word(spot.cure));
}

Edit decide_spot(const Build& build, Id id, SpotCure cure) {
  const auto* spot = build.find<Spot>(id);
  if (spot == nullptr) return build::is_gone();
  if (spot->cure == cure) return {};
  auto changed = *spot;
  changed.cure = cure;
  changed.done = false;
  return replace(build, id, changed, fmt::format("Decide on {}", spot_text(build, changed)));
}

Edit mark_spot_done(const Build& build, Id id, bool done) {
  const auto* spot = build.find<Spot>(id);
  if (spot == nullptr) return build::is_gone();
  if (spot->done == done) return {};
  auto changed = *spot;
  changed.done = done;
  return replace(build, id, changed,
                 fmt::format("{}, {}", spot_text(build, *spot), done ? "done" : "not done after all"));
}

} // namespace datrin::casting
