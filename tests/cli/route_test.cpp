#include "tests/cli/call.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <filesystem>
#include <fstream>

#include <unistd.h>

using datrin::test::call;
using nlohmann::json;

namespace {

/// A case in a file of its own, gone with it.
class CaseFile {
public:
  explicit CaseFile(const std::string& text)
      : path_(std::filesystem::temp_directory_path() /
              ("datrin-route-" + std::to_string(::getpid()) + ".json")) {
    std::ofstream(path_) << text;
  }
  ~CaseFile() { std::filesystem::remove(path_); }
  std::string path() const { return path_.string(); }

private:
  std::filesystem::path path_;
};

const char* const two_sides = R"({"format":"datrin-route-case","version":1,"operations":[
  {"id":"10","setup":"top up","tool":"cutter","minutes":5,"after":[]},
  {"id":"20","setup":"foot up","tool":"cutter","minutes":7},
  {"id":"30","setup":"top up","tool":"drill","minutes":3,"after":["10","20"]},
  {"id":"deburr","setup":null,"tool":"file","minutes":1,"after":["30"]}],
  "setup_minutes":15,"tool_minutes":2,"pieces":1,"manner":"part by part"})";

std::string with(std::string text, const std::string& from, const std::string& to) {
  text.replace(text.find(from), from.size(), to);
  return text;
}

} // namespace

TEST(CliRoute, TheOrderOfFewestMinutes) {
  const CaseFile file(two_sides);
  const auto run = call({"route", file.path()});
  ASSERT_EQ(run.status, 0) << run.err;
  const auto result = json::parse(run.out);
  EXPECT_EQ(result["order"], (json{"20", "10", "30", "deburr"}));
  EXPECT_EQ(result["setups"], 2);
  EXPECT_EQ(result["tool_changes"], 3);
  EXPECT_DOUBLE_EQ(result["minutes"].get<double>(), 16 + 2 * 15 + 3 * 2);
  EXPECT_EQ(result["proved_best"], true);
  EXPECT_EQ(result["lower_bound"], result["minutes"]);
  const auto text = call({"route", "--text", file.path()});
  EXPECT_NE(text.out.find("52 min for 1 piece: 2 setups, 3 tool changes. No order takes less."),
            std::string::npos)
      << text.out;
}

TEST(CliRoute, WhatIsWrongIsNamedAndNothingPrinted) {
  const std::pair<std::string, std::string> wrongs[] = {
      {with(two_sides, R"("after":[])", R"("after":["deburr"])"), ": 10 needs deburr needs 30 needs 10"},
      {with(two_sides, R"("after":["30"])", R"("after":["40"])"),
       ": /operations/3/after/0: no operation is called \"40\""},
      {with(two_sides, "\"minutes\":7", "\"minutes\":-7"), ": /operations/1/minutes: must not be negative"},
      {with(two_sides, "part by part", "by night"),
       ": /manner: must be \"part by part\" or \"operation by operation\""},
      {with(two_sides, "\"pieces\":1", "\"pieces\":1.5"),
       ": /pieces: must be a whole number, at most 1000000"},
      {with(two_sides, "\"id\":\"20\"", "\"id\":\"10\""),
       ": /operations/1/id: two operations are called \"10\""}};
  for (const auto& [text, words] : wrongs) {
    const CaseFile file(text);
    const auto run = call({"route", file.path()});
    EXPECT_EQ(run.status, 2) << words;
    EXPECT_TRUE(run.out.empty());
    EXPECT_NE(run.err.find(words), std::string::npos) << run.err;
  }
}

// A block topped from its raw foot, then footed from its top: over a locator its thickness is off by that
// locator and the cut's own shift.
TEST(CliSpread, OneTurnOver) {
  const auto locators = [](const char* under, double z) {
    json list = json::array();
    const auto add = [&](const char* feature, json at, json direction) {
      list.push_back({{"feature", feature}, {"at", at}, {"direction", direction}, {"sigma", 0.02}});
    };
    add(under, {-25, -15, z}, {0, 0, 1});
    add(under, {25, -15, z}, {0, 0, 1});
    add(under, {0, 15, z}, {0, 0, 1});
    add("side", {-20, -20, 10}, {0, 1, 0});
    add("side", {20, -20, 10}, {0, 1, 0});
    add("end", {-30, 0, 10}, {1, 0, 0});
    return list;
  };
  const auto plane = [](const char* id, json point, json direction) {
    return json{
        {"id", id}, {"kind", "plane"}, {"point", point}, {"direction", direction}, {"raw_sigma", 0.5}};
  };
  json c{{"format", "datrin-spread-case"}, {"version", 1}};
  c["features"] = {plane("foot", {0, 0, 0}, {0, 0, -1}), plane("top", {0, 0, 20}, {0, 0, 1}),
                   plane("side", {0, -20, 10}, {0, -1, 0}), plane("end", {-30, 0, 10}, {-1, 0, 0})};
  c["setups"] = {{{"id", "top up"},
                  {"locators", locators("foot", 0)},
                  {"cuts", {{{"feature", "top"}, {"sigma", 0.01}}}}},
                 {{"id", "foot up"},
                  {"locators", locators("top", 20)},
                  {"cuts", {{{"feature", "foot"}, {"sigma", 0.01}}}}}};
  c["requirements"] = {
      {{"id", "thick"}, {"from", "foot"}, {"to", "top"}, {"along", {0, 0, 1}}, {"at", {25, -15, 10}}}};
  const CaseFile file(c.dump());
  const auto run = call({"spread", file.path()});
  ASSERT_EQ(run.status, 0) << run.err;
  const auto thick = json::parse(run.out)["requirements"][0];
  EXPECT_NEAR(thick["sigma"].get<double>(), std::hypot(0.02, 0.01), 1e-12);
  EXPECT_NEAR(thick["contributions"][1]["locating"].get<double>(), 0.8, 1e-12);
  EXPECT_NEAR(thick["contributions"][1]["cutting"].get<double>(), 0.2, 1e-12);
  const auto text = call({"spread", "--text", file.path()});
  EXPECT_NE(text.out.find("100.0 % foot up: locating 80.0, cutting 20.0"), std::string::npos) << text.out;

  c["setups"][1]["locators"][5] = c["setups"][1]["locators"][4];
  const CaseFile loose(c.dump());
  const auto refused = call({"spread", loose.path()});
  EXPECT_EQ(refused.status, 2);
  EXPECT_TRUE(refused.out.empty());
  EXPECT_NE(refused.err.find("foot up: its six locators do not fix the part"), std::string::npos)
      << refused.err;
}
