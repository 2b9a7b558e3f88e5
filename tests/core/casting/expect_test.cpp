#include "casting/expect.h"
#include "casting/foundry_tables.h"
#include "casting/pattern.h"

#include "build/edits.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::casting;

// ISO 8062-3:2007, tables 2 and 7 (as ISO 8062:1994); from memory.
TEST(FoundryTables, TolerancesAndAllowances) {
  EXPECT_EQ(casting_tolerance(25, 8), 1.2);
  EXPECT_EQ(casting_tolerance(25.01, 8), 1.3);
  EXPECT_EQ(casting_tolerance(100, 10), 3.2);
  EXPECT_EQ(casting_tolerance(300, 12), 9);
  EXPECT_FALSE(casting_tolerance(5, 15));
  EXPECT_FALSE(casting_tolerance(5000, 8));
  EXPECT_EQ(machining_allowance(90, "F"), 1);
  EXPECT_EQ(machining_allowance(90, "G"), 1.4);
  EXPECT_EQ(machining_allowance(300, "H"), 5);
  EXPECT_FALSE(machining_allowance(90, "I"));
  EXPECT_FALSE(machining_allowance(90, "up_to_mm"));
}

// Common practice: grey iron shrinks by about 1/8 in to the foot, brass 3/16, aluminium 5/32, steel 1/4.
TEST(FoundryTables, ShrinkageAsPatternMakersSayIt) {
  EXPECT_NEAR(metal_named("grey iron")->shrink_usual, 1.0 / 96, 0.001);
  EXPECT_NEAR(metal_named("brass")->shrink_usual, 3.0 / 16 / 12, 0.001);
  EXPECT_NEAR(metal_named("aluminium")->shrink_usual, 5.0 / 32 / 12, 0.001);
  EXPECT_NEAR(metal_named("steel")->shrink_usual, 1.0 / 4 / 12, 0.001);
  EXPECT_EQ(metal_named("Cast iron, close grained")->name, "grey iron");
  EXPECT_FALSE(metal_named("cheese"));
}

class Expecting : public test::DrawnPart {
protected:
  void SetUp() override {
    part = make(Part{"Box", "cast iron", 1, 0});
    top = surface("top", SurfaceKind::plane, {0, 0, 30}, Vec3::UnitZ(), 0, 90, 40, true);
    foot = surface("foot", SurfaceKind::plane, {0, 0, 0}, -Vec3::UnitZ(), 0, 90, 40, true);
    side = surface("side", SurfaceKind::plane, {45, 0, 15}, Vec3::UnitX(), 0, 40, 30, true);
    surface("other side", SurfaceKind::plane, {-45, 0, 15}, -Vec3::UnitX(), 0, 40, 30, false);
    bore = surface("bore", SurfaceKind::bore, {0, 0, 15}, Vec3::UnitY(), 24, 0, 40, true);
    foundry = foundry_or_usual(b, part);
    foundry.tolerance_grade = 10;
    foundry.allowance = "F";
  }
  Id surface(const char* name, SurfaceKind kind, const Vec3& at, const Vec3& direction, double diameter,
             double width, double height, bool machined) {
    auto s = is_round(kind) ? round(name, kind, at, direction, diameter) : plane(name, at, direction);
    s.width = width;
    s.height = height;
    s.machined = machined;
    return make(s);
  }
  Id top = 0, foot = 0, side = 0, bore = 0;
  Foundry foundry;
};

// ISO 8062-3:2007, the formulas of its raw sizes, with RMA 1.0 (grade F, up to 100 mm) and DCTG 10.
TEST_F(Expecting, RawSizesByTheFormulas) {
  EXPECT_EQ(foundry.metal, "grey iron");
  const auto e = expect_casting(b, part, foundry);
  ASSERT_TRUE(e.usable()) << e.message;
  EXPECT_EQ(e.largest, 90);
  EXPECT_EQ(e.allowance, 1.0);
  EXPECT_DOUBLE_EQ(e.of(top)->raw, 30 + 2 * 1.0 + 2.6 / 2); // two faces
  EXPECT_DOUBLE_EQ(e.of(side)->raw, 90 + 1.0 + 3.2 / 2);    // one face
  EXPECT_DOUBLE_EQ(e.of(bore)->raw, 24 - 2 * 1.0 - 2.4 / 2);
  EXPECT_DOUBLE_EQ(e.of(bore)->sum.total(), e.of(bore)->raw);
  EXPECT_DOUBLE_EQ(e.of(side)->stock_least, 1.0);
  EXPECT_DOUBLE_EQ(e.of(side)->stock_most, 1.0 + 3.2);
  EXPECT_DOUBLE_EQ(e.of(bore)->stock, (24 - e.of(bore)->raw) / 2);
}

TEST_F(Expecting, WhatCannotBeSaidIsSaid) {
  foundry.allowance = "Z";
  EXPECT_EQ(expect_casting(b, part, foundry).message,
            "no machining allowance of grade Z is tabled for a casting of 90 mm");
  foundry.allowance = "F";
  // ISO 8062-3:2007, table 2: grade 16 exists for the walls of a casting of grade 15 only; from memory.
  foundry.tolerance_grade = 16;
  const auto e = expect_casting(b, part, foundry);
  ASSERT_TRUE(e.usable());
  EXPECT_EQ(e.of(bore), nullptr);
  EXPECT_NE(e.remarks.front().find("grade 16 is for walls only"), std::string::npos) << e.remarks.front();
  EXPECT_EQ(casting_tolerance(30, 16), std::nullopt);
  EXPECT_EQ(casting_tolerance(30, 15, CastOf::wall), 14); // over 25 to 40, DCTG 16
  EXPECT_EQ(casting_tolerance(30, 10, CastOf::wall), casting_tolerance(30, 11));
  EXPECT_EQ(expect_casting(b, 999, foundry).message, "no surface is to be machined yet");
}

// Common practice: a size grows by the shrinkage; draft runs out 40 · tan 2° = 1.397 mm.
TEST_F(Expecting, ThePatternIsLargerByTheShrinkage) {
  foundry.shrinkage = 0.01;
  foundry.draft = radians(2);
  foundry.draw = Vec3::UnitY();
  const auto p = make_pattern(b, part, foundry);
  ASSERT_TRUE(p.usable()) << p.message;
  for (const auto& s : p.surfaces) {
    if (s.surface == top) {
      EXPECT_NEAR(s.size, 1.01 * (30 + 2 + 1.3), 1e-9);
      EXPECT_NEAR(s.draft_adds, 1.01 * 1.397, 1e-3); // 40 mm along the draw, larger by the shrinkage
    }
    if (s.surface == bore) {
      EXPECT_FALSE(s.solid);
      EXPECT_NEAR(s.shape.diameter, 1.01 * 20.8, 1e-9);
      EXPECT_EQ(s.note, "may draw with the pattern");
    }
  }
  foundry.draw = Vec3::UnitZ();
  for (const auto& s : make_pattern(b, part, foundry).surfaces)
    if (s.surface == bore) {
      EXPECT_TRUE(s.cored);
      EXPECT_EQ(s.print, 21);
    }
  foundry.draft = radians(40);
  EXPECT_EQ(make_pattern(b, part, foundry).message, "draft must be between 0 and 15 degrees");
}
