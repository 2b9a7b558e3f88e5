#include "casting/survey_mistakes.h"

#include "build/edits.h"
#include "geometry/direction_text.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::casting {

std::vector<FlaggedTouch> flagged_touches(const build::Build& build, build::Id piece, const PieceInput& input,
                                          const Pose& pose, const MistakesOptions& options) {
  constexpr std::size_t most = 5000; // more than that were not booked by hand
  MistakesInput look;
  look.surfaces = input.seat.surfaces;
  for (const auto id : input.surface_ids) {
    const auto* s = build.find<build::PartSurface>(id);
    look.extent.push_back(s ? Eigen::Vector2d(s->width, s->height) : Eigen::Vector2d(0, 0));
  }
  look.start = pose;
  std::vector<std::pair<build::Id, int>> which;
  std::vector<build::TouchStanding> standing;
  int number = 0;
  for (const auto& [id, touch] : build.touches_of(piece)) {
    ++number;
    const int surface = input.surface_index(touch.surface);
    const auto* setting = input.settings.find(touch.setting);
    if (surface < 0 || touch.standing == build::TouchStanding::set_aside || !touched_point(touch)) continue;
    if (setting && (!setting->joined || setting->frame == build::SettingFrame::heights)) continue;
    look.touches.push_back(
        {surface, touch.centre, touch.tip_radius, touch.toward, setting ? setting->pose() : Pose{}});
    which.emplace_back(id, number);
    standing.push_back(touch.standing);
  }
  std::vector<FlaggedTouch> flagged;
  if (look.touches.size() > most) return flagged;
  auto in_unit = options;
  in_unit.unit = build.info().unit;
  for (auto& mistake : find_mistakes(look, in_unit).mistakes) {
    const auto k = static_cast<std::size_t>(mistake.touch);
    if (standing[k] == build::TouchStanding::confirmed) continue;
    FlaggedTouch entry;
    entry.touch = which[k].first;
    entry.number = which[k].second;
    entry.surface = input.surface_ids[static_cast<std::size_t>(mistake.surface)];
    entry.mistake = std::move(mistake);
    flagged.push_back(std::move(entry));
  }
  return flagged;
}

build::Edit accept_suggestion(const build::Build& build, const FlaggedTouch& flagged) {
  const auto* now = build.find<build::Touch>(flagged.touch);
  if (now == nullptr) return build::is_gone();
  if (flagged.mistake.kind == MistakeKind::unexplained)
    return build::cannot("nothing explains that touch: look at it yourself");
  auto touch = *now;
  std::string was;
  const auto add = [&](const std::string& text) { was += (was.empty() ? "" : ", ") + text; };
  for (int k = 0; k < 3; ++k)
    if (touch.centre[k] != flagged.mistake.centre[k])
      add(fmt::format("{} was {} mm", "xyz"[k], number_text(touch.centre[k], 2)));
  if (touch.toward != flagged.mistake.toward)
    add(fmt::format("the tip went {}", direction_text(touch.toward.normalized())));
  if (touch.surface != flagged.surface)
    if (const auto* s = build.find<build::PartSurface>(touch.surface)) add("it was on " + s->name);
  touch.corrected += (touch.corrected.empty() ? "" : "; ") + was + ": " + flagged.mistake.reason;
  touch.centre = flagged.mistake.centre;
  touch.toward = flagged.mistake.toward;
  touch.surface = flagged.surface;
  return build::replace(build, flagged.touch, touch,
                        fmt::format("Put touch {} right: {}", flagged.number, flagged.mistake.reason));
}

build::Edit set_standing(const build::Build& build, build::Id id, build::TouchStanding standing) {
  const auto* now = build.find<build::Touch>(id);
  if (now == nullptr) return build::is_gone();
  auto touch = *now;
  touch.standing = standing;
  static constexpr const char* labels[] = {"Count touch again", "Touch is right as it is", "Set touch aside"};
  return build::replace(build, id, touch, labels[static_cast<std::size_t>(standing)]);
}

} // namespace datrin::casting
