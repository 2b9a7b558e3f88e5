#include "store/record_json.h"

#include "build/check.h"
#include "quantity/text.h"
#include "store/base64.h"
#include "store/json_reader.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <bit>
#include <cmath>
#include <cstring>
#include <limits>
#include <span>

namespace datrin::store {

using namespace build;
using nlohmann::json;

namespace {

static_assert(std::endian::native == std::endian::little, "scans are written little-endian");

json vector_json(const Vec3& v) {
  return json::array({v.x(), v.y(), v.z()});
}

json pose_json(const Pose& pose) {
  json rotation = json::array();
  for (int r = 0; r < 3; ++r)
    for (int c = 0; c < 3; ++c) rotation.push_back(pose.rotation(r, c));
  return {{"rotation", std::move(rotation)}, {"translation", vector_json(pose.translation)}};
}

// --- Writing

json body_json(const std::vector<Field>& fields, const void* record);

void write_points(const ScanPoints* points, json& body) {
  body["surfaces"] = points ? json(points->surfaces) : json::array();
  body["points"] = points ? base64(std::as_bytes(std::span(points->at))) : "";
  body["given_to"] = points ? base64(std::as_bytes(std::span(points->surface))) : "";
}

void write_field(const Field& f, const void* record, json& body) {
  const void* at = f.at_const(record);
  switch (f.type) {
  case FieldType::text:
    body[f.name] = *static_cast<const std::string*>(at);
    return;
  case FieldType::number:
    body[f.name] = *static_cast<const double*>(at);
    return;
  case FieldType::whole:
    body[f.name] = *static_cast<const int*>(at);
    return;
  case FieldType::flag:
    body[f.name] = *static_cast<const bool*>(at) ? 1 : 0;
    return;
  case FieldType::flags: {
    auto& list = body[f.name] = json::array();
    for (std::size_t k = 0; k < f.count; ++k) list.push_back(static_cast<const bool*>(at)[k] ? 1 : 0);
    return;
  }
  case FieldType::word:
    body[f.name] = f.words.first[static_cast<std::size_t>(f.word_at(record))];
    return;
  case FieldType::id:
    body[f.name] = *static_cast<const Id*>(at);
    return;
  case FieldType::ids: {
    auto& list = body[f.name] = json::array();
    for (std::size_t k = 0; k < id_count(f, at); ++k) list.push_back(id_at(f, at, k));
    return;
  }
  case FieldType::vector:
    body[f.name] = vector_json(*static_cast<const Vec3*>(at));
    return;
  case FieldType::pose:
    body[f.name] = pose_json(*static_cast<const Pose*>(at));
    return;
  case FieldType::list: {
    auto& list = body[f.name] = json::array();
    for (std::size_t k = 0; k < f.list.size(at); ++k)
      list.push_back(body_json(f.element, f.list.at(const_cast<void*>(at), k))); // reads only
    return;
  }
  case FieldType::points:
    write_points(static_cast<const std::shared_ptr<const ScanPoints>*>(at)->get(), body);
    return;
  }
}

json body_json(const std::vector<Field>& fields, const void* record) {
  json body = json::object();
  for (const auto& f : fields) write_field(f, record, body);
  return body;
}

// --- Reading

Id id_from(const JsonAt& at) {
  const double value = at.number();
  constexpr double exact = 9e15; // larger whole numbers are not exact in a double
  if (value < 0 || value > exact || value != std::floor(value)) at.refuse("must be a whole number");
  return static_cast<Id>(value);
}

int whole_from(const JsonAt& at) {
  const double value = at.number();
  if (value != std::floor(value) || std::abs(value) > std::numeric_limits<int>::max())
    at.refuse("must be a whole number");
  return static_cast<int>(value);
}

bool flag_from(const JsonAt& at) {
  const auto value = at.number();
  if (value != 0 && value != 1) at.refuse("must be 0 or 1");
  return value != 0;
}

int word_from(const Words& words, const JsonAt& at) {
  const auto text = at.text();
  for (std::size_t k = 0; k < words.second; ++k)
    if (words.first[k] == text) return static_cast<int>(k);
  at.refuse(
      fmt::format("must be one of \"{}\"", fmt::join(words.first, words.first + words.second, "\", \"")));
}

Pose pose_from(const JsonAt& at) {
  Pose pose;
  const auto rotation = at.at("rotation");
  if (rotation.size() != 9) rotation.refuse("must be nine numbers, row by row");
  for (int i = 0; i < 9; ++i) pose.rotation(i / 3, i % 3) = rotation.at(static_cast<std::size_t>(i)).number();
  pose.translation = at.at("translation").vector();
  return pose;
}

template <class T>
std::vector<T> numbers_from(const JsonAt& at) {
  const auto bytes = from_base64(at.text());
  if (!bytes) at.refuse("must be base64 (RFC 4648)");
  if (bytes->size() % sizeof(T) != 0) at.refuse("is cut short");
  std::vector<T> values(bytes->size() / sizeof(T));
  if (!values.empty()) std::memcpy(values.data(), bytes->data(), bytes->size());
  return values;
}

std::shared_ptr<const ScanPoints> points_from(const JsonAt& body) {
  auto points = std::make_shared<ScanPoints>();
  points->at = numbers_from<std::array<float, 3>>(body.at("points"));
  points->surface = numbers_from<std::uint16_t>(body.at("given_to"));
  const auto surfaces = body.at("surfaces");
  for (std::size_t k = 0; k < surfaces.size(); ++k) points->surfaces.push_back(id_from(surfaces.at(k)));
  return points;
}

void read_fields(const std::vector<Field>& fields, const JsonAt& body, void* record);

void read_field(const Field& f, const JsonAt& body, void* record) {
  void* to = f.at(record);
  if (f.type == FieldType::points) {
    *static_cast<std::shared_ptr<const ScanPoints>*>(to) = points_from(body);
    return;
  }
  if (f.since > 1 && !body.has(f.name)) return; // written before there was such a member
  const auto at = body.at(f.name);
  switch (f.type) {
  case FieldType::text:
    *static_cast<std::string*>(to) = at.text();
    return;
  case FieldType::number:
    *static_cast<double*>(to) = at.number();
    return;
  case FieldType::whole:
    *static_cast<int*>(to) = whole_from(at);
    return;
  case FieldType::flag:
    *static_cast<bool*>(to) = flag_from(at);
    return;
  case FieldType::flags:
    if (at.size() != f.count) at.refuse(fmt::format("must be {}", f.count));
    for (std::size_t k = 0; k < f.count; ++k) static_cast<bool*>(to)[k] = flag_from(at.at(k));
    return;
  case FieldType::word:
    f.set_word(record, word_from(f.words, at));
    return;
  case FieldType::id:
    *static_cast<Id*>(to) = id_from(at);
    return;
  case FieldType::ids:
    if (f.count > 0 && at.size() != f.count) at.refuse(fmt::format("must be {}", f.count));
    for (std::size_t k = 0; k < at.size(); ++k)
      (f.count > 0 ? static_cast<Id*>(to)[k] : *static_cast<Id*>(f.list.append(to))) = id_from(at.at(k));
    return;
  case FieldType::vector:
    *static_cast<Vec3*>(to) = at.vector();
    return;
  case FieldType::pose:
    *static_cast<Pose*>(to) = pose_from(at);
    return;
  case FieldType::list:
    for (std::size_t k = 0; k < at.size(); ++k) read_fields(f.element, at.at(k), f.list.append(to));
    return;
  case FieldType::points:
    return;
  }
}

void read_fields(const std::vector<Field>& fields, const JsonAt& body, void* record) {
  for (const auto& f : fields) read_field(f, body, record);
}

} // namespace

std::string_view record_kind(const Record& record) {
  return record.description().name;
}

json record_body(const Record& record) {
  return body_json(record.description().fields, record.value().get());
}

Record record_from_json(std::string_view kind, const json& body) {
  const int number = kind_called(kind);
  if (number < 0) throw Refusal(fmt::format("there is no kind of record called \"{}\"", one_line(kind)));
  const auto& description = build::description(number);
  std::vector<std::string> warnings;
  auto record = description.make();
  read_fields(description.fields, JsonAt(body, std::string(kind), warnings), record.get());
  if (const auto wrong = first_wrong(description, record.get()))
    throw Refusal(fmt::format("{}: {}: {}", kind, wrong->field, wrong->rule));
  return Record(number, std::move(record));
}

json changes_json(const std::vector<Change>& changes) {
  const auto side = [](const std::optional<Record>& record) {
    return record ? json{{"kind", record_kind(*record)}, {"body", record_body(*record)}} : json(nullptr);
  };
  json rows = json::array();
  for (const auto& change : changes)
    rows.push_back({{"id", change.id}, {"before", side(change.before)}, {"after", side(change.after)}});
  return rows;
}

std::vector<Change> changes_from_json(const json& rows) {
  std::vector<Change> changes;
  const auto side = [](const json& value) -> std::optional<Record> {
    if (value.is_null()) return std::nullopt;
    return record_from_json(value.at("kind").get<std::string>(), value.at("body"));
  };
  for (const auto& row : rows)
    changes.push_back({row.at("id").get<Id>(), side(row.at("before")), side(row.at("after"))});
  return changes;
}

} // namespace datrin::store
