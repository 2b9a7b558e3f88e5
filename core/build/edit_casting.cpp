#include "build/edit_casting.h"

#include "build/words.h"
#include "quantity/text.h"

#include <fmt/format.h>

namespace datrin::build {

Added book_touch(const Build& build, Touch touch) {
  touch.order = next_order(build.touches_of(touch.piece));
  const auto label = "Touch on " + surface_name(build, touch.surface);
  return added(build, std::move(touch), label);
}

Edit change_touch(const Build& build, Id touch, const Touch& changed) {
  int number = 0;
  for (const auto& [id, t] : build.touches_of(changed.piece)) {
    ++number;
    if (id == touch) break;
  }
  return replace(build, touch, changed, fmt::format("Change touch {}", number));
}

Edit remove_touches(const Build& build, const std::vector<Id>& touches) {
  std::vector<Id> gone;
  for (const auto id : touches)
    if (build.find<Touch>(id)) gone.push_back(id);
  return remove_all(build, gone,
                    gone.size() == 1 ? std::string("Remove touch")
                                     : fmt::format("Remove {} touches", gone.size()));
}

Edit count_again(const Build& build, Id piece) {
  Edit edit{"Count touches again", {}};
  for (const auto& [id, touch] : build.touches_of(piece))
    if (touch.standing == TouchStanding::set_aside) {
      auto changed = touch;
      changed.standing = TouchStanding::counted;
      edit.changes.push_back({id, touch, changed});
    }
  return edit;
}

Edit take_survey(const Build& build, Id piece, std::vector<Touch> touches, std::vector<Mark> marks) {
  const auto label = "Import " + counted(touches.size(), "touch", "touches");
  const bool moved = !marks.empty();
  std::vector<Record> records;
  std::vector<std::string> settings; // in the order they are met
  const auto meet = [&](const std::string& name) {
    if (std::find(settings.begin(), settings.end(), name) == settings.end()) settings.push_back(name);
  };
  double order = next_order(build.touches_of(piece));
  for (auto& touch : touches) {
    touch.piece = piece;
    touch.order = order++;
    meet(touch.setting);
    records.emplace_back(std::move(touch));
  }
  order = next_order(build.marks_of(piece));
  for (auto& mark : marks) {
    mark.piece = piece;
    mark.order = order++;
    meet(mark.setting);
    records.emplace_back(std::move(mark));
  }
  if (moved) {
    const auto known = build.settings_of(piece);
    double place = next_order(known);
    bool first = known.empty() && build.touches_of(piece).empty();
    for (const auto& name : settings) {
      if (std::none_of(known.begin(), known.end(), [&](const auto& s) { return s.second.name == name; }))
        records.emplace_back(Setting{piece, name, first ? SettingFrame::survey : SettingFrame::own, place++});
      first = false;
    }
  }
  return add_all(build, std::move(records), label);
}

Edit frame_setting(const Build& build, Id piece, const std::string& name, SettingFrame frame) {
  const auto label = fmt::format("Frame of the setting \"{}\"", name);
  for (const auto& [id, setting] : build.settings_of(piece))
    if (setting.name == name) {
      auto changed = setting;
      changed.frame = frame;
      return replace(build, id, changed, label);
    }
  return add(build, Setting{piece, name, frame, next_order(build.settings_of(piece))}, label);
}

Added book_mark(const Build& build, Mark mark) {
  if (mark.name.empty()) return {0, {}, "Give the mark a name; the same in every setting it is read in."};
  const auto marks = build.marks_of(mark.piece);
  for (const auto& [id, other] : marks)
    if (other.name == mark.name && other.setting == mark.setting)
      return {id,
              {},
              fmt::format("Mark {} was read in that setting already; remove it first (Delete).", mark.name)};
  mark.order = next_order(marks);
  const auto label = "Reference mark " + mark.name;
  return added(build, std::move(mark), label);
}

Added book_size(const Build& build, SizeReading size) {
  const auto* from = build.find<PartSurface>(size.surface);
  if (!(size.size > 0)) return {0, {}, "A size must be above 0."};
  if (from == nullptr || size.surface == size.other) return {0, {}, "Choose two different faces."};
  if (size.other == 0 && !from->round())
    return {0, {}, "A plane has no diameter; choose the face opposite it."};
  if (size.other != 0 && from->round()) return {0, {}, "A round surface is read by its diameter."};
  if (is_cone(from->kind))
    return {0, {}, "A cone has no one diameter: touch it, or read it over a ring or plug gauge."};
  size.order = next_order(build.sizes_of(size.piece));
  return added(build, size, "Size read across " + from->name);
}

Added note_spot(const Build& build, Spot spot) {
  const auto label = fmt::format("Note a {}", shown_word(spot.kind));
  return added(build, std::move(spot), label);
}

Edit take_scan(const Build& build, Scan scan, const Pose& seat) {
  const auto piece = scan.piece;
  const auto label = "Import the scan " + scan.name;
  std::vector<Record> records{std::move(scan)};
  if (!build.seat_of(piece)) records.emplace_back(Seat{piece, seat, false});
  return add_all(build, std::move(records), label);
}

Edit set_seat(const Build& build, Id piece, const Pose& pose, bool best, std::string label) {
  return keep_one(build, build.seat_of(piece), Seat{piece, pose, best}, std::move(label));
}

Edit set_judgement(const Build& build, const Judgement& judgement, std::string label) {
  return keep_one(build, build.judgement_of(judgement.piece), judgement, std::move(label));
}

Edit set_marking(const Build& build, const Marking& marking, std::string label) {
  return keep_one(build, build.marking_of(marking.piece), marking, std::move(label));
}

} // namespace datrin::build
