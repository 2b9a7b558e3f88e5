#include "store/build_json.h"

#include "demo/mill_engine.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>

using namespace datrin;
using namespace datrin::store;

namespace {

std::string document(const std::string& records) {
  return R"({"format": "datrin-build", "version": 1, "next_id": 9, "records": [)" + records + "]}";
}

std::string refusal(const std::string& text) {
  return read_build_json(text, "b.json").message;
}

constexpr const char* part =
    R"({"id": 2, "kind": "part", "body": {"name": "p", "material": "", "quantity": 1, "order": 0}})";

} // namespace

TEST(BuildJson, ComesBackTheSameWithItsLog) {
  const auto demo = demo::mill_engine();
  const std::vector<LogLine> log{{1, "2020-02-03T04:05:06Z", "Add part \"A\"", false},
                                 {2, "2020-02-03T04:05:07Z", "Move it", true}};
  const auto text = write_build_json(demo.build, log);
  const auto read = read_build_json(text, "b.json");
  ASSERT_TRUE(read.ok) << read.message;
  EXPECT_EQ(read.build.records(), demo.build.records());
  EXPECT_EQ(read.build.next_id(), demo.build.next_id());
  EXPECT_EQ(read.log, log);
  EXPECT_EQ(write_build_json(read.build, read.log), text);
}

TEST(BuildJson, OneRecordALineSoThatTwoVersionsCompare) {
  const auto demo = demo::mill_engine();
  const auto text = write_build_json(demo.build, {});
  EXPECT_EQ(static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n')),
            demo.build.records().size() + 8);
}

TEST(BuildJson, RefusalsNameThePlaceAndTheRule) {
  EXPECT_EQ(refusal("{"), "b.json: line 1, column 2: this is not JSON: it ends too early");
  EXPECT_EQ(refusal(R"({"format": "other", "version": 1, "next_id": 2, "records": []})"),
            "b.json: /format: must be \"datrin-build\"");
  EXPECT_EQ(refusal(R"({"format": "datrin-build", "version": 2, "next_id": 2, "records": []})"),
            "b.json: /version: must be 1");
  EXPECT_EQ(refusal(document(std::string(part) + "," + part)), "b.json: /records/1/id: stands twice");
  EXPECT_EQ(refusal(document(R"({"id": 2, "kind": "wheel", "body": {}})")),
            "b.json: /records/0: there is no kind of record called \"wheel\"");
  EXPECT_EQ(refusal(document(R"({"id": 2, "kind": "piece", "body": {"part": 7, "number": 1}})")),
            "b.json: /records: record 2 needs record 7, which is not there");
  EXPECT_EQ(refusal(document(R"({"id": 1, "kind": "piece", "body": {"part": 7, "number": 1}})")),
            "b.json: /records/0/id: the build itself, and nothing else, has id 1; it comes first");
}

// In this program's words, not a parser's.
TEST(BuildJson, SaysWhatCannotStandWhere) {
  const auto says = [](const std::string& text) { return store::read_build_json(text, "b.json").message; };
  EXPECT_EQ(says("{\"format\": \"datrin-build\",\n \"version\": ?}"),
            "b.json: line 2, column 13: this is not JSON: \"?\" cannot stand here");
  EXPECT_EQ(says("[1, 2, \u00b0]"),
            "b.json: line 1, column 8: this is not JSON: \"\u00b0\" cannot stand here");
  EXPECT_EQ(says("{\"a\nb\": 1}"),
            "b.json: line 1, column 4: this is not JSON: a text in it holds a line end or another "
            "control character, which must be written as \\u000a");
  EXPECT_EQ(says("[1e999]"), "b.json: line 1, column 6: the number is too large");
  EXPECT_EQ(says("{\"a\": 1, \"a\": 2}"), "b.json: the key \"a\" stands twice in one object");
  EXPECT_EQ(says("\xff"), "b.json: the text is not UTF-8");
}

// Reading 130 MB took twenty seconds with nothing said.
TEST(BuildJson, SaysHowFarItIsAndStopsWhenAsked) {
  std::string records = part;
  for (int id = 3; id < 3000; ++id)
    records += R"(,{"id": )" + std::to_string(id) + R"(, "kind": "piece", "body": {"part": 2, "number": 1}})";
  std::vector<double> told;
  ReadOptions options;
  options.progress = [&told](double so_far) { told.push_back(so_far); };
  ASSERT_TRUE(read_build_json(document(records), "b.json", options).ok);
  ASSERT_GE(told.size(), 4U);
  EXPECT_TRUE(std::is_sorted(told.begin(), told.end()));
  EXPECT_GT(told.front(), 0);
  EXPECT_LT(told.front(), 0.5);
  EXPECT_GT(told.back(), 0.5);
  EXPECT_LE(told.back(), 1);
  options.should_stop = [&told] { return told.back() > 0.3; };
  const auto stopped = read_build_json(document(records), "b.json", options);
  EXPECT_FALSE(stopped.ok);
  EXPECT_EQ(stopped.message, "b.json: reading it was stopped; nothing was taken");
  EXPECT_LE(stopped.build.records().size(), 1U);
}
