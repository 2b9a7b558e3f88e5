// A setup as one thing to do after another: numbers worked by hand. Common practice: the spindle stands half
// the finder outside the edge when it touches; a drill goes 0.3 of its diameter and a millimetre past the far
// side.

#include "steps/take_step.h"

#include "steps/zero_steps.h"
#include "tests/core/demo_piece.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <fmt/format.h>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;

namespace {

TakeOptions read_in(Unit unit) {
  TakeOptions options;
  options.lengths.bare_unit = unit;
  options.at = "2026-11-27T10:00:00Z";
  return options;
}

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
    holes = make(two_holes(plate_solid(60, 40), 5, 30));
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
    for (const Id id : {foot, left, front}) at_size(id);
  }
  /// It is cut to the drawing.
  Id at_size(Id surface) {
    Cut cut;
    cut.piece = piece;
    cut.surface = surface;
    return make(cut);
  }
  void gone(Id id) { EXPECT_TRUE(b.apply(remove(b, id, "x"))); }
  void uncut(Id surface) {
    for (const auto& [id, cut] : b.cuts_of(piece, surface)) gone(id);
  }
  void refresh() { in.plans = allowance::surface_plans(b, piece, casting::piece_input(b, piece), {}); }
  std::vector<BenchStep> steps() {
    refresh();
    return bench_steps(b, in);
  }
  BenchStep step(const std::string& key) {
    for (const auto& one : steps())
      if (one.key == key) return one;
    ADD_FAILURE() << key;
    return {};
  }
  StepTaken take(const BenchStep& one, const std::string& typed = {}, Unit unit = Unit::mm) {
    auto taken = take_step(b, in, one, typed, read_in(unit));
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

// Sawn 62 by 42 by 12, 1 mm on every side: the finder touches the metal, not the drawing, and the drill
// begins at it. Worked by hand.
TEST_F(OnTheMill, MetalStillToComeOffIsInTheNumbers) {
  for (const Id id : {foot, left, front}) uncut(id);
  const Id bar = b.all<Stock>().front().first;
  auto stock = *b.find<Stock>(bar);
  stock.length = 62, stock.width = 42, stock.thick = 12;
  b.load(bar, stock);
  const Id top = face("top", {0, 0, 10}, Vec3::UnitZ(), 60, 40);
  const auto id = std::to_string(drill);
  const auto x = step("go-" + id + "-1-x");
  EXPECT_NEAR(*x.number, 16, 1e-9);
  ASSERT_EQ(x.sum.lines.size(), 2U);
  EXPECT_EQ(x.sum.lines[1].label, "still to come off left");
  EXPECT_NEAR(*step("go-" + id + "-1-y").number, 21, 1e-9);
  // Through 10 and the 1 at either end, 1.5 of point, 1 clear.
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -14.5, 1e-9);
  EXPECT_NEAR(step("deep-" + id + "-1").sum.total(), -14.5, 1e-9);
  at_size(top);
  at_size(left);
  EXPECT_NEAR(*step("go-" + id + "-1-x").number, 15, 1e-9);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -13.5, 1e-9);
}

// What stands over a face nobody has measured is no number: a hole counted from it would be out by it.
TEST_F(OnTheMill, NothingIsCountedFromMetalThatNobodyMeasured) {
  uncut(left);
  const auto id = std::to_string(drill);
  const auto x = step("go-" + id + "-1-x");
  EXPECT_FALSE(x.number);
  EXPECT_NE(x.words.find("left is not cut yet, and nothing says how much is over it"), std::string::npos)
      << x.words;
  EXPECT_NEAR(*step("go-" + id + "-1-y").number, 20, 1e-9);
  // As a casting that was never touched the same, and what is left as cast stays so.
  const Id bar = b.all<Stock>().front().first;
  auto stock = *b.find<Stock>(bar);
  stock.form = StockForm::casting;
  b.load(bar, stock);
  EXPECT_FALSE(step("go-" + id + "-1-x").number);
  auto as_cast = *b.find<PartSurface>(front);
  as_cast.machined = false;
  b.load(front, as_cast);
  EXPECT_FALSE(step("go-" + id + "-1-y").number);
}

// A datum that is milled in the same setup goes away from under its zero.
TEST_F(OnTheMill, AFaceThatIsCutHereIsNoDatumHere) {
  auto s = *b.find<build::Setup>(setup);
  s.cuts = {left};
  b.load(setup, s);
  EXPECT_NE(step("go-" + std::to_string(drill) + "-1-x").words.find("Nothing locates it along X"),
            std::string::npos);
}

TEST_F(OnTheMill, AnotherFinderIsSaidOnceForAll) {
  const auto told = take(step("finder"), "0.2", Unit::inch); // 5.08
  ASSERT_TRUE(told.ok()) << told.wrong;
  EXPECT_NE(told.told.find("0.2000\u202Fin across"), std::string::npos) << told.told;
  EXPECT_TRUE(step("finder").done);
  EXPECT_NEAR(*step("zero-x").number, -2.54, 1e-9);
  EXPECT_NEAR(*step("zero-y").number, -2.54, 1e-9);
  EXPECT_FALSE(take(step("finder"), "-4").ok());
  EXPECT_FALSE(take(step("finder"), "200").ok());
  EXPECT_TRUE(take(step("zero-x")).ok());
  EXPECT_TRUE(step("zero-x").done);
  in.piece = make(Piece{part, 2}); // the next piece has it as well
  piece = in.piece;
  for (const Id id : {foot, left, front}) at_size(id);
  EXPECT_NEAR(*step("zero-x").number, -2.54, 1e-9);
}

TEST_F(OnTheMill, WhereNothingIsReadNothingIsTaken) {
  const auto id = std::to_string(drill);
  for (const auto& key : {std::string("hold"), "done-" + id}) {
    const auto taken = take(step(key), "12.5");
    EXPECT_NE(taken.wrong.find("nothing is read here"), std::string::npos) << key << taken.wrong;
  }
  EXPECT_FALSE(b.done_of(piece, drill));
  // A depth is read beside its number: -12.5.
  EXPECT_NE(take(step("deep-" + id + "-1"), "12.5").wrong.find("counts the other way"), std::string::npos);
  EXPECT_NE(take(step("deep-" + id + "-1"), "-12").wrong.find("0.500\u202Fmm to go"), std::string::npos);
  EXPECT_TRUE(take(step("deep-" + id + "-1"), "-12.52").ok());
}

// At the middle itself the number is 0, and a hair beside it is there: it is no other unit.
TEST_F(OnTheMill, AtZeroAHairBesideItIsThere) {
  auto s = *b.find<build::Setup>(setup);
  s.datums = {};
  b.load(setup, s);
  at_size(make(round("outside", SurfaceKind::boss, {-15, 0, 5}, Vec3::UnitZ(), 20))); // about the first hole
  const auto go = step("go-" + std::to_string(drill) + "-1-x");
  EXPECT_EQ(*go.number, 0);
  EXPECT_TRUE(take(go, "0.001").ok());
  EXPECT_NE(take(step("go-" + std::to_string(drill) + "-2-x"), "0.001").wrong.find("29.999\u202Fmm to go"),
            std::string::npos);
}

// Not set to a round figure: the read-out shows what it shows, and every place is counted from there.
// Worked by hand: touched at 101.25 and 101.26 with a finder of 6 from the left, the edge is under the
// spindle at 104.255; the hole 15 on at 119.255.
TEST_F(OnTheMill, AZeroIsKeptAsTheReadOutShowsIt) {
  EXPECT_TRUE(take(step("zero-x"), "101.25").ok());
  EXPECT_TRUE(step("zero-x").done);
  EXPECT_FALSE(step("zero-x-again").done);
  EXPECT_NEAR(*step("zero-x-again").number, 101.25, 1e-9);
  const auto told = take(step("zero-x-again"), "101.26");
  EXPECT_NE(told.told.find("104.255\u202Fmm at left, \u00B10.012"), std::string::npos) << told.told;
  EXPECT_TRUE(step("zero-x-again").done);
  const auto go = step("go-" + std::to_string(drill) + "-1-x");
  EXPECT_NEAR(*go.number, 119.255, 1e-9);
  EXPECT_NEAR(go.sum.total(), 119.255, 1e-9);
  EXPECT_EQ(go.sum.lines[0].label, "X at left");
  EXPECT_TRUE(take(go, "119.25").ok());
  ASSERT_EQ(b.all<BenchZero>().size(), 1U);
  const auto kept = b.all<BenchZero>().front().second;
  EXPECT_EQ(kept.touches, "101.25000 101.26000");
  EXPECT_NEAR(kept.uncertainty, 2 * std::sqrt(0.01 * 0.01 / 4 + 0.01 * 0.01 / 12), 1e-9);
  // Lost: found again, the old one stays in the record.
  ASSERT_TRUE(b.apply(lose_zero(b, in, go, "now")));
  EXPECT_FALSE(step("zero-x").done);
  EXPECT_NEAR(*step("go-" + std::to_string(drill) + "-1-x").number, 15, 1e-9);
  EXPECT_TRUE(take(step("zero-x")).ok());
  EXPECT_TRUE(take(step("zero-x-again")).ok());
  EXPECT_NEAR(*step("go-" + std::to_string(drill) + "-1-x").number, 15, 1e-9);
  EXPECT_EQ(b.all<BenchZero>().size(), 2U);
  EXPECT_TRUE(lose_zero(b, in, step("hold"), "now").empty());
}

// Changed to inches between two touches: noticed, nothing is kept of it.
TEST_F(OnTheMill, AnotherUnitBetweenTouchesIsNoticed) {
  EXPECT_TRUE(take(step("zero-x"), "25.4").ok());
  EXPECT_NE(take(step("zero-x-again"), "1").wrong.find("other unit"), std::string::npos);
  EXPECT_EQ(b.all<BenchZero>().front().second.touches, "25.40000");
  EXPECT_TRUE(take(step("zero-x-again"), "25.41").ok());
}

// Four holes at the corners of a square: gone round, not to and fro across.
TEST_F(OnTheMill, HolesAreGoneThroughWithLittleTravel) {
  auto grid = *b.find<Body>(holes);
  grid.pattern = BodyPattern::grid;
  grid.count = grid.count_across = 2;
  grid.set_size({BodyRole::pitch, 0, 30});
  grid.set_size({BodyRole::pitch_across, 0, 24});
  b.load(holes, grid);
  std::vector<Vec2> places;
  std::vector<double> xs, ys;
  for (const auto& one : steps())
    if (one.kind == StepKind::go) (one.axis == "X" ? xs : ys).push_back(*one.number);
  ASSERT_EQ(xs.size(), 4U);
  double travel = 0;
  for (std::size_t k = 1; k < xs.size(); ++k) travel += std::hypot(xs[k] - xs[k - 1], ys[k] - ys[k - 1]);
  EXPECT_NEAR(travel, 24 + 30 + 24, 1e-9); // three sides, the two short ones among them
  EXPECT_NEAR(std::hypot(xs[0], ys[0]), std::hypot(15, 8), 1e-9); // begun at the corner of the datums
}

// A burr of half a millimetre at the first touch (common practice: 20 to 30 thou): touched until two agree.
TEST_F(OnTheMill, ABurrIsNoticedByTheSecondTouch) {
  EXPECT_TRUE(take(step("zero-x"), "-3.55").ok());
  const auto apart = take(step("zero-x-again"), "-3.01");
  EXPECT_TRUE(apart.ok());
  EXPECT_NE(apart.told.find("0.540\u202Fmm apart"), std::string::npos) << apart.told;
  EXPECT_FALSE(step("zero-x-again").done);
  EXPECT_NE(step("zero-x-again").words.find("a burr, a chip"), std::string::npos);
  EXPECT_TRUE(take(step("zero-x-again"), "-3.00").ok());
  EXPECT_TRUE(step("zero-x-again").done);
  EXPECT_EQ(b.all<BenchZero>().front().second.touches,
            "-3.55000 -3.01000 -3.00000"); // nothing is thrown away
  EXPECT_NEAR(b.all<BenchZero>().front().second.shows, -0.005, 1e-9);
  // Back to it: the first touch stands, the second is made anew.
  ASSERT_TRUE(b.apply(step_back(b, in, steps(), 4, "now")));
  EXPECT_TRUE(step("zero-x").done);
  EXPECT_FALSE(step("zero-x-again").done);
}

// X counts to the left on this machine: the edge is touched at +3, the holes lie at -15 and -45.
TEST_F(OnTheMill, AReadOutThatCountsBackwards) {
  Machine mill;
  mill.kind = MachineKind::mill;
  mill.reversed = "X Z";
  mill.backlash = 0.2;
  mill.dial_turn = 4;
  auto s = *b.find<build::Setup>(setup);
  s.machine = make(mill);
  b.load(setup, s);
  const auto id = std::to_string(drill);
  EXPECT_NEAR(*step("zero-x").number, 3, 1e-12);
  EXPECT_NEAR(*step("go-" + id + "-2-x").number, -45, 1e-9);
  EXPECT_NEAR(*step("go-" + id + "-2-y").number, 20, 1e-9);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, 12.5, 1e-9); // Z counts down
  EXPECT_TRUE(take(step("zero-x"), "10").ok());
  EXPECT_TRUE(take(step("zero-x-again"), "10").ok());
  const auto go = step("go-" + id + "-2-x"); // the edge at 7
  EXPECT_NEAR(*go.number, -38, 1e-9);
  EXPECT_NEAR(go.sum.total(), -38, 1e-9);
  // By the hand wheel of 4 mm a turn: ten turns back and 2 on.
  EXPECT_NE(go.also.find("10 turns back, and 2.000\u202Fmm"), std::string::npos) << go.also;
  EXPECT_NE(go.also.find("0.200\u202Fmm of play"), std::string::npos) << go.also;
}

// A boss of 60 touched on both sides with a finder of 6: 66 apart. Worked by hand.
TEST_F(OnTheMill, AMiddleByTwoTouches) {
  auto s = *b.find<build::Setup>(setup);
  s.datums = {};
  b.load(setup, s);
  at_size(make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60)));
  const auto id = std::to_string(drill);
  EXPECT_TRUE(take(step("zero-x"), "12.5").ok());
  EXPECT_NEAR(*step("zero-x-other").number, 78.5, 1e-9);
  const auto told = take(step("zero-x-other"), "78.46");
  EXPECT_NE(told.told.find("45.480\u202Fmm at the middle of outside"), std::string::npos) << told.told;
  EXPECT_EQ(told.told.find("beside its middle"), std::string::npos);
  EXPECT_NEAR(*step("go-" + id + "-1-x").number, 45.48 - 15, 1e-9);
  // Halved on the read-out: 0 is the middle.
  EXPECT_TRUE(take(step("zero-y")).ok());
  EXPECT_TRUE(take(step("zero-y-other")).ok());
  EXPECT_NEAR(*step("go-" + id + "-1-y").number, 0, 1e-9);
  // A touch beside its middle makes it too small, and it says so.
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("go-" + id + "-1-x"), "now")));
  EXPECT_TRUE(take(step("zero-x"), "0").ok());
  EXPECT_NE(take(step("zero-x-other"), "64").told.find("58.000\u202Fmm across, by the drawing 60.000"),
            std::string::npos);
}

// The next piece against the same stop: its edge should be where the last one's was.
TEST_F(OnTheMill, AgainstAStopTheEdgeIsWhereItWas) {
  auto s = *b.find<build::Setup>(setup);
  s.stop = true;
  b.load(setup, s);
  EXPECT_TRUE(take(step("zero-x"), "50").ok());
  EXPECT_TRUE(take(step("zero-x-again"), "50").ok());
  in.piece = make(Piece{part, 2});
  piece = in.piece;
  for (const Id id : {foot, left, front}) at_size(id);
  EXPECT_NE(step("zero-x").words.find("The piece before"), std::string::npos);
  EXPECT_NEAR(*step("zero-x").number, 50, 1e-9);
  EXPECT_NEAR(step("zero-x").sum.total(), 50, 1e-9);
}

// Z is set over a block with every tool; a hole that starts lower goes to its own depth below that face.
TEST_F(OnTheMill, ZIsSetOverABlockAndHolesStartWhereTheyStart) {
  const auto id = std::to_string(drill);
  EXPECT_TRUE(take(step("zero-z-" + id), "2", Unit::inch).ok()); // a preset block of 2 in (common practice)
  EXPECT_NEAR(*step("zero-z-" + id).number, 50.8, 1e-9);
  EXPECT_FALSE(step("zero-z-" + id).done);
  EXPECT_FALSE(take(step("zero-z-" + id), "-1").ok());
  EXPECT_TRUE(take(step("zero-z-" + id)).ok());
  EXPECT_TRUE(step("zero-z-" + id).done);
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  EXPECT_FALSE(step("zero-z-" + id).done);
  // A read-out that reads by itself need not be set: 70.8 over the block is 20 on the face.
  // Nor where no face is drawn that it comes down on.
  auto nowhere = read_in(Unit::mm);
  nowhere.shows = 50.8;
  ASSERT_TRUE(b.apply(take_step(b, in, step("zero-z-" + id), {}, nowhere).edit));
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  const Id top = at_size(face("top", {0, 0, 10}, Vec3::UnitZ(), 60, 40));
  EXPECT_NE(top, 0);
  refresh();
  auto live = read_in(Unit::mm);
  live.shows = 70.8;
  const auto set = take_step(b, in, step("zero-z-" + id), {}, live);
  ASSERT_TRUE(set.ok() && b.apply(set.edit)) << set.wrong;
  EXPECT_NEAR(*step("deep-" + id + "-1").number, 20 - 12.5, 1e-9);
  EXPECT_NEAR(step("deep-" + id + "-1").sum.total(), 7.5, 1e-9);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step("deep-" + id + "-1"), "now")));
  EXPECT_NEAR(*step("deep-" + id + "-1").number, -12.5, 1e-9);
}

// A block 20 by 12 and 6 high on the middle of the plate, milled all round with a cutter of 8: the plate's
// middle is 30 and 20 from the datums, the cutter 14 and 10 from that. A line across it is scribed where it
// lies.
TEST_F(OnTheMill, ABlockIsMilledAllRoundAndALineIsScribed) {
  Body block;
  block.part = part;
  block.name = "pad";
  block.shape = BodyShape::block;
  block.on = b.find<Body>(holes)->on;
  block.face = BodyFace::top;
  block.order = 8;
  block.set_size({BodyRole::length, 0, 20});
  block.set_size({BodyRole::width, 0, 12});
  block.set_size({BodyRole::height, 0, 6});
  const Id pad = make(block);
  Operation o = *b.find<Operation>(drill);
  o.kind = OperationKind::mill;
  o.bodies = {pad};
  o.size = 8;
  const auto key = std::to_string(make(o));
  EXPECT_NEAR(*step("go-" + key + "-1.1-x").number, 16, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.1-y").number, 10, 1e-9);
  EXPECT_NEAR(*step("deep-" + key + "-1.1").number, -6, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.2-x").number, 44,
              1e-9); // along the near side first: against the feed outside
  EXPECT_NEAR(*step("go-" + key + "-1.3-y").number, 30, 1e-9);
  Body line;
  line.part = part;
  line.name = "centre line";
  line.shape = BodyShape::scribed;
  line.on = block.on;
  line.face = BodyFace::top;
  line.order = 9;
  line.set_size({BodyRole::length, 0, 50});
  line.set_size({BodyRole::across, 0, 3});
  const Id scribed = make(line);
  o.kind = OperationKind::mark;
  o.bodies = {scribed};
  const auto mark = std::to_string(make(o));
  int asked = 0;
  for (const auto& one : steps())
    if (one.key.starts_with("go-" + mark)) ++asked;
  EXPECT_EQ(asked, 1); // along itself it has no place
  EXPECT_NEAR(*step("go-" + mark + "-1-y").number, 23, 1e-9);
  EXPECT_NE(step("go-" + mark + "-1-y").words.find("Scribe where"), std::string::npos);
}

// 10 deep with a drill of 2 is five diameters: out for chips; with 5 it is two. 28 m/min in mild steel are
// 1780 rev/min with 5 mm; of the speeds the machine has the next below.
TEST_F(OnTheMill, HowToDrillStandsBesideTheNumber) {
  const auto key = "deep-" + std::to_string(drill) + "-1";
  EXPECT_NE(step(key).also.find("turn at about 1780 rev/min"), std::string::npos) << step(key).also;
  EXPECT_EQ(step(key).also.find("chips"), std::string::npos);
  Machine mill;
  mill.kind = MachineKind::mill;
  mill.speeds = "90 450 1250 2100";
  auto s = *b.find<build::Setup>(setup);
  s.machine = make(mill);
  b.load(setup, s);
  EXPECT_NE(step(key).also.find("turn at 1250 rev/min"), std::string::npos) << step(key).also;
  auto o = *b.find<Operation>(drill);
  o.size = 2;
  b.load(drill, o);
  EXPECT_NE(step(key).also.find("out for chips every 2.00"), std::string::npos) << step(key).also;
  auto of = *b.find<Part>(part);
  of.material = "unobtainium";
  b.load(part, of);
  EXPECT_EQ(step(key).also.find("turn"), std::string::npos);
}

// 30 apart, drilled 5: 35 over two pins, 25 between the edges.
TEST_F(OnTheMill, HolesAreCheckedFromEachOther) {
  const auto check = step("check-" + std::to_string(drill) + "-" + std::to_string(holes) + "-2");
  EXPECT_NEAR(*check.number, 30, 1e-9);
  EXPECT_NE(check.words.find("35.000"), std::string::npos) << check.words;
  EXPECT_NE(check.words.find("25.000"), std::string::npos) << check.words;
  EXPECT_NE(take(check, "1.18").wrong.find("is it centre to centre"), std::string::npos); // inches
  const auto taken = take(check, "30.2");
  EXPECT_NE(taken.told.find("0.200\u202Fmm more than drawn"), std::string::npos) << taken.told;
  EXPECT_NE(taken.edit.label.find("30.200"), std::string::npos); // it stands in the log
  EXPECT_TRUE(step(check.key).done);
}

// A slot 30 by 8, 4 deep in the middle of the plate: its middle 30 from the left, 20 from the front. With a
// cutter as wide as it from 19 to 41; with one of 6 a millimetre to either side. Worked by hand.
TEST_F(OnTheMill, ASlotIsMilledByItsCutter) {
  Body slot;
  slot.part = part;
  slot.name = "slot";
  slot.shape = BodyShape::slot;
  slot.on = b.find<Body>(holes)->on;
  slot.face = BodyFace::top;
  slot.order = 9;
  slot.set_size({BodyRole::length, 0, 30});
  slot.set_size({BodyRole::width, 0, 8});
  slot.set_size({BodyRole::depth, 0, 4});
  const Id body = make(slot);
  Operation o = *b.find<Operation>(drill);
  o.kind = OperationKind::mill;
  o.bodies = {body};
  o.size = 8;
  const Id mill = make(o);
  const auto key = std::to_string(mill);
  const auto keys = [&] {
    std::vector<std::string> list;
    for (const auto& one : steps())
      if (one.operation == mill && one.kind != StepKind::tick) list.push_back(one.key);
    return list;
  };
  EXPECT_EQ(keys(), (std::vector<std::string>{"go-" + key + "-1.1-x", "go-" + key + "-1.1-y", "zero-z-" + key,
                                              "deep-" + key + "-1.1", "go-" + key + "-1.2-x"}));
  EXPECT_NEAR(*step("go-" + key + "-1.1-x").number, 19, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.1-y").number, 20, 1e-9);
  EXPECT_NEAR(*step("deep-" + key + "-1.1").number, -4, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.2-x").number, 41, 1e-9);
  EXPECT_NE(step("go-" + key + "-1.2-x").words.find("Mill along"), std::string::npos);
  o.size = 6;
  b.load(mill, o);
  EXPECT_NEAR(*step("go-" + key + "-1.1-y").number, 19,
              1e-9); // left and near first, then round against the feed
  EXPECT_NEAR(*step("go-" + key + "-1.2-y").number, 21, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.3-x").number, 41, 1e-9);
  EXPECT_NEAR(*step("go-" + key + "-1.5-x").number, 19, 1e-9);
  EXPECT_NE(step("go-" + key + "-1.1-x").also.find("round ends want a cutter of 8.00"), std::string::npos);
  o.size = 0;
  b.load(mill, o);
  EXPECT_NE(step("cutter-" + key + "-1").words.find("which cutter"), std::string::npos);
  o.size = 10;
  b.load(mill, o);
  EXPECT_NE(step("cutter-" + key + "-1").words.find("does not go in"), std::string::npos);
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

// A countersink goes as deep as its mouth is drawn, not as deep as the hole.
TEST_F(OnTheMill, AMouthIsSunkToItsOwnDepth) {
  auto hole = *b.find<Body>(holes);
  hole.mouth = HoleMouth::counterbored;
  hole.set_size({BodyRole::mouth_diameter, 0, 9});
  hole.set_size({BodyRole::mouth_depth, 0, 4});
  b.load(holes, hole);
  auto o = *b.find<Operation>(drill);
  o.kind = OperationKind::mill;
  b.load(drill, o);
  const auto id = std::to_string(drill);
  EXPECT_NEAR(*step("go-" + id + "-2-x").number, 45, 1e-9);
  EXPECT_NEAR(*step("deep-" + id + "-2").number, -4, 1e-9);
  EXPECT_EQ(step("done-" + id).kind, StepKind::tick);
}

// In the chuck, 15 off the axis: a drill in the tailstock does not come there.
TEST_F(OnTheMill, OnALatheAHoleOffTheAxisIsSaid) {
  make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60));
  auto s = *b.find<build::Setup>(setup);
  s.holding = Workholding::three_jaw;
  b.load(setup, s);
  const auto deep = step("deep-" + std::to_string(drill) + "-1");
  EXPECT_NE(deep.words.find("15.00\u202Fmm off the axis"), std::string::npos) << deep.words;
  EXPECT_NEAR(*deep.number, 12.5, 1e-9); // what goes in, no read-out
}

// In the four-jaw: 2 thou at one jaw and none opposite are 1 thou to move (common practice).
TEST_F(OnTheMill, InTheFourJawItIsTrued) {
  auto s = *b.find<build::Setup>(setup);
  s.holding = Workholding::four_jaw;
  b.load(setup, s);
  const auto jaws = step("true-up");
  EXPECT_NEAR(*jaws.number, 0.05, 1e-12); // machined work, no tolerance stated
  const auto thou = take(jaws, "0.002+0+0+0", Unit::inch);
  EXPECT_NE(thou.wrong.find("jaw 1 in 0.0010"), std::string::npos) << thou.wrong;
  EXPECT_NE(thou.wrong.find("jaw 3 out 0.0010"), std::string::npos) << thou.wrong;
  const auto far = take(step("true-up"), "0.1+0.02-0.06-0.02");
  EXPECT_NE(far.wrong.find("0.165\u202Fmm over a turn"), std::string::npos) << far.wrong;
  EXPECT_NE(far.wrong.find("jaw 1 in 0.080"), std::string::npos) << far.wrong;
  EXPECT_NE(far.wrong.find("jaw 3 out 0.080"), std::string::npos) << far.wrong;
  EXPECT_NE(far.wrong.find("jaw 2 in 0.020"), std::string::npos) << far.wrong;
  for (const auto* bad : {"0.1", "0.1+0.2", "1+2+3+4+5", "a+b+c+d", "30+0+0+0"})
    EXPECT_FALSE(take(step("true-up"), bad).ok()) << bad;
  // Coaxial within 0.02 of what it runs by: that is what counts.
  GeometricTolerance t;
  t.part = part;
  t.what = Characteristic::coaxial;
  t.surface = make(round("seat", SurfaceKind::bore, {-15, 0, 5}, Vec3::UnitZ(), 5));
  t.datums = {foot};
  t.within = 0.02;
  make(t);
  s.cuts = {t.surface};
  b.load(setup, s);
  EXPECT_NEAR(*step("true-up").number, 0.02, 1e-12);
  // What is at its size already has no say: nothing comes off it any more.
  t.within = 0.3;
  const Id seat = t.surface;
  b.load(b.all<GeometricTolerance>().front().first, t);
  at_size(seat);
  EXPECT_NEAR(*step("true-up").number, 0.3, 1e-12);
  uncut(seat);
  t.within = 0.02;
  b.load(b.all<GeometricTolerance>().front().first, t);
  EXPECT_FALSE(take(step("true-up"), "0.02+0-0.02+0").ok());
  EXPECT_TRUE(take(step("true-up"), "0.008+0-0.008+0").ok());
  EXPECT_TRUE(step("true-up").done);
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

namespace {

// With a point whatever the locale writes; to_string would follow the locale.
std::string typed_out(double mm) {
  return fmt::format("{:.6f}", mm);
}

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
  EXPECT_FALSE(take_step(b, in, *cut, "", read_in(Unit::mm)).ok());
  EXPECT_FALSE(take_step(b, in, *cut, "900", read_in(Unit::mm)).ok());
  const double left = *cut->number + 0.8; // less was taken than the pass wanted
  const auto taken = take_step(b, in, *cut, typed_out(left), read_in(Unit::mm));
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
  const auto taken = take_step(b, in, *step, typed_out(apart + 1.1), read_in(Unit::mm));
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  EXPECT_EQ(taken.told.find("across, 1.100\u202Fmm left"), 0U) << taken.told;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_NEAR(b.cuts_of(piece, here).back().second.left, 1.1, 1e-5);
  EXPECT_EQ(b.cuts_of(piece, here).back().second.note, "read across");
}

// 3 mm thick with 2.5 over each face and the other at size: 2.4 may be what is left, or the thickness and too
// deep by 0.6. Nobody but the person knows: it is not taken.
TEST_F(OnTheMill, WhatCouldBeEitherIsNotGuessed) {
  for (const Id id : {foot, left, front}) uncut(id);
  const Id bar = b.all<Stock>().front().first;
  auto stock = *b.find<Stock>(bar);
  stock.length = 60, stock.width = 40, stock.thick = 8;
  b.load(bar, stock);
  for (const Id id : {left, front}) { // as high as it is thick
    auto edge = *b.find<PartSurface>(id);
    edge.point.z() = 1.5, edge.height = 3;
    b.load(id, edge);
  }
  gone(holes);
  const Id top = face("top", {0, 0, 3}, Vec3::UnitZ(), 60, 40);
  std::pair<Id, Body> plate = b.all<Body>().front();
  plate.second.set_size({BodyRole::height, 0, 3});
  b.load(plate.first, plate.second);
  at_size(foot);
  auto s = *b.find<build::Setup>(setup);
  s.cuts = {top};
  b.load(setup, s);
  Operation o;
  o.part = part;
  o.kind = OperationKind::mill;
  o.setup = setup;
  o.surfaces = {top};
  make(o);
  const auto all = steps();
  const auto cut =
      std::find_if(all.begin(), all.end(), [](const auto& one) { return one.kind == StepKind::cut; });
  ASSERT_NE(cut, all.end());
  const auto either = take(*cut, "2.4");
  EXPECT_NE(
      either.wrong.find("2.400\u202Fmm left, or 2.400\u202Fmm across, which leaves \u22120.600\u202Fmm"),
      std::string::npos)
      << either.wrong;
  EXPECT_TRUE(b.cuts_of(piece, top).empty());
  // 1.5 is left: across it would be 1.5 too deep.
  EXPECT_TRUE(take(*cut, "1.5").ok());
  EXPECT_NEAR(b.cuts_of(piece, top).back().second.left, 1.5, 1e-9);
}

TEST_F(OnTheCylinder, NotUnclampedBeforeTheGate) {
  const auto* out = first(StepKind::unclamp);
  ASSERT_TRUE(out);
  EXPECT_NE(out->words.find("Not yet"), std::string::npos);
  EXPECT_FALSE(take_step(b, in, *out, "", read_in(Unit::mm)).ok());
}

TEST_F(OnTheCylinder, ASizeIsReadIntoTheRecord) {
  for (const auto& [id, s] : b.setups_of(part))
    if (!s.sizes.empty()) setup = id;
  refresh();
  const auto* read = first(StepKind::read);
  ASSERT_TRUE(read);
  const double nominal = *read->number;
  EXPECT_NE(
      take_step(b, in, *read, typed_out(nominal * 25.4), read_in(Unit::mm)).wrong.find("is the unit right"),
      std::string::npos);
  const auto taken = take_step(b, in, *read, typed_out(nominal), read_in(Unit::mm));
  ASSERT_TRUE(taken.ok()) << taken.wrong;
  ASSERT_TRUE(b.apply(taken.edit));
  EXPECT_NEAR(b.measurement_of(piece, read->dimension)->second.value, nominal, 1e-6);
}

// Tried in its mate at the machine: one key for how it goes, the depth, one for what tells; the joint's
// record.
TEST_F(OnTheMill, ATrialIsFeltAndKept) {
  auto drawn = round("seat", SurfaceKind::bore, {-15, 0, 5}, Vec3::UnitZ(), 5);
  drawn.body = holes, drawn.face = BodyFace::side, drawn.height = 10;
  const Id bore = make(drawn);
  const Id pin_part = make(Part{"Pin", "silver steel", 1, 1});
  const Id pin = make(Piece{pin_part, 1});
  auto outside = round("outside", SurfaceKind::boss, {0, 0, 0}, Vec3::UnitZ(), 5);
  outside.part = pin_part;
  const auto diameter = [&](Id of, Id surface) {
    Dimension d;
    d.part = of, d.name = "diameter", d.surface = surface, d.nominal = 5;
    return make(d);
  };
  Joint joint;
  joint.name = "Pin in plate";
  joint.hole = diameter(part, bore);
  joint.shaft = diameter(pin_part, make(outside));
  joint.length = 10;
  joint.most = 0.02;
  const Id in_joint = make(joint);
  Operation o = *b.find<Operation>(drill);
  o.kind = OperationKind::trial;
  o.bodies = {};
  o.surfaces = {bore};
  const auto key = "try-" + std::to_string(make(o)) + "-" + std::to_string(in_joint);
  EXPECT_NE(step(key).words.find("2 jams part-way"), std::string::npos) << step(key).words;
  for (const auto* bad : {"7", "0", "x", "2", "2+0", "2+11", "2+4+9", "1.5"})
    EXPECT_FALSE(take(step(key), bad).ok()) << bad;
  EXPECT_TRUE(b.all<Trial>().empty());
  const auto told = take(step(key), "2+4.5+1+5");
  ASSERT_TRUE(told.ok()) << told.wrong;
  ASSERT_EQ(b.all<Trial>().size(), 1U);
  const auto kept = b.all<Trial>().front().second;
  EXPECT_EQ(kept.felt, Felt::jams);
  EXPECT_NEAR(kept.depth, 4.5, 1e-9);
  EXPECT_EQ(kept.hole_piece, piece);
  EXPECT_EQ(kept.shaft_piece, pin);
  EXPECT_EQ(kept.note, "ring of dye, finger nail");
  EXPECT_FALSE(step(key).done); // until it goes
  EXPECT_NE(step(key).also.find("jams at 4.5"), std::string::npos);
  EXPECT_TRUE(take(step(key), "4").ok());
  EXPECT_TRUE(take(step(key)).ok());
  EXPECT_TRUE(step(key).done);
  // Spotted through it: as wide as the mate's is.
  o.kind = OperationKind::transfer;
  o.bodies = {holes};
  const auto spot = step("transfer-" + std::to_string(make(o)) + "-" + std::to_string(holes));
  EXPECT_NEAR(*spot.number, 5, 1e-9);
  EXPECT_NE(spot.words.find("Pin"), std::string::npos);
}

TEST(BenchSteps, NothingWhereThereIsNothing) {
  Build b;
  EXPECT_TRUE(bench_steps(b, {}).empty());
  EXPECT_EQ(step_to_do({}), -1);
}
