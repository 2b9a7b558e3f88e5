// What would go wrong in a setup. Common practice: a drill's point goes 0.3 of its diameter through; bars to
// four, work to three diameters out of the chuck; a quarter of the diameter gripped; the tool's corner not
// larger than the drawing's.

#include "route/clashes.h"

#include "build/edits.h"
#include "route/propose.h"
#include "solid/body_edits.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

class ClashesTest : public testing::Test {
protected:
  ClashesTest() {
    b.load(2, Part{"Work", "mild steel", 1, 1});
    b.load(3, Piece{2, 1});
  }
  void stock(StockForm form, double width = 0, double length = 0) {
    Stock s;
    s.part = 2;
    s.form = form;
    s.along = Vec3::UnitZ(), s.across = Vec3::UnitX();
    s.width = width, s.length = length;
    b.load(4, s);
  }
  Id body(BodyShape shape, Id on, const char* name, BodyFace face = BodyFace::top) {
    const auto made = solid::add_body(b, 2, {shape, false, on, face, name});
    EXPECT_TRUE(b.apply(made.edit));
    return made.id;
  }
  void size(Id body, BodyRole role, double mm) { b.apply(solid::set_body_size(b, body, role, mm, "")); }
  Id name(Id body, BodyFace face, const char* called) {
    const auto named = solid::name_face(b, body, face, called, true);
    EXPECT_TRUE(b.apply(named.edit));
    return named.id;
  }
  build::Setup& setup(Workholding holding, const Vec3& way, std::vector<Id> datums = {}) {
    build::Setup s;
    s.part = 2;
    s.name = "first";
    s.holding = holding;
    s.way = way;
    s.datums = std::move(datums);
    b.load(50, s);
    setup_ = s;
    return setup_;
  }
  void keep() { b.load(50, setup_); }
  void operation(OperationKind kind, std::vector<Id> surfaces, double size = 0, Id tool = 0,
                 std::vector<Id> bodies = {}) {
    Operation o;
    o.part = 2;
    o.kind = kind;
    o.setup = 50;
    o.surfaces = std::move(surfaces);
    o.bodies = std::move(bodies);
    o.size = size;
    o.tool = tool;
    b.load(60, o);
  }
  void tool(ToolKind kind, double size, double reach = 0, double corner = 0, double shank = 0) {
    Tool t;
    t.name = "tool";
    t.kind = kind;
    t.size = size;
    t.reach = reach;
    t.corner = corner;
    t.shank = shank;
    b.load(70, t);
  }
  Machine& machine() {
    machine_.name = "lathe";
    machine_.kind = MachineKind::lathe;
    setup_.machine = 80;
    return machine_;
  }
  std::vector<std::string> found(ClashKind kind) {
    if (setup_.machine != 0) b.load(80, machine_);
    keep();
    std::vector<std::string> out;
    for (const auto& clash : clashes(b, 2))
      if (clash.kind == kind) {
        out.push_back(clash.text);
        EXPECT_FALSE(clash.ways_out.empty()) << clash.text;
      }
    return out;
  }
  Build b;
  build::Setup setup_;
  Machine machine_;
};

// A row of four holes 30 apart is 90 long; a face of 120 by 40 with a cutter of 20 reaches over 140 by 60.
TEST_F(ClashesTest, TheTableDoesNotGoSoFar) {
  stock(StockForm::block);
  const Id plate = body(BodyShape::block, 0, "plate");
  size(plate, BodyRole::length, 120);
  size(plate, BodyRole::width, 40);
  size(plate, BodyRole::height, 10);
  const Id hole = body(BodyShape::hole, plate, "holes");
  auto row = *b.find<Body>(hole);
  row.pattern = BodyPattern::row;
  row.count = 4;
  b.apply(solid::set_body(b, hole, row, "Row"));
  size(hole, BodyRole::pitch, 30);
  setup(Workholding::clamps, Vec3::UnitZ());
  operation(OperationKind::drill, {}, 5, 0, {hole});
  machine().kind = MachineKind::mill;
  machine_.travel = 100, machine_.cross_travel = 80;
  EXPECT_TRUE(found(ClashKind::travel).empty());
  machine_.travel = 85;
  ASSERT_EQ(found(ClashKind::travel).size(), 1U);
  EXPECT_NE(found(ClashKind::travel).front().find("over 90.0"), std::string::npos);
  // The part may lie either way round.
  machine_.travel = 20, machine_.cross_travel = 95;
  EXPECT_TRUE(found(ClashKind::travel).empty());
  const Id top = name(plate, BodyFace::top, "top");
  operation(OperationKind::face, {top}, 20);
  machine_.travel = 150, machine_.cross_travel = 50;
  ASSERT_EQ(found(ClashKind::travel).size(), 1U);
  EXPECT_NE(found(ClashKind::travel).front().find("over 60.0"), std::string::npos)
      << found(ClashKind::travel).front();
  machine_.cross_travel = 60;
  EXPECT_TRUE(found(ClashKind::travel).empty());
  machine_.travel = 0, machine_.cross_travel = 0; // not stated: not judged
  EXPECT_TRUE(found(ClashKind::travel).empty());
}

TEST_F(ClashesTest, ADrillComesOutIntoWhatThePartStandsOn) {
  stock(StockForm::block);
  const Id plate = body(BodyShape::block, 0, "plate");
  const Id hole = body(BodyShape::hole, plate, "hole");
  auto through = *b.find<Body>(hole);
  through.through = true;
  b.apply(solid::set_body(b, hole, through, "Through"));
  setup(Workholding::vise, Vec3::UnitZ());
  operation(OperationKind::drill, {}, 6, 0, {hole});
  // 0.3 · 6 and a millimetre more.
  const auto under = found(ClashKind::under);
  ASSERT_EQ(under.size(), 1U);
  EXPECT_NE(under[0].find("comes out 2.8"), std::string::npos) << under[0];
  setup_.packing = "parallels";
  EXPECT_TRUE(found(ClashKind::under).empty());
  setup_.packing.clear();
  setup_.holding = Workholding::three_jaw; // nothing below it
  EXPECT_TRUE(found(ClashKind::under).empty());
}

TEST_F(ClashesTest, DrillsThatAreTooShortOrTooThin) {
  stock(StockForm::block);
  const Id plate = body(BodyShape::block, 0, "plate");
  size(plate, BodyRole::height, 50);
  const Id hole = body(BodyShape::hole, plate, "hole");
  size(hole, BodyRole::depth, 40);
  setup(Workholding::vise, Vec3::UnitZ());
  tool(ToolKind::drill, 6, 35);
  operation(OperationKind::drill, {}, 6, 70, {hole});
  EXPECT_EQ(found(ClashKind::reach).size(), 1U);
  ASSERT_EQ(found(ClashKind::slender).size(), 1U); // 40 / 6 = 6.7 diameters
  EXPECT_EQ(found(ClashKind::slender)[0], "hole is 6.7 diameters deep");
  size(hole, BodyRole::depth, 28);
  EXPECT_TRUE(found(ClashKind::reach).empty());
  EXPECT_TRUE(found(ClashKind::slender).empty()); // 4.7
}

TEST_F(ClashesTest, ABoringBarMayStandOutFourDiameters) {
  PartSurface bore;
  bore.part = 2;
  bore.name = "bore";
  bore.kind = SurfaceKind::bore;
  bore.diameter = 25;
  bore.height = 60;
  b.load(10, bore);
  setup(Workholding::four_jaw, Vec3::UnitZ());
  tool(ToolKind::boring_bar, 12);
  operation(OperationKind::bore, {10}, 0, 70);
  const auto thin = found(ClashKind::slender);
  ASSERT_EQ(thin.size(), 1U); // 60 / 12 = 5
  EXPECT_NE(thin[0].find("5.0 of its diameters"), std::string::npos) << thin[0];
  tool(ToolKind::boring_bar, 16);
  EXPECT_TRUE(found(ClashKind::slender).empty());
  tool(ToolKind::boring_bar, 26);
  EXPECT_EQ(found(ClashKind::reach).size(), 1U); // it does not go in
}

TEST_F(ClashesTest, WhatIsGrippedIsNotTurned) {
  stock(StockForm::round, 30, 60);
  const Id shaft = body(BodyShape::round, 0, "shaft");
  size(shaft, BodyRole::diameter, 28);
  size(shaft, BodyRole::height, 60);
  const Id side = name(shaft, BodyFace::side, "shaft");
  setup(Workholding::three_jaw, Vec3::UnitZ()).grip = 10;
  operation(OperationKind::turn, {side});
  const auto jaws = found(ClashKind::jaws);
  ASSERT_EQ(jaws.size(), 1U);
  EXPECT_NE(jaws[0].find("shaft begins 0"), std::string::npos) << jaws[0];
  stock(StockForm::round, 30, 84); // 12 more at each end
  EXPECT_TRUE(found(ClashKind::jaws).empty());
}

TEST_F(ClashesTest, TooLittleGripTooFarOut) {
  stock(StockForm::round, 30, 120);
  const Id shaft = body(BodyShape::round, 0, "shaft");
  size(shaft, BodyRole::diameter, 20);
  size(shaft, BodyRole::height, 100);
  const Id top = name(shaft, BodyFace::top, "end");
  setup(Workholding::three_jaw, Vec3::UnitZ()).grip = 4; // a quarter of 20 is 5
  operation(OperationKind::face, {top});
  EXPECT_EQ(found(ClashKind::grip).size(), 1U);
  setup_.grip = 12;
  EXPECT_TRUE(found(ClashKind::grip).empty());
  setup_.overhang = 90; // four and a half diameters
  const auto far = found(ClashKind::slender);
  ASSERT_EQ(far.size(), 1U);
  EXPECT_NE(far[0].find("4.5 of its diameters"), std::string::npos) << far[0];
}

TEST_F(ClashesTest, TheMachineMustTakeIt) {
  stock(StockForm::round, 40, 200);
  const Id shaft = body(BodyShape::round, 0, "shaft");
  size(shaft, BodyRole::diameter, 38);
  size(shaft, BodyRole::height, 190);
  const Id top = name(shaft, BodyFace::top, "end");
  setup(Workholding::three_jaw, Vec3::UnitZ());
  setup_.grip = 30, setup_.overhang = 20;
  operation(OperationKind::face, {top});
  machine().spindle_bore = 26;
  const auto entry = found(ClashKind::entry);
  ASSERT_EQ(entry.size(), 1U); // 200 - 50 would have to go through 26
  EXPECT_NE(entry[0].find("150"), std::string::npos) << entry[0];
  machine().spindle_bore = 42;
  EXPECT_TRUE(found(ClashKind::entry).empty());
  machine().chuck = 35;
  EXPECT_EQ(found(ClashKind::entry).size(), 1U);
  machine().chuck = 0;
  machine().swing = 36;
  machine().reach = 180;
  EXPECT_EQ(found(ClashKind::swing).size(), 2U); // too wide and too long
  machine().shank = 12;
  tool(ToolKind::turning_tool, 0, 0, 0, 16);
  operation(OperationKind::face, {top}, 0, 70);
  EXPECT_EQ(found(ClashKind::shank).size(), 1U);
}

// A square block sweeps its diagonal: 80 by 80 turns 113.
TEST_F(ClashesTest, ABlockTurnsOverItsCorners) {
  stock(StockForm::block);
  const Id block = body(BodyShape::block, 0, "block");
  size(block, BodyRole::length, 80);
  size(block, BodyRole::width, 80);
  const Id top = name(block, BodyFace::top, "top");
  setup(Workholding::four_jaw, Vec3::UnitZ());
  operation(OperationKind::face, {top});
  machine().swing = 100;
  const auto turns = found(ClashKind::swing);
  ASSERT_EQ(turns.size(), 1U);
  EXPECT_NE(turns[0].find("113.1"), std::string::npos) << turns[0];
  machine().swing = 115;
  EXPECT_TRUE(found(ClashKind::swing).empty());
}

// A stated bore comes out where it ends: 20 deep from 10 above the middle, standing on the face 10 below it.
TEST_F(ClashesTest, AStatedBoreComesOutAtItsEnd) {
  PartSurface foot;
  foot.part = 2;
  foot.name = "foot";
  foot.direction = -Vec3::UnitZ();
  foot.point = {0, 0, -10};
  foot.width = foot.height = 60;
  b.load(10, foot);
  PartSurface bore;
  bore.part = 2;
  bore.name = "bolt hole";
  bore.kind = SurfaceKind::bore;
  bore.diameter = 10;
  bore.height = 20;
  bore.from_solid = true;
  b.load(11, bore);
  setup(Workholding::clamps, Vec3::UnitZ());
  operation(OperationKind::drill, {11}, 10);
  const auto under = found(ClashKind::under);
  ASSERT_EQ(under.size(), 1U);
  EXPECT_NE(under[0].find("comes out 4.0"), std::string::npos) << under[0]; // 0.3 * 10 + 1
}

TEST_F(ClashesTest, AThinWallBendsAway) {
  stock(StockForm::block);
  const Id foot = body(BodyShape::block, 0, "foot");
  const Id wall = body(BodyShape::block, foot, "wall");
  size(wall, BodyRole::width, 1.5);
  size(wall, BodyRole::height, 30);
  const Id side = name(wall, BodyFace::front, "wall side");
  setup(Workholding::vise, Vec3::UnitZ());
  operation(OperationKind::mill, {side});
  const auto thin = found(ClashKind::wall);
  ASSERT_EQ(thin.size(), 1U);
  EXPECT_NE(thin[0].find("1.5"), std::string::npos) << thin[0];
  size(wall, BodyRole::width, 8);
  EXPECT_TRUE(found(ClashKind::wall).empty());
}

// 0.030 in = 0.762 mm on a tool is no more than 1.0 mm called for (common practice).
TEST_F(ClashesTest, TheToolsCornerIsNotLargerThanTheDrawings) {
  PartSurface face;
  face.part = 2;
  face.name = "shoulder";
  b.load(10, face);
  Dimension d;
  d.part = 2;
  d.name = "root radius";
  d.kind = DimensionKind::corner_radius;
  d.surface = 10;
  d.nominal = 1;
  b.load(11, d);
  setup(Workholding::vise, Vec3::UnitZ());
  tool(ToolKind::cutter, 20, 0, 0.762);
  operation(OperationKind::face, {10}, 0, 70);
  EXPECT_TRUE(found(ClashKind::corner).empty());
  tool(ToolKind::cutter, 20, 0, 1.2);
  EXPECT_EQ(found(ClashKind::corner).size(), 1U);
}

TEST_F(ClashesTest, APocketsCornersAreAsTheCutter) {
  stock(StockForm::block);
  const Id plate = body(BodyShape::block, 0, "plate");
  const Id pocket = body(BodyShape::pocket, plate, "pocket");
  size(pocket, BodyRole::corner, 3);
  setup(Workholding::vise, Vec3::UnitZ());
  tool(ToolKind::end_mill, 8);
  operation(OperationKind::mill, {}, 0, 70, {pocket});
  EXPECT_EQ(found(ClashKind::corner).size(), 1U);
  tool(ToolKind::end_mill, 6);
  EXPECT_TRUE(found(ClashKind::corner).empty());
}

TEST_F(ClashesTest, WhatIsNotStatedIsAskedForNotJudged) {
  stock(StockForm::block);
  const Id plate = body(BodyShape::block, 0, "plate");
  const Id top = name(plate, BodyFace::top, "top");
  setup(Workholding::not_stated, Vec3::UnitZ());
  operation(OperationKind::face, {top});
  keep();
  const auto all = clashes(b, 2);
  ASSERT_EQ(all.size(), 1U);
  EXPECT_FALSE(all[0].certain);
}

} // namespace
