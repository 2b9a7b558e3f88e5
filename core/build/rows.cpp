#include "build/rows.h"

#include <set>

namespace datrin::build {

Id Rows::add(Record record) {
  const Id id = build_.next_id();
  set(id, std::move(record));
  return id;
}

void Rows::set(Id id, Record record) {
  build_.load(id, std::move(record));
  touched_.push_back(id);
}

void Rows::take_away(Id id) {
  apply(remove(build_, id, {}));
}

void Rows::apply(const Edit& edit) {
  if (!build_.apply(edit)) return;
  for (const auto& change : edit.changes) touched_.push_back(change.id);
}

Edit Rows::edit(std::string label) const {
  Edit out{std::move(label), {}};
  std::set<Id> done;
  const auto in = [](const Build& build, Id id) {
    const auto found = build.records().find(id);
    return found == build.records().end() ? std::optional<Record>() : std::optional<Record>(found->second);
  };
  for (const Id id : touched_) {
    if (!done.insert(id).second) continue;
    Change change{id, in(before_, id), in(build_, id)};
    if (!(change.before == change.after)) out.changes.push_back(std::move(change));
  }
  return out;
}

} // namespace datrin::build
