// Operations proposed, what must come before what and why, and the order they are put in. The rules are
// common practice (a reference before what it locates, drilled before reamed before tapped, a tapped boss
// turned last, slit last).

#include "route/plan_route.h"

#include "build/edit_route.h"
#include "demo/mill_engine.h"
#include "route/gate.h"
#include "route/propose.h"
#include "solid/body_edits.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <map>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

/// A bracket from sawn block: a foot with a round boss on it, drilled and tapped down its middle, two bolt
/// holes in the foot, a slot.
class PlanRoute : public testing::Test {
protected:
  PlanRoute() {
    b.load(2, Part{"Bracket", "mild steel", 1, 1});
    b.load(3, Piece{2, 1});
    Stock stock;
    stock.part = 2;
    stock.form = StockForm::block;
    b.load(4, stock);
    foot = add(solid::BodyShape::block, 0, "foot");
    boss = add(solid::BodyShape::round, foot, "boss");
    hole = add(solid::BodyShape::hole, boss, "stud hole");
    bolts = add(solid::BodyShape::hole, foot, "bolt holes");
    slot = add(solid::BodyShape::slot, foot, "slot");
    change(hole, [](Body& body) { body.making = HoleMaking::tapped; });
    b.apply(solid::set_thread(b, hole, "M6", ""));
    change(bolts, [](Body& body) { body.pattern = BodyPattern::pair, body.through = true; });
    // 20 mm long, 0.5 wide: with a saw.
    b.apply(solid::set_body_size(b, slot, BodyRole::width, 0.5, ""));
    b.apply(solid::set_body_size(b, boss, BodyRole::diameter, 14, ""));
    name(boss, BodyFace::side, "boss");
    name(foot, BodyFace::bottom, "underside");
    name(boss, BodyFace::top, "top");
  }
  Id add(BodyShape shape, Id on, const char* called) {
    const auto made = solid::add_body(b, 2, {shape, false, on, BodyFace::top, called});
    EXPECT_TRUE(b.apply(made.edit));
    return made.id;
  }
  template <class How>
  void change(Id body, How how) {
    auto changed = *b.find<Body>(body);
    how(changed);
    b.apply(solid::set_body(b, body, changed, "Change"));
  }
  void name(Id body, BodyFace face, const char* called) {
    EXPECT_TRUE(b.apply(solid::name_face(b, body, face, called, true).edit));
  }
  void propose() {
    const auto edit = propose_operations(b, 2);
    ASSERT_FALSE(edit.empty());
    ASSERT_TRUE(b.apply(edit));
  }
  Id operation(OperationKind kind, const std::string& of) const {
    for (const auto& [id, o] : b.operations_of(2))
      if (o.kind == kind && operation_text(b, o).find(of) != std::string::npos) return id;
    ADD_FAILURE() << of;
    return 0;
  }
  int place(Id operation) const {
    int k = 0;
    for (const auto& [id, o] : b.operations_of(2)) {
      if (id == operation) return k;
      ++k;
    }
    return -1;
  }
  const Precedence* between(Id before, Id after) {
    found = precedences(b, 2);
    for (const auto& one : found)
      if (one.before == before && one.after == after) return &one;
    return nullptr;
  }
  Build b;
  Id foot = 0, boss = 0, hole = 0, bolts = 0, slot = 0;
  std::vector<Precedence> found;
};

TEST_F(PlanRoute, EveryFeatureGetsWhatMakesIt) {
  EXPECT_EQ(unmade(b, 2).size(), 6U); // underside, boss, top; stud hole, bolt holes, slot
  propose();
  EXPECT_TRUE(unmade(b, 2).empty());
  // The tapping drill of M6 is 5.0 (ISO 2306); a 6 mm hole is drilled 6; a 0.5 mm slot is sawn.
  EXPECT_NEAR(b.find<Operation>(operation(OperationKind::drill, "stud hole"))->size, 5, 1e-9);
  EXPECT_NEAR(b.find<Operation>(operation(OperationKind::tap, "stud hole"))->size, 6, 1e-9);
  EXPECT_NEAR(b.find<Operation>(operation(OperationKind::drill, "bolt holes"))->size, 6, 1e-9);
  EXPECT_NE(operation(OperationKind::slit, "slot"), 0);
  // Two holes take twice as long.
  EXPECT_EQ(b.find<Operation>(operation(OperationKind::drill, "bolt holes"))->minutes,
            2 * usual_minutes(OperationKind::drill));
  EXPECT_TRUE(propose_operations(b, 2).empty()); // nothing is proposed twice
}

TEST_F(PlanRoute, WhatMustComeFirstIsSaidWithItsReason) {
  propose();
  const Id drill = operation(OperationKind::drill, "stud hole"),
           tap = operation(OperationKind::tap, "stud hole");
  const Id turn = operation(OperationKind::turn, "boss"), slit = operation(OperationKind::slit, "slot");
  ASSERT_TRUE(between(drill, tap));
  EXPECT_EQ(between(drill, tap)->reason, "it is drilled before it is tapped");
  // (14 - 5) / 2 = 4.5 stay round a hole of 5: less than its diameter.
  ASSERT_TRUE(between(tap, turn));
  EXPECT_EQ(between(tap, turn)->reason,
            "only 4.5\u202Fmm stays round stud hole when boss is turned: tapped while there is metal");
  ASSERT_TRUE(between(turn, slit));
  EXPECT_EQ(between(turn, slit)->rule, Rule::slit_last);
  EXPECT_FALSE(between(turn, drill));
  for (const auto& one : precedences(b, 2)) EXPECT_LT(place(one.before), place(one.after)) << one.reason;
}

TEST_F(PlanRoute, AThickBossMayBeTurnedFirst) {
  b.apply(solid::set_body_size(b, boss, BodyRole::diameter, 30, ""));
  propose();
  EXPECT_FALSE(between(operation(OperationKind::tap, "stud hole"), operation(OperationKind::turn, "boss")));
}

TEST_F(PlanRoute, ALaterSetupWaitsForItsReference) {
  propose();
  const auto plan = plan_route(b, 2);
  bool any = false;
  for (const auto& one : plan.precedences)
    if (one.rule == Rule::reference) {
      any = true;
      EXPECT_NE(b.find<Operation>(one.before)->setup, b.find<Operation>(one.after)->setup);
    }
  EXPECT_TRUE(any) << "the underside is cut from another side than the rest";
}

TEST_F(PlanRoute, MovedAgainstARuleItIsBrokenUntilTheRuleIsSetAside) {
  propose();
  const Id drill = operation(OperationKind::drill, "stud hole"),
           tap = operation(OperationKind::tap, "stud hole");
  const auto broken = [&](Id id) {
    for (const auto& o : plan_route(b, 2).operations)
      if (o.id == id) return o.broken;
    return false;
  };
  EXPECT_FALSE(broken(tap));
  ASSERT_TRUE(b.apply(put_operation(b, tap, place(drill))));
  EXPECT_TRUE(broken(tap));
  EXPECT_FALSE(plan_route(b, 2).now.usable());
  EXPECT_TRUE(set_rule_aside(b, tap, drill, "").empty()); // without a reason it stands
  ASSERT_TRUE(b.apply(set_rule_aside(b, tap, drill, "tapped in the assembly")));
  EXPECT_FALSE(broken(tap));
  EXPECT_EQ(between(drill, tap)->set_aside, "tapped in the assembly");
  EXPECT_TRUE(plan_route(b, 2).now.usable());
}

TEST_F(PlanRoute, ACycleIsNamed) {
  propose();
  const Id drill = operation(OperationKind::drill, "stud hole"),
           tap = operation(OperationKind::tap, "stud hole");
  ASSERT_TRUE(b.apply(toggle_wait(b, drill, tap))); // by hand the ladder gives way
  EXPECT_EQ(plan_route(b, 2).best.status, OrderStatus::ordered);
  ASSERT_TRUE(b.apply(toggle_wait(b, tap, drill)));
  const auto plan = plan_route(b, 2);
  EXPECT_EQ(plan.best.status, OrderStatus::cycle);
  EXPECT_NE(plan.cycle.find("drill 5.00\u202Fmm stud hole needs tap 6.00\u202Fmm stud hole"),
            std::string::npos)
      << plan.cycle;
  EXPECT_TRUE(take_best_order(b, 2, {}).empty()); // nothing is lost
}

TEST_F(PlanRoute, OperationsThatDoNotWaitForEachOtherMayRunSideBySide) {
  for (int k = 0; k < 3; ++k) {
    Operation o;
    o.part = 2;
    o.kind = OperationKind::mill;
    o.name = k == 0 ? "frame, left" : k == 1 ? "frame, right" : "both together";
    o.order = k;
    if (k == 2) o.after = {100, 101};
    b.load(100 + k, o);
  }
  const auto plan = plan_route(b, 2);
  EXPECT_EQ(plan.operations[0].number, 10);
  EXPECT_EQ(plan.operations[0].side_by_side, 1); // 10 and 20 are free
  EXPECT_EQ(plan.operations[1].side_by_side, 1);
  EXPECT_EQ(plan.operations[2].side_by_side, 0); // 30 comes after both
  EXPECT_EQ(plan.operations[0].waited_for, 1);
  EXPECT_EQ(plan.operations[2].waits.size(), 2U);
}

TEST_F(PlanRoute, TheGateAsksForWhatNoSurfaceTells) {
  propose();
  const Id drill = operation(OperationKind::drill, "bolt holes");
  auto o = *b.find<Operation>(drill);
  const auto open = [&] {
    for (const auto& item : unclamp_gate(b, 3, o.setup, {}).items)
      if (item.operation == drill) return item.done ? "done" : "open";
    return "not asked";
  };
  // Its wall is a surface: the cut of it tells.
  EXPECT_STREQ(open(), "not asked");
  o.surfaces.clear();
  b.load(drill, o);
  EXPECT_STREQ(open(), "open");
  ASSERT_TRUE(b.apply(set_done(b, 3, drill, true, "2026-11-27T10:00:00Z")));
  EXPECT_STREQ(open(), "done");
  ASSERT_TRUE(b.apply(set_done(b, 3, drill, false, "")));
  EXPECT_STREQ(open(), "open");
}

// A thread is not told by a cut of its hole's wall: the gate asks for it.
TEST_F(PlanRoute, TheGateAsksForATap) {
  propose();
  const Id tap = operation(OperationKind::tap, "stud hole"),
           drill = operation(OperationKind::drill, "stud hole");
  const auto asked = [&](Id id) {
    const auto items = unclamp_gate(b, 3, b.find<Operation>(id)->setup, {}).items;
    return std::any_of(items.begin(), items.end(), [&](const GateItem& i) { return i.operation == id; });
  };
  EXPECT_TRUE(asked(tap));
  EXPECT_FALSE(asked(drill)); // a cut of the wall tells
}

// The two bolt holes are made together, or not.
TEST_F(PlanRoute, AFeatureIsMadeWhole) {
  propose();
  const Id drill = operation(OperationKind::drill, "bolt holes");
  const auto before = *b.find<Operation>(drill);
  int looked_at = 0;
  for (const auto& f : features_to_make(b, 2)) {
    if (f.body != bolts) continue;
    ++looked_at;
    ASSERT_EQ(f.copies, 2);
    ASSERT_TRUE(b.apply(toggle_feature(b, drill, f)));
    EXPECT_FALSE(makes(*b.find<Operation>(drill), f));
    EXPECT_TRUE(b.find<Operation>(drill)->surfaces.empty());
    ASSERT_TRUE(b.apply(toggle_feature(b, drill, f)));
    EXPECT_EQ(*b.find<Operation>(drill), before);
  }
  EXPECT_EQ(looked_at, 1);
}

// 20 min a setup and 2 a tool, for both pieces, on top of the work.
TEST_F(PlanRoute, TheTimeAddsUp) {
  auto p = *b.find<Part>(2);
  p.quantity = 2;
  b.load(2, p);
  propose();
  const auto plan = plan_route(b, 2);
  double work = 0;
  for (const auto& [id, o] : b.operations_of(2)) work += 2 * o.minutes;
  EXPECT_NEAR(plan.now.minutes, work + 2 * (20 * plan.now.setups + 2 * plan.now.tool_changes), 1e-9);
  const auto sum = order_sum(b, plan.now, 2, {});
  ASSERT_EQ(sum.lines.size(), 3U);
  // Twice: two faces and a round 8 + 8 + 10, drilled 3, tapped 4, two holes 6, slit 10, burrs twice 5.
  EXPECT_EQ(sum.lines[0].figure, "118 min");
}

TEST_F(PlanRoute, WhatMadeAFeatureThatIsGoneIsSaid) {
  propose();
  ASSERT_TRUE(b.apply(solid::remove_body(b, slot)));
  const auto plan = plan_route(b, 2);
  ASSERT_EQ(plan.remarks.size(), 1U);
  EXPECT_EQ(plan.remarks.front(), "slit 0.50\u202Fmm makes nothing: say what, or remove it");
}

} // namespace

namespace {

// No help by hand: a valid plan for every part of the demo engine.
TEST(PlanRouteOfTheDemo, EveryPartIsRoutedWhole) {
  auto b = demo::mill_engine().build;
  int parts = 0, operations = 0;
  for (const auto& [part, p] : b.parts()) {
    const auto edit = propose_operations(b, part);
    if (edit.empty()) continue;
    ASSERT_TRUE(b.apply(edit));
    const auto plan = plan_route(b, part);
    EXPECT_TRUE(plan.unmade.empty()) << p.name << ": " << plan.unmade.front().name;
    EXPECT_TRUE(plan.cycle.empty()) << p.name << ": " << plan.cycle;
    EXPECT_TRUE(plan.now.usable()) << p.name << ": " << plan.now.message;
    EXPECT_TRUE(plan.in_best_order()) << p.name;
    for (const auto& remark : plan.remarks) ADD_FAILURE() << p.name << ": " << remark;
    ++parts;
    operations += static_cast<int>(plan.operations.size());
  }
  EXPECT_GE(parts, 25);
  EXPECT_GE(operations, 100);
}

} // namespace

namespace {

// Common practice: a fixture is planned work of its own; the hard-to-fit mate is made first (a sleeve before
// the cylinder that is bored to it).
TEST_F(PlanRoute, WhatIsNeededMustBeMadeFirst) {
  b.load(200, Part{"Drill jig", "mild steel", 1, 2});
  b.load(201, Piece{200, 1});
  Operation jig;
  jig.part = 200;
  jig.name = "make the jig";
  b.load(202, jig);
  propose();
  const Id drill = operation(OperationKind::drill, "bolt holes");
  ASSERT_TRUE(b.apply(toggle_need(b, drill, 200)));
  EXPECT_TRUE(toggle_need(b, drill, 2).empty()); // not itself
  auto remarks = plan_route(b, 2).remarks;
  ASSERT_EQ(remarks.size(), 1U);
  EXPECT_EQ(remarks.front(), "drill 6.00\u202Fmm bolt holes (2) needs Drill jig, which is not made yet");
  ASSERT_TRUE(b.apply(set_done(b, 201, 202, true, "2026-11-27T10:00:00Z")));
  EXPECT_TRUE(plan_route(b, 2).remarks.empty());
}

} // namespace
