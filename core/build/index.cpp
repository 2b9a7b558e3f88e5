#include "build/index.h"

#include "build/description.h"
#include "build/references.h"

#include <algorithm>

namespace datrin::build {

namespace {

Entries::iterator place_in(Entries& entries, Id id, double place) {
  return std::lower_bound(entries.begin(), entries.end(), id,
                          [place](const ListEntry& e, Id wanted) { return e.before(place, wanted); });
}

/// The owners of a record: what it needs, each once, and 0 for the list of its kind.
std::vector<Id> owners_of(const Record& record) {
  auto owners = needs(record);
  std::sort(owners.begin(), owners.end());
  owners.erase(std::unique(owners.begin(), owners.end()), owners.end());
  owners.push_back(0);
  return owners;
}

/// Whether it is the list of all of a kind that belongs to others, where places within one owner say nothing.
bool among_all(Id owner, const std::vector<Id>& owners) {
  return owner == 0 && owners.size() > 1;
}

} // namespace

void Index::put(const Key& key, Id id, double place, const std::shared_ptr<const void>& value) {
  auto& list = lists_[key];
  if (!list) list = std::make_shared<Entries>();
  if (list.use_count() > 1) list = std::make_shared<Entries>(*list);
  const auto at = list->empty() || list->back().before(place, id) ? list->end() : place_in(*list, id, place);
  list->insert(at, {place, id, value});
}

void Index::drop(const Key& key, Id id, double place) {
  const auto found = lists_.find(key);
  if (found == lists_.end()) return;
  auto& list = found->second;
  if (list.use_count() > 1) list = std::make_shared<Entries>(*list);
  const auto at = place_in(*list, id, place);
  if (at != list->end() && at->id == id) list->erase(at);
  if (list->empty()) lists_.erase(found);
}

void Index::add(Id id, const Record& record) {
  const double place = record.description().place_of(record.value().get());
  const auto owners = owners_of(record);
  for (const Id owner : owners)
    put({record.kind(), owner}, id, among_all(owner, owners) ? 0 : place, record.value());
}

void Index::remove(Id id, const Record& record) {
  const double place = record.description().place_of(record.value().get());
  const auto owners = owners_of(record);
  for (const Id owner : owners) drop({record.kind(), owner}, id, among_all(owner, owners) ? 0 : place);
}

std::shared_ptr<const Entries> Index::entries(int kind, Id owner) const {
  const auto found = lists_.find({kind, owner});
  return found == lists_.end() ? nullptr : found->second;
}

} // namespace datrin::build
