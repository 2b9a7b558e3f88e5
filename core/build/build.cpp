#include "build/build.h"

#include <algorithm>

namespace datrin::build {

std::vector<std::pair<Id, Part>> Build::parts() const {
  return list<Part>([](const Part&) { return true; });
}
std::vector<std::pair<Id, PartSurface>> Build::surfaces_of(Id part) const {
  return list<PartSurface>([=](const PartSurface& s) { return s.part == part; });
}
std::vector<std::pair<Id, Wall>> Build::walls_of(Id part) const {
  return list<Wall>([=](const Wall& w) { return w.part == part; });
}
std::vector<std::pair<Id, Piece>> Build::pieces_of(Id part) const {
  auto pieces = list<Piece>([=](const Piece& p) { return p.part == part; });
  std::stable_sort(pieces.begin(), pieces.end(),
                   [](const auto& a, const auto& b) { return a.second.number < b.second.number; });
  return pieces;
}
namespace {

template <class T>
std::optional<std::pair<Id, T>> first_of(const std::vector<std::pair<Id, T>>& found) {
  return found.empty() ? std::nullopt : std::optional(found.front());
}

} // namespace

std::vector<std::pair<Id, Touch>> Build::touches_of(Id piece) const {
  return of_piece<Touch>(piece);
}
std::optional<std::pair<Id, Seat>> Build::seat_of(Id piece) const {
  return first_of(of_piece<Seat>(piece));
}
std::optional<std::pair<Id, Marking>> Build::marking_of(Id piece) const {
  return first_of(of_piece<Marking>(piece));
}
std::vector<std::pair<Id, Setting>> Build::settings_of(Id piece) const {
  return of_piece<Setting>(piece);
}
std::vector<std::pair<Id, Mark>> Build::marks_of(Id piece) const {
  return of_piece<Mark>(piece);
}
std::vector<std::pair<Id, SizeReading>> Build::sizes_of(Id piece) const {
  return of_piece<SizeReading>(piece);
}
std::vector<std::pair<Id, Spot>> Build::spots_of(Id piece) const {
  return of_piece<Spot>(piece);
}
std::vector<std::pair<Id, Scan>> Build::scans_of(Id piece) const {
  return of_piece<Scan>(piece);
}
std::optional<std::pair<Id, Judgement>> Build::judgement_of(Id piece) const {
  return first_of(of_piece<Judgement>(piece));
}
std::vector<std::pair<Id, Decision>> Build::decisions_of(Id part) const {
  return list<Decision>([=](const Decision& d) { return d.part == part; });
}

bool Build::apply(const Edit& edit) {
  for (const auto& change : edit.changes) {
    const auto here = records_.find(change.id);
    const bool there = here != records_.end();
    if (there != change.before.has_value() || (there && !(here->second == *change.before))) return false;
  }
  for (const auto& change : edit.changes) {
    if (change.after)
      load(change.id, *change.after);
    else
      records_.erase(change.id);
  }
  return true;
}

void Build::load(Id id, Record record) {
  records_.insert_or_assign(id, std::move(record));
  next_id_ = std::max(next_id_, id + 1);
}

Edit reversed(const Edit& edit) {
  Edit back{edit.label, {}};
  for (auto change = edit.changes.rbegin(); change != edit.changes.rend(); ++change)
    back.changes.push_back({change->id, change->after, change->before});
  return back;
}

} // namespace datrin::build
