// A setup as one thing to do after another: numbers worked by hand. Common practice: the spindle stands half
// the finder outside the edge when it touches; a drill goes 0.3 of its diameter and a millimetre past the far
// side.

#include "steps/bench_steps.h"

#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;
using datrin::test::read_in;

TEST_F(OnTheMill, EveryNumberAndItsSum) {
  const auto all = steps();
  std::vector<std::string> keys;
  for (const auto& one : all) keys.push_back(one.key);
  const auto id = std::to_string(drill);
  EXPECT_EQ(keys, (std::vector<std::string>{
                      "look-out", "hold", "finder", "zero-x", "zero-x-again", "zero-y", "zero-y-again",
                      "go-" + id + "-1-x", "go-" + id + "-1-y", "zero-z-" + id, "deep-" + id + "-1",
                      "go-" + id + "-2-x", "go-" + id + "-2-y", "deep-" + id + "-2",
                      "check-" + id + "-" + std::to_string(holes) + "-2", "done-" + id, "unclamp"}));
  // The left edge is touched from the left with a finder of 6: X stands at -3. The front likewise.
  EXPECT_NEAR(*step("zero-x").number, -3, 1e-12);
  EXPECT_NEAR(*step("zero-y").number, -3, 1e-12);
  EXPECT_NEAR(*step("zero-x-again").number, -3, 1e-12);
  EXPECT_NEAR(*step("zero-z-" + id).number, 0, 1e-12);
  // Holes 30 apart about the middle of 60: 15 and 45 from the left, 20 from the front.
  EXPECT_NEAR(*step("go-" + id + "-1-x").number, 15, 1e-9);
  EXPECT_NEAR(*step("go-" + id + "-2-x").number, 45, 1e-9);
  EXPECT_NEAR(*step("go-" + id + "-2-y").number, 20, 1e-9);
  EXPECT_EQ(step("go-" + id + "-2-x").title, "holes, 2 of 2");
  // Through 10 with a drill of 5: 1.5 of point and 1 more.
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
  for (const auto& one : all)
    if (one.number && !one.sum.lines.empty()) {
      EXPECT_NEAR(one.sum.total(), *one.number, 1e-9) << one.key;
    }
}

TEST_F(OnTheMill, TurnedOverTheNumbersFollowTheMachine) {
  auto s = *b.find<build::Setup>(setup);
  s.way = -Vec3::UnitZ();
  b.load(setup, s);
  const auto id = std::to_string(drill);
  // Turned over about X: right is still right, what was the front is at the back now: Y counts down from it.
  EXPECT_NEAR(*step("go-" + id + "-1-x").number, 15, 1e-9);
  EXPECT_NEAR(*step("go-" + id + "-1-y").number, -20, 1e-9);
  EXPECT_NEAR(*step("zero-y").number, 3, 1e-12);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
}

// Held as it came, with a round about the tool: places count from its middle. Six on a circle of 40 are all
// 20 from it.
TEST_F(OnTheMill, WithoutEdgesPlacesCountFromTheMiddle) {
  auto s = *b.find<build::Setup>(setup);
  s.datums = {};
  b.load(setup, s);
  const auto id = std::to_string(drill);
  EXPECT_NE(step("go-" + id + "-1-x").words.find("Nothing locates it along X"), std::string::npos);
  at_size(make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60)));
  auto circle = *b.find<Body>(holes);
  circle.pattern = BodyPattern::circle;
  circle.count = 6;
  circle.set_size({BodyRole::circle, 0, 40});
  b.load(holes, circle);
  EXPECT_EQ(step("zero-x").title, "Find the middle of outside");
  EXPECT_EQ(*step("zero-x").number, 0);
  double squares = 0;
  for (int k = 1; k <= 6; ++k) {
    const double x = *step("go-" + id + "-" + std::to_string(k) + "-x").number,
                 y = *step("go-" + id + "-" + std::to_string(k) + "-y").number;
    EXPECT_NEAR(std::hypot(x, y), 20, 1e-9);
    squares += x * x;
  }
  EXPECT_NEAR(squares, 6 * 200, 1e-6); // n R² / 2, however the circle is turned
}

TEST_F(OnTheMill, GoneThroughByEnterItStandsWhereItWasLeft) {
  EXPECT_EQ(step_to_do(steps()), 0);
  for (int n = 0; n < 8; ++n) {
    const auto all = steps();
    const auto& now = all[static_cast<std::size_t>(step_to_do(all))];
    EXPECT_TRUE(take(now).ok());
  }
  EXPECT_EQ(steps()[static_cast<std::size_t>(step_to_do(steps()))].key,
            "go-" + std::to_string(drill) + "-1-y");
  ASSERT_TRUE(b.apply(leave_bench(b, in, "go", "X 15.00 Y 3.20, vise trammed", "2026-11-27T11:00:00Z")));
  EXPECT_EQ(b.bench_place_of(piece, setup)->second.dials, "X 15.00 Y 3.20, vise trammed");
  EXPECT_EQ(b.all<BenchPlace>().size(), 1U); // one a setup of a piece
  // One back, and on again.
  ASSERT_TRUE(b.apply(step_back(b, in, steps(), step_to_do(steps()) - 1, "now")));
  EXPECT_EQ(steps()[static_cast<std::size_t>(step_to_do(steps()))].key,
            "go-" + std::to_string(drill) + "-1-x");
  // Done to the end the operation is done, and the gate lets it go.
  for (int n = 0; n < 20 && step_to_do(steps()) >= 0; ++n) {
    const auto all = steps();
    EXPECT_TRUE(take(all[static_cast<std::size_t>(step_to_do(all))]).ok());
  }
  EXPECT_TRUE(b.done_of(piece, drill));
  EXPECT_TRUE(b.release_of(piece, setup));
}

// Bored on the mill: gone to, then the passes; its surface is a bore with its limits from the drawing.
TEST_F(OnTheMill, ABoreIsGoneToThenCutByItsPasses) {
  auto drawn = round("seat", SurfaceKind::bore, {-15, 0, 5}, Vec3::UnitZ(), 5);
  drawn.body = holes, drawn.face = BodyFace::side, drawn.height = 10;
  drawn.from_solid = true;
  const Id bore = make(drawn);
  auto s = *b.find<build::Setup>(setup);
  s.cuts = {bore};
  b.load(setup, s);
  Operation o = *b.find<Operation>(drill);
  o.kind = OperationKind::bore;
  o.surfaces = {bore};
  const Id boring = make(o);
  std::vector<std::string> keys;
  for (const auto& one : steps())
    if (one.operation == boring) keys.push_back(one.key.substr(0, one.key.find('-')));
  ASSERT_GE(keys.size(), 5U);
  EXPECT_EQ((std::vector<std::string>(keys.begin(), keys.begin() + 4)),
            (std::vector<std::string>{"go", "go", "go", "go"}));
  for (std::size_t k = 4; k + 1 < keys.size(); ++k) EXPECT_EQ(keys[k], "cut");
  EXPECT_EQ(keys.back(), "check"); // how far the two are apart
  // A second operation on the same bore does not ask for its passes again.
  const Id again = make(o);
  int cuts = 0;
  for (const auto& one : steps())
    if (one.operation == again && one.kind == StepKind::cut) ++cuts;
  EXPECT_EQ(cuts, 0);
}

// Ticked off and unclamped, each step back opens the one before: nothing sticks.
TEST_F(OnTheMill, BackFromTheEndOpensStepByStep) {
  while (step_to_do(steps()) >= 0) {
    const auto all = steps();
    ASSERT_TRUE(take(all[static_cast<std::size_t>(step_to_do(all))]).ok());
  }
  const auto count = static_cast<int>(steps().size());
  for (int to = count - 1; to >= 0; --to) {
    ASSERT_TRUE(b.apply(step_back(b, in, steps(), to, "now"))) << to;
    EXPECT_EQ(step_to_do(steps()), to);
  }
  EXPECT_FALSE(b.done_of(piece, drill));
  EXPECT_FALSE(b.release_of(piece, setup));
}

TEST_F(OnTheMill, WordsAreInTheUnitOfItsMachine) {
  Machine mill;
  mill.name = "mill";
  mill.unit = Unit::inch;
  mill.kind = MachineKind::mill;
  auto s = *b.find<build::Setup>(setup);
  s.machine = make(mill);
  b.load(setup, s);
  EXPECT_NE(step("zero-x").words.find("0.2362\u202Fin across"), std::string::npos) << step("zero-x").words;
}

TEST(BenchSteps, NothingWhereThereIsNothing) {
  Build b;
  EXPECT_TRUE(bench_steps(b, {}).empty());
  EXPECT_EQ(step_to_do({}), -1);
}
