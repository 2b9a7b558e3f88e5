#include "build/build.h"

#include <algorithm>

namespace datrin::build {

namespace {

/// Of the shorter of two lists, those that `keep` accepts.
template <class T, class Keep>
std::vector<std::pair<Id, T>> kept(const List<T>& a, const List<T>& b, Keep keep) {
  std::vector<std::pair<Id, T>> found;
  for (const auto& [id, value] : a.size() <= b.size() ? a : b)
    if (keep(value)) found.emplace_back(id, value);
  return found;
}

} // namespace

Found<Allowance> Build::allowance_of(Id piece, Id surface) const {
  const auto found = kept(of<Allowance>(piece), of<Allowance>(surface),
                          [&](const Allowance& a) { return a.piece == piece && a.surface == surface; });
  return found.empty() ? std::nullopt : Found<Allowance>(found.front());
}

std::vector<std::pair<Id, Cut>> Build::cuts_of(Id piece, Id surface) const {
  return kept(of<Cut>(piece), of<Cut>(surface),
              [&](const Cut& c) { return c.piece == piece && c.surface == surface; });
}

Found<Release> Build::release_of(Id piece, Id setup) const {
  const auto found = kept(of<Release>(piece), of<Release>(setup),
                          [&](const Release& r) { return r.piece == piece && r.setup == setup; });
  return found.empty() ? std::nullopt : Found<Release>(found.front());
}

Found<BenchPlace> Build::bench_place_of(Id piece, Id setup) const {
  const auto found = kept(of<BenchPlace>(piece), of<BenchPlace>(setup),
                          [&](const BenchPlace& p) { return p.piece == piece && p.setup == setup; });
  return found.empty() ? std::nullopt : Found<BenchPlace>(found.front());
}

std::vector<std::pair<Id, BenchZero>> Build::bench_zeros_of(Id piece, Id setup) const {
  return kept(of<BenchZero>(piece), of<BenchZero>(setup),
              [&](const BenchZero& z) { return z.piece == piece && z.setup == setup; });
}

Found<OperationDone> Build::done_of(Id piece, Id operation) const {
  const auto found =
      kept(of<OperationDone>(piece), of<OperationDone>(operation),
           [&](const OperationDone& d) { return d.piece == piece && d.operation == operation; });
  return found.empty() ? std::nullopt : Found<OperationDone>(found.front());
}

Found<Measurement> Build::measurement_of(Id piece, Id dimension) const {
  const auto found = kept(of<Measurement>(piece), of<Measurement>(dimension),
                          [&](const Measurement& m) { return m.piece == piece && m.dimension == dimension; });
  return found.empty() ? std::nullopt : Found<Measurement>(found.back());
}

std::vector<Id> Build::needing(Id id) const {
  std::vector<Id> ids;
  for (int kind = 0; kind < kind_count; ++kind)
    if (const auto entries = index_.entries(kind, id))
      for (const auto& entry : *entries) ids.push_back(entry.id);
  return ids;
}

bool Build::apply(const Edit& edit) {
  for (const auto& change : edit.changes) {
    const auto here = records_.find(change.id);
    const bool there = here != records_.end();
    if (there != change.before.has_value() || (there && !(here->second == *change.before))) return false;
  }
  for (const auto& change : edit.changes) {
    if (change.after) {
      load(change.id, *change.after);
    } else if (const auto here = records_.find(change.id); here != records_.end()) {
      index_.remove(here->first, here->second);
      by_id_.erase(here->first);
      records_.erase(here);
    }
  }
  return true;
}

void Build::load(Id id, Record record) {
  by_id_.insert_or_assign(id, record);
  const auto here = records_.find(id);
  if (here != records_.end()) {
    index_.remove(id, here->second);
    here->second = std::move(record);
    index_.add(id, here->second);
  } else {
    index_.add(id, records_.emplace_hint(records_.end(), id, std::move(record))->second);
  }
  next_id_ = std::max(next_id_, id + 1);
}

Edit reversed(const Edit& edit) {
  Edit back{edit.label, {}};
  for (auto change = edit.changes.rbegin(); change != edit.changes.rend(); ++change)
    back.changes.push_back({change->id, change->after, change->before});
  return back;
}

} // namespace datrin::build
