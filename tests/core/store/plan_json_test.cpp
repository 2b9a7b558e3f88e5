#include "store/record_json.h"

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
                            Release{2, 9, "now", "bore"}};
  for (const auto& record : records) {
    const auto kind = store::record_kind(record);
    EXPECT_EQ(store::record_from_json(kind, store::record_body(record)), record) << kind;
    // A field that is missing is named.
    auto cut = store::record_body(record);
    const auto key = cut.begin().key();
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
  EXPECT_NE(refusal("machine", body).find("must be \"mm\" or \"in\""), std::string::npos);
}
