// Other ways of touching a datum: with both axes read, between two faces, by one side and the size; and that
// a zero found long ago still holds. Worked by hand; of what lies askew on a triangle of 3, 4 and 5.

#include "steps/zeros.h"
#include "tests/core/steps/on_the_mill.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::steps;
using datrin::test::OnTheMill;

namespace {

class Touches : public OnTheMill {
protected:
  std::string hole(int n, const char* axis) const {
    return "go-" + std::to_string(drill) + "-" + std::to_string(n) + "-" + axis;
  }
  void set_datums(std::vector<Id> datums) {
    auto s = *b.find<build::Setup>(setup);
    s.datums = std::move(datums);
    b.load(setup, s);
  }
  /// X and Y of one touch after the other.
  StepTaken touch(const std::string& zero, const std::vector<std::pair<const char*, const char*>>& read,
                  int from = 1) {
    StepTaken last;
    for (std::size_t k = 0; k < read.size(); ++k) {
      const auto key = zero + "-touch-" + std::to_string(from + static_cast<int>(k));
      last = take(step(key + "-x"), read[k].first);
      EXPECT_TRUE(last.ok()) << last.wrong;
      last = take(step(key + "-y"), read[k].second);
    }
    return last;
  }
  Id boss() {
    set_datums({});
    return at_size(make(round("outside", SurfaceKind::boss, {0, 0, 5}, Vec3::UnitZ(), 60)));
  }
};

} // namespace

// The corner at 100, 50, turned so that 4 to the right are 3 away: a finder of 6 stands 3 outside of either
// face. The holes 15 and 45 from the left, 20 from the front.
TEST_F(Touches, APartThatLiesAskewIsCountedFromItsCorner) {
  EXPECT_EQ(step("zero-x").another_way, "it lies askew");
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  EXPECT_FALSE(take(step("zero-x-touch-1-x")).ok()); // what it reads is wanted
  touch("zero-x", {{"94.6", "52.2"}, {"76.6", "76.2"}});
  EXPECT_FALSE(step("zero-y-touch-1-x").done);
  const auto told = touch("zero-y", {{"109.8", "53.6"}, {"141.8", "77.6"}}).told;
  EXPECT_NE(told.find("X reads 100.000\u202Fmm, Y 50.000\u202Fmm at the corner of left and front"),
            std::string::npos)
      << told;
  EXPECT_NE(told.find("36.87\u00B0 counter-clockwise"), std::string::npos) << told;
  EXPECT_NEAR(*step(hole(1, "x")).number, 100, 1e-6);
  EXPECT_NEAR(*step(hole(1, "y")).number, 75, 1e-6);
  EXPECT_NEAR(*step(hole(2, "x")).number, 124, 1e-6);
  EXPECT_NEAR(*step(hole(2, "y")).number, 93, 1e-6);
  for (const auto* axis : {"x", "y"}) {
    const auto go = step(hole(2, axis));
    EXPECT_NEAR(go.sum.total(), *go.number, 1e-9);
  }
  // Lost, both are found anew the same way, the old kept.
  ASSERT_TRUE(b.apply(lose_zero(b, in, step(hole(2, "y")), "now")));
  EXPECT_FALSE(step("zero-x-touch-1-x").done);
  touch("zero-x", {{"94.6", "52.2"}, {"76.6", "76.2"}});
  touch("zero-y", {{"109.8", "53.6"}, {"141.8", "77.6"}});
  EXPECT_NEAR(*step(hole(2, "y")).number, 93, 1e-6);
  EXPECT_EQ(b.all<BenchZero>().size(), 4U);
  // A touch made anew: X's second; the corner follows from it.
  const auto all = steps();
  for (std::size_t k = 0; k < all.size(); ++k)
    if (all[k].key == "zero-x-touch-2-x") {
      ASSERT_TRUE(b.apply(step_back(b, in, all, static_cast<int>(k), "now")));
    }
  EXPECT_TRUE(step("zero-x-touch-1-y").done);
  EXPECT_FALSE(step("zero-x-touch-2-x").done);
  touch("zero-x", {{"82.6", "68.2"}}, 2); // 25 up the face
  EXPECT_NEAR(*step(hole(2, "x")).number, 124, 1e-6);
}

// The read-out counts X to the left: the same part, the same places, X below 0.
TEST_F(Touches, AskewOnAReadOutThatCountsBackwards) {
  Machine mill;
  mill.kind = MachineKind::mill;
  mill.reversed = "X";
  auto s = *b.find<build::Setup>(setup);
  s.machine = make(mill);
  b.load(setup, s);
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  touch("zero-x", {{"-94.6", "52.2"}, {"-76.6", "76.2"}});
  touch("zero-y", {{"-109.8", "53.6"}, {"-141.8", "77.6"}});
  EXPECT_NEAR(*step(hole(2, "x")).number, -124, 1e-6);
  EXPECT_NEAR(*step(hole(2, "y")).number, 93, 1e-6);
}

// A burr under the last touch: half a millimetre off a right angle is not swallowed; touched again, or taken
// as the part is.
TEST_F(Touches, FacesThatAreNotSquareAreAskedAbout) {
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  touch("zero-x", {{"-3", "5"}, {"-3", "35"}});
  const auto apart = touch("zero-y", {{"10", "-3"}, {"50", "-2.5"}});
  EXPECT_NE(apart.told.find("off a right angle"), std::string::npos) << apart.told;
  const auto last = step("zero-y-touch-2-y");
  EXPECT_FALSE(last.done);
  EXPECT_NE(last.words.find("a burr"), std::string::npos);
  EXPECT_TRUE(take(last, "-3").ok());
  EXPECT_TRUE(step("zero-y-touch-2-y").done);
  EXPECT_NEAR(*step(hole(1, "x")).number, 15, 1e-9);
  EXPECT_EQ(b.all<BenchZero>().size(), 3U); // the reading that was not right is kept
  // As it is, where it is not square.
  ASSERT_TRUE(b.apply(lose_zero(b, in, step(hole(1, "x")), "now")));
  touch("zero-x", {{"-3", "5"}, {"-3", "35"}});
  touch("zero-y", {{"10", "-3"}, {"50", "-2.5"}});
  ASSERT_TRUE(take(step("zero-y-touch-2-y"), "+").ok());
  EXPECT_TRUE(step("zero-y-touch-2-y").done);
  // The front's touches, farther apart, count for more: turned by 0.008; X about the middle of the left face.
  EXPECT_NEAR(b.all<BenchZero>().back().second.turn, 0.008, 1e-5);
  EXPECT_NEAR(*step(hole(1, "x")).number, 15, 0.002);
}

// And back: an axis at a time, what was read stays in the record.
TEST_F(Touches, TheWayOfTouchingMayBeChanged) {
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  ASSERT_TRUE(take(step("zero-x-touch-1-x"), "+").ok());
  EXPECT_EQ(step("zero-x").another_way, "it lies askew");
  EXPECT_EQ(b.all<BenchZero>().size(), 1U);
  EXPECT_FALSE(take(step("finder"), "+").ok());
}

// The other face is no datum any more: what was begun askew is found as usual, nothing of it counts.
TEST_F(Touches, WithoutTheOtherFaceItIsFoundAsUsual) {
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  touch("zero-x", {{"94.6", "52.2"}});
  set_datums({foot, left});
  EXPECT_FALSE(step("zero-x").done);
  EXPECT_TRUE(take(step("zero-x"), "10").ok());
  EXPECT_TRUE(take(step("zero-x-again"), "10.01").ok());
  EXPECT_NEAR(*step(hole(1, "x")).number, 10.005 + 3 + 15, 1e-9);
}

// Turned by more than an eighth of a turn the faces would be taken for each other.
TEST_F(Touches, TooFarTurnedIsAskedAbout) {
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  touch("zero-x", {{"0", "0"}, {"30", "10"}});
  EXPECT_TRUE(take(step("zero-y-touch-1-x"), "0").ok());
  EXPECT_TRUE(take(step("zero-y-touch-1-y"), "-10").ok());
  EXPECT_TRUE(take(step("zero-y-touch-2-x"), "10").ok());
  EXPECT_NE(take(step("zero-y-touch-2-y"), "-40").wrong.find("45"), std::string::npos);
}

// A boss of 60 about 45, −12: a finder of 6 stands 33 off, touched to the right, up to the left, in front.
TEST_F(Touches, AMiddleByThreePlaces) {
  boss();
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  const auto told = touch("zero-x", {{"78", "-12"}, {"25.2", "14.4"}, {"45", "-45"}}).told;
  EXPECT_NE(told.find("X reads 45.000\u202Fmm, Y \u221212.000\u202Fmm at the middle of outside"),
            std::string::npos)
      << told;
  EXPECT_NEAR(*step(hole(1, "x")).number, 30, 1e-6);
  EXPECT_NEAR(*step(hole(2, "y")).number, -12, 1e-6);
  // Nothing says whether three are right: they are as sure as touches that agree.
  EXPECT_NEAR(b.all<BenchZero>().front().second.uncertainty, 2 * std::hypot(0.01, 0.01 / std::sqrt(12)),
              1e-6);
  EXPECT_TRUE(take(step("zero-x-touch-4-x"), "25.2").ok());
  EXPECT_NE(take(step("zero-x-touch-4-y"), "-37").wrong.find("off one circle"), std::string::npos);
  EXPECT_TRUE(take(step("zero-x-touch-4-y"), "-38.4").ok());
  EXPECT_NEAR(b.all<BenchZero>().front().second.uncertainty, 2 * 0.01 / std::sqrt(12), 1e-6);
  EXPECT_TRUE(step("zero-x-touch-4-y").done);
  for (const auto& one : steps()) EXPECT_NE(one.key, "zero-y"); // the same touches
}

TEST_F(Touches, OfThreePlacesAFourthMayBeLeftOut) {
  boss();
  ASSERT_TRUE(take(step("zero-x"), "+").ok());
  touch("zero-x", {{"78", "-12"}, {"25.2", "14.4"}, {"45", "-45"}});
  EXPECT_TRUE(take(step("zero-x-touch-4-x")).ok());
  EXPECT_TRUE(step("zero-x-touch-4-x").done);
  EXPECT_TRUE(step("zero-x-touch-4-y").done);
  // One that was typed twice makes no circle.
  ASSERT_TRUE(b.apply(lose_zero(b, in, step(hole(1, "x")), "now")));
  EXPECT_FALSE(step("zero-x-touch-4-x").done);
  EXPECT_TRUE(take(step("zero-x-touch-1-x"), "78").ok());
  EXPECT_TRUE(take(step("zero-x-touch-1-y"), "-12").ok());
  EXPECT_TRUE(take(step("zero-x-touch-2-x"), "25.2").ok());
  EXPECT_TRUE(take(step("zero-x-touch-2-y"), "14.4").ok());
  EXPECT_TRUE(take(step("zero-x-touch-3-x"), "78").ok());
  EXPECT_NE(take(step("zero-x-touch-3-y"), "-12").wrong.find("no circle"), std::string::npos);
}

// The other side of a boss of 60 not to be reached: 33 on from where it was touched.
TEST_F(Touches, AMiddleByOneSideAndTheSize) {
  const Id outside = boss();
  EXPECT_NE(outside, 0);
  EXPECT_TRUE(take(step("zero-x"), "12.5").ok());
  const auto told = take(step("zero-x-other"), "+").told;
  EXPECT_NE(told.find("60.000\u202Fmm across as drawn"), std::string::npos) << told;
  EXPECT_TRUE(step("zero-x-other").done);
  EXPECT_NEAR(*step(hole(2, "x")).number, 12.5 + 33 + 15, 1e-9);
}

// 60 wide between two faces: the finder's middles 66 apart. The holes 15 to either side of the middle; with
// 1 still on the right face alone (sawn 62 long) the metal's middle is 0.5 further right.
TEST_F(Touches, TheMiddleBetweenTwoFaces) {
  const Id right = face("right", {30, 0, 5}, Vec3::UnitX(), 40, 10);
  const Id cut = at_size(right);
  set_datums({foot, right, left, front}); // whichever is said first
  EXPECT_EQ(step("zero-x").title, "Find the middle of left and right");
  EXPECT_TRUE(take(step("zero-x"), "10").ok());
  EXPECT_NEAR(*step("zero-x-other").number, 76, 1e-9);
  const auto told = take(step("zero-x-other"), "75.98").told;
  EXPECT_NE(told.find("42.990\u202Fmm at the middle of left and right"), std::string::npos) << told;
  EXPECT_NEAR(*step(hole(1, "x")).number, 42.99 - 15, 1e-9);
  gone(cut);
  const Id bar = b.all<Stock>().front().first;
  auto stock = *b.find<Stock>(bar);
  stock.length = 62, stock.width = 40, stock.thick = 10;
  b.load(bar, stock);
  EXPECT_NEAR(*step(hole(1, "x")).number, 42.99 - 15.5, 1e-9);
  EXPECT_NEAR(step(hole(1, "x")).sum.total(), 42.99 - 15.5, 1e-9);
}

// A slot 24 wide, touched with 6: its walls look at each other, the touches are 18 apart.
TEST_F(Touches, TheMiddleOfASlot) {
  const Id one = face("left wall", {-12, 0, 5}, Vec3::UnitX(), 40, 10);
  const Id other = face("right wall", {12, 0, 5}, -Vec3::UnitX(), 40, 10);
  at_size(one);
  at_size(other);
  set_datums({foot, one, other, front});
  EXPECT_TRUE(take(step("zero-x"), "0").ok());
  EXPECT_NEAR(*step("zero-x-other").number, 18, 1e-9);
  EXPECT_TRUE(take(step("zero-x-other"), "18.02").ok());
  EXPECT_NEAR(*step(hole(2, "x")).number, 9.01 + 15, 1e-9);
  // Measured, what its touches are off that is what they are unsure by.
  auto d = dimension(DimensionKind::distance, other, one, 24);
  d.lower = -0.1, d.upper = 0.1;
  Measurement m;
  m.piece = piece, m.dimension = make(d), m.value = 24;
  make(m);
  ASSERT_TRUE(b.apply(lose_zero(b, in, step(hole(2, "x")), "now")));
  EXPECT_TRUE(take(step("zero-x"), "0").ok());
  EXPECT_TRUE(take(step("zero-x-other"), "18.1").ok());
  EXPECT_NEAR(b.all<BenchZero>().back().second.uncertainty, 2 * std::hypot(0.05, 0.01 / std::sqrt(12)), 1e-6);
  EXPECT_EQ(step("zero-x").another_way, ""); // a slot is not touched round about
}

// Found on one day, used on another: one touch first. Off by half a millimetre it is lost, and says so.
TEST_F(Touches, AZeroOfAnotherDayIsTouchedFirst) {
  take(step("zero-x"), "101.25");
  take(step("zero-x-again"), "101.25");
  take(step("zero-y"));
  take(step("zero-y-again"));
  const auto still = [&](const char* now) {
    refresh();
    BenchOptions options;
    options.now = now;
    std::vector<BenchStep> found;
    for (const auto& one : bench_steps(b, in, options))
      if (one.key.starts_with("still-")) found.push_back(one);
    return found;
  };
  EXPECT_TRUE(still("2026-11-27T15:00:00Z").empty()); // found at ten the same day
  const auto due = still("2026-12-18T09:00:00Z");
  ASSERT_EQ(due.size(), 2U);
  EXPECT_EQ(due[0].key, "still-x");
  EXPECT_NEAR(*due[0].number, 101.25, 1e-9);
  EXPECT_NEAR(*due[1].number, -3, 1e-9);
  EXPECT_NE(due[0].words.find("2026-11-27"), std::string::npos);
  EXPECT_NE(take(due[0], "100.75").wrong.find("0.500\u202Fmm off: the zero is lost"), std::string::npos);
  EXPECT_NE(take(due[0], "3.986").wrong.find("another unit"), std::string::npos); // shows inches
  auto options = test::read_in(Unit::mm);
  options.at = "2026-12-18T09:05:00Z";
  const auto held = take_step(b, in, due[0], "101.26", options);
  ASSERT_TRUE(held.ok() && b.apply(held.edit)) << held.wrong;
  EXPECT_NE(held.told.find("holds, within 0.010"), std::string::npos) << held.told;
  ASSERT_EQ(still("2026-12-18T09:06:00Z").size(), 1U);
  EXPECT_EQ(still("2026-12-18T20:00:00Z").size(), 2U); // and the next time again
  ASSERT_TRUE(b.apply(take_step(b, in, due[1], {}, options).edit));
  EXPECT_TRUE(still("2026-12-18T09:06:00Z").empty());
  EXPECT_TRUE(still("not a time").empty());
}
