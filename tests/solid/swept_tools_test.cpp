// Tools swept against the solids of parts: a plate with a lug beside its hole, by distances known by hand;
// and every part of the demo engine as it is proposed to be made, where no tool may be told to hit what it
// can be brought to.

#include "demo/mill_engine.h"
#include "route/clashes.h"
#include "route/propose.h"
#include "tests/solid/bodies.h"

#include <gtest/gtest.h>

namespace datrin::solid_test {
namespace {

/// A plate 80 × 60 × 10 with a hole of 6, a lug 30 high whose side is 15 mm from the hole's axis.
class BesideALug : public testing::Test {
protected:
  BesideALug() {
    bodies.add("plate", BodyShape::block,
               {{BodyRole::length, 80}, {BodyRole::width, 60}, {BodyRole::height, 10}});
    auto& lug = bodies.add(
        "lug", BodyShape::block,
        {{BodyRole::length, 10}, {BodyRole::width, 40}, {BodyRole::height, 30}, {BodyRole::along, 20}},
        Bodies::id(0));
    lug.face = BodyFace::top;
    auto& hole = bodies.add("hole", BodyShape::hole, {{BodyRole::diameter, 6}}, Bodies::id(0));
    hole.cut = true;
    hole.through = true;
    placed = bodies.placed();
    b = bodies.build();
    solid = make_solid(placed);
    Tool drill;
    drill.name = "6 mm drill";
    drill.kind = ToolKind::drill;
    drill.size = 6;
    b.load(800, drill);
    build::Setup setup;
    setup.part = Bodies::part;
    setup.name = "on its foot";
    setup.way = Vec3::UnitZ();
    setup.holding = Workholding::clamps;
    setup.packing = "parallels";
    b.load(801, setup);
    Operation o;
    o.part = Bodies::part;
    o.kind = OperationKind::drill;
    o.setup = 801;
    o.bodies = {Bodies::id(2)};
    o.size = 6;
    o.tool = 800;
    b.load(802, o);
  }
  const route::Clash* found(route::ClashKind kind) {
    route::ClashOptions options;
    options.finished = &solid.mesh;
    all = route::clashes(b, Bodies::part, options);
    for (const auto& clash : all)
      if (clash.kind == kind) return &clash;
    return nullptr;
  }
  void reach(double mm) {
    auto tool = *b.find<Tool>(800);
    tool.reach = mm;
    b.load(800, tool);
  }
  Bodies bodies;
  std::vector<PlacedBody> placed;
  Build b;
  Solid solid;
  std::vector<route::Clash> all;
};

TEST_F(BesideALug, TheChuckComesDownOnIt) {
  ASSERT_TRUE(solid.usable()) << solid.message;
  EXPECT_EQ(found(route::ClashKind::holder), nullptr); // how far it stands out is not stated
  // At the bottom of the hole the chuck is 35 up, the lug's top 10 + 30 = 40: 5 into it; the lug begins 15
  // from the axis, the chuck is 18 thick.
  reach(35);
  const auto* clash = found(route::ClashKind::holder);
  ASSERT_TRUE(clash);
  EXPECT_NE(clash->text.find("5.0"), std::string::npos) << clash->text;
  EXPECT_NE(clash->ways_out.front().find("40.0"), std::string::npos) << clash->ways_out.front();
  reach(40);
  EXPECT_EQ(found(route::ClashKind::holder), nullptr);
  // Without the solid nothing is judged.
  reach(35);
  for (const auto& one : route::clashes(b, Bodies::part)) EXPECT_NE(one.kind, route::ClashKind::holder);
}

TEST_F(BesideALug, FromBelowNothingIsInItsWay) {
  reach(35);
  auto setup = *b.find<build::Setup>(801);
  setup.way = -Vec3::UnitZ();
  b.load(801, setup);
  EXPECT_EQ(found(route::ClashKind::holder), nullptr);
  EXPECT_EQ(found(route::ClashKind::covered), nullptr);
}

TEST_F(BesideALug, AShelfOverTheHoleIsInTheWay) {
  bodies.add("shelf", BodyShape::block,
             {{BodyRole::length, 60}, {BodyRole::width, 40}, {BodyRole::height, 5}}, Bodies::id(1));
  solid = make_solid(bodies.placed());
  ASSERT_TRUE(solid.usable());
  const auto* clash = found(route::ClashKind::covered);
  ASSERT_TRUE(clash);
  EXPECT_NE(clash->text.find("35.0"), std::string::npos) << clash->text; // 30 up and 5 thick
}

TEST(SweptTools, TheDemoEngineIsMadeWithoutRunningIntoIt) {
  auto build = demo::mill_engine().build;
  int drilled = 0;
  for (const auto& [id, part] : build.parts()) {
    build.apply(route::propose_operations(build, id)); // of what is bought there are none
    const auto solid = make_solid(place_bodies(build, id));
    route::ClashOptions options;
    options.finished = &solid.mesh;
    for (const auto& [o_id, o] : build.operations_of(id)) drilled += o.kind == OperationKind::drill;
    for (const auto& clash : route::clashes(build, id, options))
      EXPECT_NE(clash.kind, route::ClashKind::covered) << part.name << ": " << clash.text;
  }
  EXPECT_GT(drilled, 20);
}

} // namespace
} // namespace datrin::solid_test
