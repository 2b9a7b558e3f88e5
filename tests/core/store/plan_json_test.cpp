#include "store/record_json.h"

#include "build/description.h"
#include "build/words.h"
#include "store/json_reader.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

namespace {

std::string refusal(const char* kind, nlohmann::json body) {
  try {
    (void)store::record_from_json(kind, body);
  } catch (const store::Refusal& why) {
    return why.what();
  }
  return {};
}

Measurement pin_reading() {
  Measurement m;
  m.piece = 2;
  m.dimension = 3;
  m.value = 12.01;
  m.read = "mate -0.02";
  m.mate = 7;
  m.mate_piece = 8;
  m.difference = -0.02;
  m.places = {{1, 0.5, 12.0}, {9, 1.5, 12.01}};
  return m;
}

Joint every_joint() {
  Joint j;
  j.name = "big end";
  j.purpose = JointPurpose::tongue;
  j.hole = 5;
  j.shaft = 6;
  j.least = -0.01;
  j.most = 0.02;
  j.basis = "ISO 286 H7/k6";
  j.thread = "M6";
  j.length = 12;
  j.hub_outside = 30;
  j.shaft_bore = 4;
  j.temperature = 80;
  j.comes_apart = j.looks = true;
  j.method = "key";
  j.pairs = {{2, 3}, {4, 3}};
  j.reason = "why";
  j.order = 4;
  return j;
}

} // namespace

TEST(PlanJson, EveryRecordComesBackAsItWas) {
  Dimension d;
  d.part = 2;
  d.name = "bore";
  d.kind = DimensionKind::angle;
  d.surface = 3;
  d.nominal = 0.5;
  d.lower = -0.01;
  d.upper = 0.02;
  d.tolerance = "H7";
  d.importance = DimensionClass::looks;
  d.source = DimensionSource::assumed;
  d.reason = "guessed";
  d.sum = "a + 2 x b";
  d.history = {{"12 H7", "2026-01-01T00:00:00Z"}};
  Allowance a;
  a.piece = 2;
  a.surface = 3;
  a.last_step = LastStep::lap;
  a.even = true;
  const Record records[] = {d,
                            Measurement{2, 3, 12.5, 0.01, "mic", "now"},
                            Foundry{2, "brass", "lost wax", 7, "E", 0.015, 0.02, Vec3::UnitX()},
                            Machine{"lathe", true, Unit::inch, 0.0254, "q", 1},
                            Tool{"bar", 12, 0.2, 0.05, 60, "n", 2},
                            a,
                            Cut{2, 3, 0.5, 0.48, 0.01, "0.48", "rough", "now", 1, Vec3(1, 2, 3)},
                            build::Setup{2, "first", {3, 4, 5}, {6}, {7}, {8}, 1},
                            Release{2, 9, "now", "bore", "vise trammed"},
                            Instrument{"mic", 0.001, 0.003, -0.002, 21, "n", 1},
                            pin_reading(),
                            every_joint(),
                            Chain{"float", {{5, 2, -0.5, "half"}, {6, 0, 1, ""}}, 0.1, 0.3, "binds", 2}};
  for (const auto& record : records) {
    const auto kind = store::record_kind(record);
    EXPECT_EQ(store::record_from_json(kind, store::record_body(record)), record) << kind;
    // A field that is missing is named.
    auto cut = store::record_body(record);
    auto key = cut.begin().key();
    for (const auto& [name, unused] : cut.items()) // one that was there from the first format on
      if (record.description().field(name)->since == 1) key = name;
    cut.erase(key);
    EXPECT_NE(refusal(std::string(kind).c_str(), cut).find(key), std::string::npos) << kind;
  }
}

TEST(PlanJson, WhatCannotBeIsRefusedWithItsPlace) {
  auto body = store::record_body(Dimension{});
  body["lower"] = 1;
  EXPECT_NE(refusal("dimension", body).find("/lower: must not be above upper"), std::string::npos)
      << refusal("dimension", body);
  body = store::record_body(Foundry{});
  body["tolerance_grade"] = 17;
  EXPECT_NE(refusal("foundry", body).find("must be a whole number from 1 to 16"), std::string::npos);
  body = store::record_body(Allowance{});
  body["rough"] = 0;
  EXPECT_NE(refusal("allowance", body).find("/rough"), std::string::npos);
  body = store::record_body(Machine{"m", false, Unit::mm, 0.01, "", 0});
  body["unit"] = "furlong";
  auto joint = store::record_body(every_joint());
  joint["purpose"] = "sticks";
  EXPECT_NE(refusal("joint", joint).find("/purpose: must be one of"), std::string::npos);
  joint = store::record_body(every_joint());
  joint["least"] = 1;
  EXPECT_NE(refusal("joint", joint).find("/least: must not be above most"), std::string::npos);
  EXPECT_NE(refusal("machine", body).find("must be one of \"mm\", \"in\""), std::string::npos);
}

// One name for one thing: what the file says a joint is for is what the screen says.
TEST(PlanJson, PurposesAreNamedAsOnScreen) {
  for (int k = 0; k < static_cast<int>(build::words_of<JointPurpose>().second); ++k) {
    Joint j;
    j.purpose = static_cast<JointPurpose>(k);
    EXPECT_EQ(store::record_body(j)["purpose"], build::shown_word(j.purpose));
  }
}

// As builds of format 3 hold them: tools had no kind, measurements no places.
TEST(PlanJson, OlderRecordsAreRead) {
  auto tool = store::record_body(Tool{"bar", 12, 0.2, 0.05, 60, "n", 2});
  tool.erase("kind");
  EXPECT_EQ(store::record_from_json("tool", tool).as<Tool>()->kind, ToolKind::cutter);
  auto reading = store::record_body(Measurement{2, 3, 12.5, 0.01, "mic", "now"});
  for (const char* key : {"read", "mate", "mate_piece", "difference", "places"}) reading.erase(key);
  EXPECT_EQ(store::record_from_json("measurement", reading),
            Record(Measurement{2, 3, 12.5, 0.01, "mic", "now"}));
}
