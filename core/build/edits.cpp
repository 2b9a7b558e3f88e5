#include "build/edits.h"

#include "build/references.h"

#include <fmt/format.h>

#include <set>

namespace datrin::build {

Edit add(const Build& build, Record record, std::string label) {
  return {std::move(label), {{build.next_id(), std::nullopt, std::move(record)}}};
}

Edit replace(const Build& build, Id id, Record record, std::string label) {
  const auto found = build.records().find(id);
  if (found == build.records().end() || found->second == record) return {};
  return {std::move(label), {{id, found->second, std::move(record)}}};
}

Edit add_all(const Build& build, std::vector<Record> records, std::string label) {
  Edit edit{std::move(label), {}};
  Id id = build.next_id();
  edit.changes.reserve(records.size());
  for (auto& record : records) edit.changes.push_back({id++, std::nullopt, std::move(record)});
  return edit;
}

Edit add_part(const Build& build, const std::string& name) {
  Part part;
  part.name = name;
  part.order = next_order(build.parts());
  Piece piece;
  piece.part = build.next_id();
  return add_all(build, {part, piece}, fmt::format("Add part {}", name));
}

Edit set_quantity(const Build& build, Id part_id, int quantity) {
  const auto* part = build.find<Part>(part_id);
  if (part == nullptr || quantity < 1) return {};
  Edit edit{fmt::format("Make {} of {}", quantity, part->name), {}};
  Part changed = *part;
  changed.quantity = quantity;
  if (!(changed == *part)) edit.changes.push_back({part_id, *part, changed});
  const auto pieces = build.pieces_of(part_id);
  auto kept = pieces.size();
  while (static_cast<int>(kept) > quantity && build.touches_of(pieces[kept - 1].first).empty()) {
    const auto removal = remove(build, pieces[kept - 1].first, {});
    edit.changes.insert(edit.changes.end(), removal.changes.begin(), removal.changes.end());
    --kept;
  }
  Id id = build.next_id();
  for (int number = static_cast<int>(kept) + 1; number <= quantity; ++number)
    edit.changes.push_back({id++, std::nullopt, Piece{part_id, number}});
  return edit;
}

namespace {

Edit remove_set(const Build& build, std::set<Id> gone, std::string label) {
  std::vector<Id> asked(gone.begin(), gone.end());
  while (!asked.empty()) {
    const Id id = asked.back();
    asked.pop_back();
    for (const Id needing : build.needing(id))
      if (gone.insert(needing).second) asked.push_back(needing);
  }
  Edit edit{std::move(label), {}};
  const std::vector<Id> list(gone.begin(), gone.end());
  for (const auto& [id, record] : build.records()) {
    if (gone.contains(id))
      edit.changes.push_back({id, record, std::nullopt});
    else if (auto changed = without(record, list))
      edit.changes.push_back({id, record, std::move(changed)});
  }
  return edit;
}

} // namespace

Edit remove(const Build& build, Id id, std::string label) {
  if (id == Build::info_id || !build.records().count(id)) return {};
  return remove_set(build, {id}, std::move(label));
}

Edit remove_all(const Build& build, const std::vector<Id>& ids, std::string label) {
  std::set<Id> gone;
  for (const auto id : ids)
    if (id != Build::info_id && build.records().contains(id)) gone.insert(id);
  if (gone.empty()) return {};
  return remove_set(build, gone, std::move(label));
}

Edit remove_touches(const Build& build, const std::vector<Id>& touches) {
  std::set<Id> gone;
  for (const auto id : touches)
    if (build.find<Touch>(id)) gone.insert(id);
  if (gone.empty()) return {};
  const auto label =
      gone.size() == 1 ? std::string("Remove touch") : fmt::format("Remove {} touches", gone.size());
  return remove_set(build, gone, label);
}

Edit set_seat(const Build& build, Id piece, const Pose& pose, bool best, std::string label) {
  const Seat seat{piece, pose, best};
  if (const auto old = build.seat_of(piece)) return replace(build, old->first, seat, std::move(label));
  return add(build, seat, std::move(label));
}

Edit set_judgement(const Build& build, const Judgement& judgement, std::string label) {
  if (const auto old = build.judgement_of(judgement.piece))
    return replace(build, old->first, judgement, std::move(label));
  return add(build, judgement, std::move(label));
}

Edit set_marking(const Build& build, const Marking& marking, std::string label) {
  if (const auto old = build.marking_of(marking.piece))
    return replace(build, old->first, marking, std::move(label));
  return add(build, marking, std::move(label));
}

} // namespace datrin::build
