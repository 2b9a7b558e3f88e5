// A setup as one thing to do after another: numbers worked by hand. Common practice: the spindle stands half
// the finder outside the edge when it touches; a drill goes 0.3 of its diameter and a millimetre past the far
// side.

#include "steps/bench_steps.h"

#include "tests/core/demo_piece.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;

namespace {

/// A plate of bar, its two holes drilled on the mill from two edges that are cut.
class OnTheMill : public test::DrawnPart {
protected:
  OnTheMill() {
    part = make(Part{"Plate", "mild steel", 1, 0});
    piece = make(Piece{part, 1});
    Stock stock;
    stock.part = part;
    stock.form = StockForm::flat;
    make(stock);
    foot = face("foot", {0, 0, 0}, -Vec3::UnitZ(), 60, 40);
    left = face("left", {-30, 0, 5}, -Vec3::UnitX(), 40, 10);
    front = face("front", {0, -20, 5}, -Vec3::UnitY(), 60, 10);
    Body block;
    block.part = part;
    block.name = "plate";
    block.shape = BodyShape::block;
    block.sizes = {{BodyRole::length, 0, 60}, {BodyRole::width, 0, 40}, {BodyRole::height, 0, 10}};
    const Id plate = make(block);
    Body hole;
    hole.part = part;
    hole.name = "holes";
    hole.shape = BodyShape::hole;
    hole.cut = true;
    hole.on = plate;
    hole.face = BodyFace::top;
    hole.through = true;
    hole.pattern = BodyPattern::row;
    hole.count = 2;
    hole.sizes = {{BodyRole::diameter, 0, 5}, {BodyRole::pitch, 0, 30}};
    holes = make(hole);
    build::Setup s;
    s.part = part;
    s.name = "on its foot";
    s.datums = {foot, left, front};
    s.way = Vec3::UnitZ();
    s.holding = Workholding::vise;
    setup = make(s);
    Operation o;
    o.part = part;
    o.kind = OperationKind::drill;
    o.setup = setup;
    o.bodies = {holes};
    o.size = 5;
    drill = make(o);
    in.piece = piece;
    in.setup = setup;
  }
  std::vector<BenchStep> steps() const { return bench_steps(b, in); }
  BenchStep step(const std::string& key) const {
    for (const auto& one : steps())
      if (one.key == key) return one;
    ADD_FAILURE() << key;
    return {};
  }
  StepTaken take(const BenchStep& one, const std::string& typed = {}, Unit unit = Unit::mm) {
    auto taken = take_step(b, in, one, typed, unit, "2026-11-27T10:00:00Z");
    EXPECT_TRUE(!taken.ok() || b.apply(taken.edit)) << one.key;
    return taken;
  }
  BenchInput in;
  Id piece = 0, foot = 0, left = 0, front = 0, holes = 0, setup = 0, drill = 0;
};

} // namespace

TEST_F(OnTheMill, EveryNumberAndItsSum) {
  const auto all = steps();
  std::vector<std::string> keys;
  for (const auto& one : all) keys.push_back(one.key);
  const auto id = std::to_string(drill);
  EXPECT_EQ(keys,
            (std::vector<std::string>{"look-out", "hold", "zero-x", "zero-y", "go-" + id + "-1-x",
                                      "go-" + id + "-1-y", "deep-" + id + "-1", "go-" + id + "-2-x",
                                      "go-" + id + "-2-y", "deep-" + id + "-2", "done-" + id, "unclamp"}));
  // The left edge is touched from the left with a finder of 6: X stands at -3. The front likewise.
  EXPECT_NEAR(*step("zero-x").number, -3, 1e-12);
  EXPECT_NEAR(*step("zero-y").number, -3, 1e-12);
  EXPECT_NE(step("zero-x").words.find("Touch it twice"), std::string::npos);
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
  make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60));
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
  for (int n = 0; n < 5; ++n) {
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

TEST_F(OnTheMill, AReadOutThatIsWrongIsNoticed) {
  const auto go = step("go-" + std::to_string(drill) + "-2-x"); // 45
  EXPECT_NE(take(go, "-45").wrong.find("counts the other way"), std::string::npos);
  EXPECT_NE(take(go, "1.7717").wrong.find("other unit"), std::string::npos);
  EXPECT_NE(take(go, "30").wrong.find("incremental"), std::string::npos); // the single move
  EXPECT_NE(take(go, "thirty").wrong, "");
  EXPECT_TRUE(b.all<BenchPlace>().empty()); // nothing was taken
  EXPECT_TRUE(take(go, "45.01").ok());
  EXPECT_TRUE(take(step("go-" + std::to_string(drill) + "-1-x"), "0.5906", Unit::inch).ok());
}

namespace {

class OnTheCylinder : public test::DemoPiece {
protected:
  void SetUp() override {
    DemoPiece::SetUp();
    setup = b.setups_of(part).front().first;
    refresh();
  }
  void refresh() {
    in.piece = piece;
    in.setup = setup;
    in.pose = pose();
    in.plans = allowance::surface_plans(b, piece, input(), pose());
    all = bench_steps(b, in);
  }
  const BenchStep* first(StepKind kind) const {
    for (const auto& one : all)
      if (one.kind == kind && !one.done) return &one;
    return nullptr;
  }
  BenchInput in;
  std::vector<BenchStep> all;
  Id setup = 0;
};

} // namespace

TEST_F(OnTheCylinder, ACutIsReadAndTheNextNumberFollows) {
  const auto* cut = first(StepKind::cut);
  ASSERT_TRUE(cut);
  const auto before = b.cuts_of(piece, cut->surface).size();
  // Enter alone is not enough, and what cannot be is asked about.
  EXPECT_FALSE(take_step(b, in, *cut, "", Unit::mm, "now").ok());
  EXPECT_FALSE(take_step(b, in, *cut, "900", Unit::mm, "now").ok());
  const double left = *cut->number + 0.8; // less was taken than the pass wanted
  const auto taken = take_step(b, in, *cut, std::to_string(left), Unit::mm, "2026-11-27T10:00:00Z");
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  EXPECT_NE(taken.told.find("still to come off"), std::string::npos) << taken.told;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_EQ(b.cuts_of(piece, cut->surface).size(), before + 1);
  EXPECT_NEAR(b.cuts_of(piece, cut->surface).back().second.left, left, 1e-6);
  const auto surface = cut->surface;
  refresh();
  const auto next =
      std::find_if(all.begin(), all.end(), [&](const auto& s) { return s.surface == surface && !s.done; });
  ASSERT_NE(next, all.end());
  EXPECT_LT(*next->number, left);
  EXPECT_NEAR(next->sum.total(), *next->number, 1e-6); // from what was read, not from what was planned
}

// Read across to the face opposite it is the same cut: the two faces are drawn so far apart.
TEST_F(OnTheCylinder, APlaneMayBeReadAcross) {
  const Id other = surface("end A"), here = surface("end B");
  const auto plan_of = [&](Id id) {
    return *std::find_if(in.plans.begin(), in.plans.end(), [&](const auto& p) { return p.surface == id; });
  };
  ASSERT_TRUE(b.apply(build::add(b, allowance::cut_of(plan_of(other), in.pose, 0), "end A is at size")));
  refresh();
  const auto step =
      std::find_if(all.begin(), all.end(), [&](const auto& s) { return s.surface == here && !s.done; });
  ASSERT_NE(step, all.end());
  ASSERT_EQ(step->kind, StepKind::cut);
  const double apart = std::abs((plan_of(here).drawn.point - plan_of(other).drawn.point).x());
  const auto taken = take_step(b, in, *step, std::to_string(apart + 1.1), Unit::mm, "now");
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_NEAR(b.cuts_of(piece, here).back().second.left, 1.1, 1e-5);
}

TEST_F(OnTheCylinder, NotUnclampedBeforeTheGate) {
  const auto* out = first(StepKind::unclamp);
  ASSERT_TRUE(out);
  EXPECT_NE(out->words.find("Not yet"), std::string::npos);
  EXPECT_FALSE(take_step(b, in, *out, "", Unit::mm, "now").ok());
}

TEST_F(OnTheCylinder, ASizeIsReadIntoTheRecord) {
  for (const auto& [id, s] : b.setups_of(part))
    if (!s.sizes.empty()) setup = id;
  refresh();
  const auto* read = first(StepKind::read);
  ASSERT_TRUE(read);
  const double nominal = *read->number;
  EXPECT_NE(
      take_step(b, in, *read, std::to_string(nominal * 25.4), Unit::mm, "now").wrong.find("another unit"),
      std::string::npos);
  const auto taken = take_step(b, in, *read, std::to_string(nominal), Unit::mm, "now");
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_NEAR(b.measurement_of(piece, read->dimension)->second.value, nominal, 1e-6);
}

TEST(BenchSteps, NothingWhereThereIsNothing) {
  Build b;
  EXPECT_TRUE(bench_steps(b, {}).empty());
  EXPECT_EQ(step_to_do({}), -1);
}
