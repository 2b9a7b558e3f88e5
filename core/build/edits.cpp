#include "build/edits.h"

#include "build/description.h"
#include "build/references.h"

#include <fmt/format.h>

#include <set>

namespace datrin::build {

Edit add(const Build& build, Record record, std::string label) {
  return {std::move(label), {{build.next_id(), std::nullopt, std::move(record)}}};
}

Added added(const Build& build, Record record, std::string label) {
  return {build.next_id(), add(build, std::move(record), std::move(label)), {}};
}

Edit replace(const Build& build, Id id, Record record, std::string label) {
  const auto found = build.records().find(id);
  if (found == build.records().end()) return is_gone();
  if (found->second == record) return {};
  return {std::move(label), {{id, found->second, std::move(record)}}};
}

Edit add_all(const Build& build, std::vector<Record> records, std::string label) {
  Edit edit{std::move(label), {}};
  Id id = build.next_id();
  edit.changes.reserve(records.size());
  for (auto& record : records) edit.changes.push_back({id++, std::nullopt, std::move(record)});
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
  if (id == Build::info_id) return cannot("the build itself stays");
  if (!build.records().count(id)) return is_gone();
  return remove_set(build, {id}, std::move(label));
}

Edit remove_all(const Build& build, const std::vector<Id>& ids, std::string label) {
  std::set<Id> gone;
  for (const auto id : ids)
    if (id != Build::info_id && build.records().contains(id)) gone.insert(id);
  if (gone.empty()) return {};
  return remove_set(build, gone, std::move(label));
}

std::string name_of(const Record& record) {
  const auto& description = record.description();
  if (const auto* field = description.field("name"); field != nullptr && field->type == FieldType::text)
    if (const auto& name = *static_cast<const std::string*>(field->at_const(record.value().get()));
        !name.empty())
      return name;
  return description.name;
}

Edit change(const Build& build, Id id, Record changed, std::string_view what) {
  auto label = fmt::format("{} of {}", what, name_of(changed));
  return replace(build, id, std::move(changed), std::move(label));
}

std::string surface_name(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  return s ? s->name : "?";
}

Edit take_away(const Build& build, Id id) {
  const auto found = build.records().find(id);
  if (found == build.records().end()) return is_gone();
  const auto name = name_of(found->second);
  const std::string_view kind = found->second.description().name;
  return remove(build, id, name == kind ? fmt::format("Remove a {}", name) : fmt::format("Remove {}", name));
}

} // namespace datrin::build
