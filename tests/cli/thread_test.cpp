// datrin-cli thread, as its format states it, against the standards.

#include "tests/cli/call.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

using nlohmann::json;

namespace {

using datrin::test::call;

json thread(const std::string& name) {
  const auto run = call({"thread", name});
  EXPECT_EQ(run.status, 0) << name << ": " << run.err;
  return run.status == 0 ? json::parse(run.out) : json::object();
}

} // namespace

// ISO 261 and 262 (sizes), ISO 2306 (tapping drills), ISO 273 (clearance holes), BS 93 (BA), BS 84 (BSW),
// ASME B1.1 (UNC), ISO 228-1 (G); from memory.
TEST(CliThread, TapDrillAndClearanceOfTheStandards) {
  const struct {
    const char* name;
    double outside, pitch, angle, tap, fine, medium, coarse; ///< mm; 0: not checked
  } rows[] = {{"M8", 8, 1.25, 60, 6.8, 8.4, 9, 10},
              {"M6", 6, 1, 60, 5, 6.4, 6.6, 7},
              {"M12", 12, 1.75, 60, 10.2, 13, 13.5, 14.5},
              {"M16", 16, 2, 60, 14, 17, 17.5, 18.5},
              {"M10x1.25", 10, 1.25, 60, 8.8, 10.5, 11, 12},
              {"M3x0.35", 3, 0.35, 60, 2.65, 3.2, 3.4, 3.6},
              {"M27", 27, 3, 60, 24, 28, 30, 32},
              {"M36", 36, 4, 60, 32, 37, 39, 42},
              {"4BA", 3.6, 0.66, 47.5, 0, 0, 0, 0},
              {"3/8 BSW", 9.525, 25.4 / 16, 55, 0, 0, 0, 0},
              {"1/4-20", 6.35, 1.27, 60, 0.201 * 25.4, 0, 0, 0},
              {"#4-40", 0.112 * 25.4, 25.4 / 40, 60, 0.089 * 25.4, 0, 0, 0},
              {"5/8-18", 15.875, 25.4 / 18, 60, 37.0 / 64 * 25.4, 0, 0, 0},
              {"1/4-32 UNEF", 6.35, 25.4 / 32, 60, 0, 0, 0, 0},
              {"G1/4", 13.157, 25.4 / 19, 55, 11.8, 0, 0, 0},
              {"1/8 NPT", 0.405 * 25.4, 25.4 / 27, 60, 0, 0, 0, 0}};
  for (const auto& r : rows) {
    const auto t = thread(r.name);
    ASSERT_TRUE(t.contains("outside")) << r.name;
    EXPECT_NEAR(t["outside"].get<double>(), r.outside, 6e-3) << r.name;
    EXPECT_NEAR(t["pitch"].get<double>(), r.pitch, 6e-3) << r.name;
    EXPECT_NEAR(t["angle_deg"].get<double>(), r.angle, 1e-9) << r.name;
    EXPECT_LT(t["core"].get<double>(), r.outside) << r.name;
    EXPECT_GT(t["tap_drill"]["percent"].get<double>(), 50) << r.name;
    EXPECT_LE(t["tap_drill"]["percent"].get<double>(), 100) << r.name;
    EXPECT_FALSE(t["tap_drill"]["name"].get<std::string>().empty()) << r.name;
    if (r.tap > 0) {
      EXPECT_NEAR(t["tap_drill"]["mm"].get<double>(), r.tap, 1e-6) << r.name;
    }
    const auto& clear = t["clearance"];
    EXPECT_GT(clear["fine"].get<double>(), r.outside - 1e-9) << r.name;
    EXPECT_GE(clear["medium"].get<double>(), clear["fine"].get<double>()) << r.name;
    EXPECT_GE(clear["coarse"].get<double>(), clear["medium"].get<double>()) << r.name;
    if (r.fine > 0) {
      EXPECT_EQ(clear["fine"].get<double>(), r.fine) << r.name;
      EXPECT_EQ(clear["medium"].get<double>(), r.medium) << r.name;
      EXPECT_EQ(clear["coarse"].get<double>(), r.coarse) << r.name;
    }
  }
}

// ISO 68-1: the core of a screw is d − 1.22687 P.
TEST(CliThread, CoreOfAMetricScrew) {
  for (const auto& [name, d, p] : {std::tuple("M8", 8.0, 1.25), std::tuple("M20", 20.0, 2.5)})
    EXPECT_NEAR(thread(name)["core"].get<double>(), d - 1.22687 * p, 1e-4) << name;
}

TEST(CliThread, TheSameDrillAsTheLengthM8Tap) {
  for (const char* name : {"M8", "M2.5", "1/4-20", "4BA", "M10x1.25"}) {
    const auto length = call({"length", std::string(name) + " tap"});
    ASSERT_EQ(length.status, 0) << length.err;
    EXPECT_NEAR(json::parse(length.out)["mm"].get<double>(), thread(name)["tap_drill"]["mm"].get<double>(),
                1e-9)
        << name;
  }
}

TEST(CliThread, AnUnknownNameNamesTheNearest) {
  const auto run = call({"thread", "M8.1"});
  EXPECT_EQ(run.status, 2);
  EXPECT_TRUE(run.out.empty());
  EXPECT_NE(run.err.find("did you mean"), std::string::npos) << run.err;
  EXPECT_EQ(call({"thread"}).status, 2);
  EXPECT_EQ(call({"thread", ""}).status, 2);
}

// docs/build.schema.json is what the command prints.
TEST(CliSchema, IsASchemaOfEveryKindOfRecord) {
  const auto run = call({"schema"});
  ASSERT_EQ(run.status, 0);
  const auto schema = json::parse(run.out);
  EXPECT_EQ(schema["$schema"], "https://json-schema.org/draft/2020-12/schema");
  const auto text = schema.dump();
  for (const char* kind :
       {"part", "surface", "touch", "seat", "joint", "chain", "measurement", "cut", "setup"})
    EXPECT_NE(text.find('"' + std::string(kind) + '"'), std::string::npos) << kind;
}
