// A knob turned by its profile: lengths, a taper by the top slide, a ball in stairs. Worked by hand.

#include "steps/place_steps.h"

#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::read_in;

namespace {

/// 16 across for 20, a taper down to 10 over 30, then a ball of 20 on it; the tool comes to the ball.
class TurnedKnob : public test::DrawnPart {
protected:
  TurnedKnob() {
    part = make(Part{"Knob", "mild steel", 1, 0});
    in.piece = make(Piece{part, 1});
    Stock bar;
    bar.part = part, bar.form = StockForm::round, bar.along = Vec3::UnitZ(), bar.across = Vec3::UnitX();
    bar.width = bar.thick = 22, bar.length = 80;
    make(bar);
    Body body;
    body.part = part, body.name = "knob", body.shape = BodyShape::turned;
    const double ball = std::sqrt(10.0 * 10 - 5 * 5);
    body.profile = {{0, 16}, {20, 16}, {50, 10}, {50 + 2 * ball, 10, 10}};
    const Id knob = make(body);
    build::Setup s;
    s.part = part, s.name = "in the chuck", s.way = Vec3::UnitZ(), s.holding = Workholding::three_jaw;
    in.setup = make(s);
    Operation o;
    o.part = part, o.kind = OperationKind::turn, o.setup = in.setup, o.bodies = {knob};
    key = std::to_string(make(o));
  }
  std::vector<BenchStep> steps() { return bench_steps(b, in); }
  BenchStep step(const std::string& wanted) {
    for (const auto& one : steps())
      if (one.key == wanted) return one;
    ADD_FAILURE() << wanted;
    return {};
  }
  BenchInput in;
  std::string key;
};

} // namespace

TEST_F(TurnedKnob, ItsLengthsComeFirstThenTheTaperThenTheBall) {
  const double length = 50 + 2 * std::sqrt(75.0);
  EXPECT_EQ(step("zero-z-" + key).words.find("Touch"), 0U) << step("zero-z-" + key).words;
  EXPECT_NE(step("touch-off-" + key + "-1").words.find("half of what it measures"), std::string::npos);
  // X counts a side: 8 for 16 across, to the chuck's end of it.
  EXPECT_NEAR(*step("go-" + key + "-1-x").number, 8, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1-z").number, -length, 1e-9);
  EXPECT_NE(step("go-" + key + "-1-x").also.find("turn at"), std::string::npos);
  const auto taper = step("taper-" + key + "-2");
  EXPECT_NEAR(std::tan(*taper.number), 0.1, 1e-12); // 3 a side over 30
  EXPECT_TRUE(taper.is_angle);
  EXPECT_EQ(taper.sum.lines[0].mm, 3); // asked for, it says what it comes from, no length
  EXPECT_EQ(taper.sum.lines[1].figure, "30.000\u202Fmm");
  EXPECT_EQ(taper.sum.answer.substr(0, 4), "5.71");
  int stairs = 0;
  double widest = 0;
  for (const auto& one : steps()) {
    if (one.kind != StepKind::go) continue;
    EXPECT_NEAR(one.sum.total(), *one.number, 1e-9) << one.key;
    if (one.axis == "X") ++stairs, widest = std::max(widest, *one.number);
  }
  EXPECT_GT(stairs, 20);
  EXPECT_NEAR(widest, 10, 1e-9); // over the top of the ball
  // A machine that counts the diameter; what is passed is behind.
  Machine lathe;
  lathe.kind = MachineKind::lathe, lathe.reads_diameter = true;
  auto s = *b.find<build::Setup>(in.setup);
  s.machine = make(lathe);
  b.load(in.setup, s);
  const auto x = step("go-" + key + "-1-x");
  EXPECT_NEAR(*x.number, 16, 1e-9);
  EXPECT_NE(take_step(b, in, x, "8", read_in(Unit::mm)).wrong.find("to go"), std::string::npos);
  ASSERT_TRUE(b.apply(take_step(b, in, x, "16", read_in(Unit::mm)).edit));
  EXPECT_TRUE(step("go-" + key + "-1-x").done);
}

// Its end is set where the tool touches it: Z shows 40 there.
TEST_F(TurnedKnob, ZIsCountedFromItsEnd) {
  const double length = 50 + 2 * std::sqrt(75.0);
  ASSERT_TRUE(b.apply(take_step(b, in, step("zero-z-" + key), "+40", read_in(Unit::mm)).edit));
  EXPECT_NEAR(*step("go-" + key + "-1-z").number, 40 - length, 1e-9);
}
