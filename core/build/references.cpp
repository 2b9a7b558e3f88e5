#include "build/references.h"

#include "build/description.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::build {

std::vector<Id> needs(const Record& record) {
  std::vector<Id> ids;
  for (const auto& f : record.description().fields)
    if (f.reference == Reference::needs)
      if (const Id id = *static_cast<const Id*>(f.at_const(record.value().get())); id != 0) ids.push_back(id);
  return ids;
}

namespace {

bool among(const std::vector<Id>& gone, Id id) {
  return id != 0 && std::binary_search(gone.begin(), gone.end(), id);
}

bool names_any(const Field& f, const void* record, const std::vector<Id>& gone) {
  const void* at = f.at_const(record);
  switch (f.type) {
  case FieldType::id:
    return among(gone, *static_cast<const Id*>(at));
  case FieldType::ids:
    for (std::size_t k = 0; k < id_count(f, at); ++k)
      if (among(gone, id_at(f, at, k))) return true;
    return false;
  case FieldType::list:
    for (std::size_t k = 0; k < f.list.size(at); ++k)
      for (const auto& part : f.element)
        if (part.reference != Reference::none && names_any(part, f.list.at(const_cast<void*>(at), k), gone))
          return true;
    return false;
  default:
    return false;
  }
}

void take_out(const Field& f, void* record, const std::vector<Id>& gone) {
  void* at = f.at(record);
  switch (f.type) {
  case FieldType::id:
    if (auto& id = *static_cast<Id*>(at); among(gone, id)) id = 0;
    return;
  case FieldType::ids:
    for (std::size_t k = id_count(f, at); k-- > 0;) {
      if (!among(gone, id_at(f, at, k))) continue;
      if (f.count > 0)
        static_cast<Id*>(at)[k] = 0;
      else
        f.list.erase(at, k);
    }
    return;
  case FieldType::list:
    for (std::size_t k = f.list.size(at); k-- > 0;) {
      bool stands = true;
      for (const auto& part : f.element) {
        if (part.reference == Reference::needs && names_any(part, f.list.at(at, k), gone)) stands = false;
        if (part.reference == Reference::points_to) take_out(part, f.list.at(at, k), gone);
      }
      if (!stands) f.list.erase(at, k);
    }
    return;
  default:
    return;
  }
}

bool only_points(const Field& f) {
  return f.reference == Reference::points_to || f.type == FieldType::list;
}

} // namespace

std::optional<Record> without(const Record& record, const std::vector<Id>& gone) {
  const auto& fields = record.description().fields;
  const void* value = record.value().get();
  if (std::none_of(fields.begin(), fields.end(),
                   [&](const Field& f) { return only_points(f) && names_any(f, value, gone); }))
    return std::nullopt;
  auto changed = record.description().copy(value);
  for (const auto& f : fields)
    if (only_points(f)) take_out(f, changed.get(), gone);
  return Record(record.kind(), std::move(changed));
}

std::string dangling(Id id, const Record& record, const std::function<const Record*(Id)>& standing) {
  for (const auto& f : record.description().fields) {
    if (f.reference != Reference::needs) continue;
    const Id needed = *static_cast<const Id*>(f.at_const(record.value().get()));
    if (needed == 0) continue;
    const auto* found = standing(needed);
    if (found == nullptr) return fmt::format("record {} needs record {}, which is not there", id, needed);
    if (std::find(f.refers_to.begin(), f.refers_to.end(), found->kind()) == f.refers_to.end())
      return fmt::format("record {} needs record {} as its {}, but that is a {}", id, needed, f.name,
                         found->description().name);
  }
  return {};
}

std::string first_dangling(const Build& build) {
  const auto standing = [&](Id id) -> const Record* {
    const auto found = build.records().find(id);
    return found == build.records().end() ? nullptr : &found->second;
  };
  for (const auto& [id, record] : build.records())
    if (auto wrong = dangling(id, record, standing); !wrong.empty()) return wrong;
  return {};
}

} // namespace datrin::build
