#include "store/build_json.h"

#include "build/references.h"
#include "store/json_reader.h"
#include "store/record_json.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::store {

using nlohmann::json;

std::string write_build_json(const build::Build& build, const std::vector<LogLine>& log) {
  std::string text =
      fmt::format("{{\n\"format\": \"datrin-build\", \"version\": 1, \"next_id\": {},\n\"records\": [\n",
                  build.next_id());
  bool first = true;
  for (const auto& [id, record] : build.records()) {
    text += fmt::format("{}{{\"id\": {}, \"kind\": \"{}\", \"body\": {}}}", first ? "" : ",\n", id,
                        record_kind(record), record_body(record).dump());
    first = false;
  }
  text += "\n],\n\"log\": [\n";
  first = true;
  for (const auto& line : log) {
    text += fmt::format("{}{{\"at\": {}, \"label\": {}, \"undone\": {}}}", first ? "" : ",\n",
                        json(line.at).dump(), json(line.label).dump(), line.undone);
    first = false;
  }
  return text + "\n]\n}\n";
}

namespace {

BuildJson read(std::string_view text, const std::string& label) {
  BuildJson result;
  const json document = parse_json(text, label);
  std::vector<std::string> warnings;
  const JsonAt at(document, label, warnings);
  at.only_keys({"format", "version", "next_id", "records", "log"});
  if (at.at("format").text() != "datrin-build") at.at("format").refuse("must be \"datrin-build\"");
  if (at.at("version").number() != 1) at.at("version").refuse("must be 1");
  const auto whole = [](const JsonAt& value) {
    const double number = value.positive();
    if (number != std::floor(number) || number > 9e15) value.refuse("must be a whole number");
    return static_cast<build::Id>(number);
  };
  const auto records = at.at("records");
  for (std::size_t k = 0; k < records.size(); ++k) {
    const auto row = records.at(k);
    const auto id = whole(row.at("id"));
    const bool there = result.build.records().contains(id);
    if (there && !(id == build::Build::info_id && k == 0)) row.at("id").refuse("stands twice");
    const auto kind = row.at("kind").text();
    (void)row.at("body");
    std::optional<build::Record> record;
    try {
      record = record_from_json(kind, document["records"][k]["body"]);
    } catch (const Refusal& why) {
      row.refuse(why.what());
    }
    if ((id == build::Build::info_id) != (record->as<build::Info>() != nullptr))
      row.at("id").refuse("the build itself, and nothing else, has id 1; it comes first");
    result.build.load(id, std::move(*record));
  }
  if (const auto dangling = build::first_dangling(result.build); !dangling.empty()) records.refuse(dangling);
  result.build.reserve(whole(at.at("next_id")));
  if (at.has("log")) {
    const auto log = at.at("log");
    for (std::size_t k = 0; k < log.size(); ++k) {
      const auto& undone = document["log"][k].contains("undone") ? document["log"][k]["undone"] : json(false);
      if (!undone.is_boolean()) log.at(k).at("undone").refuse("must be true or false");
      result.log.push_back({static_cast<std::int64_t>(k) + 1, log.at(k).at("at").text(),
                            log.at(k).at("label").text(), undone.get<bool>()});
    }
  }
  result.ok = true;
  return result;
}

BuildJson guarded(const auto& action) {
  try {
    return action();
  } catch (const std::exception& why) {
    BuildJson result;
    result.message = why.what();
    return result;
  }
}

} // namespace

BuildJson read_build_json(std::string_view text, const std::string& label) {
  return guarded([&] { return read(text, label); });
}

BuildJson read_build_json_file(const std::string& path) {
  return guarded([&] { return read(read_text_file(path), path); });
}

} // namespace datrin::store
