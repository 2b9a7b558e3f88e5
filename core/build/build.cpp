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
std::vector<std::pair<Id, Dimension>> Build::dimensions_of(Id part) const {
  return list<Dimension>([=](const Dimension& d) { return d.part == part; });
}
std::optional<std::pair<Id, Foundry>> Build::foundry_of(Id part) const {
  return first_of(list<Foundry>([=](const Foundry& f) { return f.part == part; }));
}
std::vector<std::pair<Id, Machine>> Build::machines() const {
  return list<Machine>([](const Machine&) { return true; });
}
std::vector<std::pair<Id, Tool>> Build::tools() const {
  return list<Tool>([](const Tool&) { return true; });
}
std::optional<std::pair<Id, Allowance>> Build::allowance_of(Id piece, Id surface) const {
  return first_of(
      list<Allowance>([=](const Allowance& a) { return a.piece == piece && a.surface == surface; }));
}
std::vector<std::pair<Id, Cut>> Build::cuts_of(Id piece, Id surface) const {
  return list<Cut>([=](const Cut& c) { return c.piece == piece && c.surface == surface; });
}
std::vector<std::pair<Id, Setup>> Build::setups_of(Id part) const {
  return list<Setup>([=](const Setup& s) { return s.part == part; });
}
std::optional<std::pair<Id, Release>> Build::release_of(Id piece, Id setup) const {
  return first_of(list<Release>([=](const Release& r) { return r.piece == piece && r.setup == setup; }));
}
std::optional<std::pair<Id, Measurement>> Build::measurement_of(Id piece, Id dimension) const {
  const auto found =
      list<Measurement>([=](const Measurement& m) { return m.piece == piece && m.dimension == dimension; });
  return found.empty() ? std::nullopt : std::optional(found.back());
}

std::vector<std::pair<Id, Instrument>> Build::instruments() const {
  return list<Instrument>([](const Instrument&) { return true; });
}
std::vector<std::pair<Id, Joint>> Build::joints() const {
  return list<Joint>([](const Joint&) { return true; });
}
std::vector<std::pair<Id, Chain>> Build::chains() const {
  return list<Chain>([](const Chain&) { return true; });
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
