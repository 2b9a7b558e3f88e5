#include "store/build_json.h"

#include "build/references.h"
#include "quantity/text.h"
#include "store/failure_words.h"
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

/// Takes the document's elements one by one; what is wrong first is kept until it is known whether the
/// document is a build at all.
class Reader {
public:
  Reader(std::string label, const ReadOptions& options) : label_(std::move(label)), options_(options) {}

  BuildJson read(std::string_view text) {
    const auto take_one = [this](const std::string& list, std::size_t k, const json& element) {
      if (!wrong_.empty()) return;
      try {
        take(list, k, element);
      } catch (const Refusal& why) {
        wrong_ = why.what();
      }
    };
    const json document = parse_json(text, label_, take_one, options_);
    const JsonAt at(document, label_, warnings_);
    at.only_keys({"format", "version", "next_id", "records", "log"});
    if (at.at("format").text() != "datrin-build") at.at("format").refuse("must be \"datrin-build\"");
    if (at.at("version").number() != 1) at.at("version").refuse("must be 1");
    (void)at.at("records").size();
    if (!wrong_.empty()) throw Refusal(wrong_);
    if (const auto dangling = build::first_dangling(result_.build); !dangling.empty())
      at.at("records").refuse(dangling);
    result_.build.reserve(whole(at.at("next_id")));
    if (at.has("log")) (void)at.at("log").size();
    result_.ok = true;
    return std::move(result_);
  }

private:
  static build::Id whole(const JsonAt& value) {
    const double number = value.positive();
    if (number != std::floor(number) || number > 9e15) value.refuse("must be a whole number");
    return static_cast<build::Id>(number);
  }

  void take(const std::string& list, std::size_t k, const json& element) {
    const JsonAt root(none_, label_, warnings_);
    if (list == "records") take_record(root.element("records", k, element), k, element);
    if (list == "log") take_line(root.element("log", k, element), element);
  }

  void take_record(const JsonAt& row, std::size_t k, const json& element) {
    const auto id = whole(row.at("id"));
    const bool there = result_.build.records().contains(id);
    if (there && !(id == build::Build::info_id && k == 0)) row.at("id").refuse("stands twice");
    if (k >= build::Build::most_records)
      row.refuse(fmt::format("a build has at most {} records", grouped(build::Build::most_records)));
    const auto kind = row.at("kind").text();
    (void)row.at("body");
    std::optional<build::Record> record;
    try {
      record = record_from_json(kind, element["body"]);
    } catch (const Refusal& why) {
      row.refuse(why.what());
    }
    if ((id == build::Build::info_id) != (record->as<build::Info>() != nullptr))
      row.at("id").refuse("the build itself, and nothing else, has id 1; it comes first");
    result_.build.load(id, std::move(*record));
  }

  void take_line(const JsonAt& line, const json& element) {
    const auto& undone = element.is_object() && element.contains("undone") ? element["undone"] : json(false);
    if (!undone.is_boolean()) line.at("undone").refuse("must be true or false");
    result_.log.push_back({static_cast<std::int64_t>(result_.log.size()) + 1, line.at("at").text(),
                           line.at("label").text(), undone.get<bool>()});
  }

  std::string label_, wrong_;
  const ReadOptions& options_;
  std::vector<std::string> warnings_;
  json none_;
  BuildJson result_;
};

BuildJson guarded(const std::string& label, const auto& action) {
  BuildJson result;
  try {
    return action();
  } catch (const Refusal& why) {
    result.message = why.what();
  } catch (const std::exception& why) {
    result.message = fmt::format("{}: {}", label, failure_words(why));
  }
  return result;
}

} // namespace

BuildJson read_build_json(std::string_view text, const std::string& label, const ReadOptions& options) {
  return guarded(label, [&] {
    if (!is_utf8(text)) throw Refusal(label + ": the text is not UTF-8");
    return Reader(label, options).read(text);
  });
}

BuildJson read_build_json_file(const std::string& path, const ReadOptions& options) {
  return guarded(path, [&] { return Reader(path, options).read(read_text_file(path)); });
}

} // namespace datrin::store
