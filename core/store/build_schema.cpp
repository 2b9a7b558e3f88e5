#include "store/build_schema.h"

#include "build/description.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <limits>

namespace datrin::store {

using namespace build;
using nlohmann::ordered_json;

namespace {

ordered_json object_of(const std::vector<Field>& fields);

ordered_json number_schema(const Field& f) {
  ordered_json s{{"type", f.type == FieldType::whole ? "integer" : "number"}};
  switch (f.rule) {
  case Rule::any:
  case Rule::unit_length:
    if (f.measures == Measures::length) s["minimum"] = -most_length;
    break;
  case Rule::not_negative:
    s["minimum"] = 0;
    break;
  case Rule::positive:
    s["exclusiveMinimum"] = 0;
    break;
  case Rule::within:
    s["minimum"] = f.least;
    s["maximum"] = f.most;
    break;
  }
  if (f.measures == Measures::length) s["maximum"] = most_length;
  switch (f.measures) {
  case Measures::plain:
    break;
  case Measures::length:
    s["description"] = "mm";
    break;
  case Measures::angle:
    s["description"] = "radians";
    break;
  case Measures::temperature:
    s["description"] = "degrees Celsius";
    break;
  }
  return s;
}

ordered_json id_schema(const Field& f) {
  ordered_json s{{"type", "integer"}, {"minimum", 0}};
  std::string kinds;
  for (const int kind : f.refers_to)
    kinds += fmt::format("{}{}", kinds.empty() ? "" : " or ", description(kind).name);
  if (!kinds.empty())
    s["description"] = fmt::format("id of a {}{}; 0: none", kinds,
                                   f.reference == Reference::points_to ? ", forgotten when that goes" : "");
  return s;
}

ordered_json list_of(ordered_json items, std::size_t count) {
  ordered_json s{{"type", "array"}, {"items", std::move(items)}};
  if (count > 0) {
    s["minItems"] = count;
    s["maxItems"] = count;
  }
  return s;
}

ordered_json flag_schema() {
  return {{"enum", ordered_json::array({0, 1})}};
}

void add_field(const Field& f, ordered_json& properties) {
  switch (f.type) {
  case FieldType::text:
    properties[f.name] = {{"type", "string"}};
    return;
  case FieldType::number:
  case FieldType::whole:
    properties[f.name] = number_schema(f);
    return;
  case FieldType::flag:
    properties[f.name] = flag_schema();
    return;
  case FieldType::flags:
    properties[f.name] = list_of(flag_schema(), f.count);
    return;
  case FieldType::word: {
    auto& words = (properties[f.name] = ordered_json::object())["enum"] = ordered_json::array();
    for (std::size_t k = 0; k < f.words.second; ++k) words.push_back(f.words.first[k]);
    return;
  }
  case FieldType::id:
    properties[f.name] = id_schema(f);
    return;
  case FieldType::ids:
    properties[f.name] = list_of(id_schema(f), f.count);
    return;
  case FieldType::vector:
    properties[f.name] = {{"$ref", "#/$defs/vector"}};
    if (f.rule == Rule::unit_length) properties[f.name]["description"] = "of unit length";
    return;
  case FieldType::pose:
    properties[f.name] = {{"$ref", "#/$defs/pose"}};
    return;
  case FieldType::list:
    properties[f.name] = list_of(object_of(f.element), 0);
    return;
  case FieldType::points:
    properties["surfaces"] = list_of({{"type", "integer"}, {"minimum", 1}}, 0);
    properties["points"] = {{"type", "string"}, {"contentEncoding", "base64"}};
    properties["given_to"] = {{"type", "string"}, {"contentEncoding", "base64"}};
    return;
  }
}

ordered_json object_of(const std::vector<Field>& fields) {
  ordered_json properties = ordered_json::object();
  for (const auto& f : fields) add_field(f, properties);
  ordered_json required = ordered_json::array();
  for (const auto& [name, unused] : properties.items()) required.push_back(name);
  return {{"type", "object"}, {"required", std::move(required)}, {"properties", std::move(properties)}};
}

} // namespace

std::string build_schema() {
  ordered_json kinds = ordered_json::array(), choices = ordered_json::array(),
               definitions = ordered_json::object();
  const ordered_json number{{"type", "number"}};
  definitions["vector"] = list_of(number, 3);
  auto rotation = list_of(number, 9);
  rotation["description"] = "row by row";
  definitions["pose"] = {
      {"type", "object"},
      {"required", {"rotation", "translation"}},
      {"properties", {{"rotation", rotation}, {"translation", {{"$ref", "#/$defs/vector"}}}}}};
  for (const auto& d : descriptions()) {
    kinds.push_back(d.name);
    choices.push_back(
        {{"if", {{"properties", {{"kind", {{"const", d.name}}}}}}},
         {"then", {{"properties", {{"body", {{"$ref", fmt::format("#/$defs/{}", d.name)}}}}}}}});
    auto& definition = definitions[d.name] = object_of(d.fields);
    definition["description"] = d.meaning;
  }
  definitions["record"] = {{"type", "object"},
                           {"required", {"id", "kind", "body"}},
                           {"additionalProperties", false},
                           {"properties",
                            {{"id", {{"type", "integer"}, {"minimum", 1}}},
                             {"kind", {{"enum", std::move(kinds)}}},
                             {"body", {{"type", "object"}}}}},
                           {"allOf", std::move(choices)}};
  const ordered_json text{{"type", "string"}};
  ordered_json schema;
  schema["$schema"] = "https://json-schema.org/draft/2020-12/schema";
  schema["$id"] = "urn:datrin:build:1";
  schema["title"] = "A Datrin build as one JSON file";
  schema["description"] =
      "As this version writes it; files of earlier ones may leave out members that were not there yet.";
  schema["type"] = "object";
  schema["required"] = {"format", "version", "next_id", "records"};
  schema["additionalProperties"] = false;
  schema["properties"] = {
      {"format", {{"const", "datrin-build"}}},
      {"version", {{"const", 1}}},
      {"next_id", {{"type", "integer"}, {"minimum", 1}}},
      {"records", list_of({{"$ref", "#/$defs/record"}}, 0)},
      {"log", list_of({{"type", "object"},
                       {"required", {"at", "label"}},
                       {"properties", {{"at", text}, {"label", text}, {"undone", {{"type", "boolean"}}}}}},
                      0)}};
  schema["$defs"] = std::move(definitions);
  return schema.dump(1) + "\n";
}

} // namespace datrin::store
