// A hole out of its place, a tap broken in it. Common practice: spot the mate, open out, the next thread,
// plug and drill, turn the pattern; drive out, alum for brass and aluminium, spark erosion. Thread sizes: ISO
// 2306 tapping drills (M4 3.3, M5 4.2, M6 5.0), by the table of the threads, which has its own tests.

#include "route/hole_recovery.h"

#include "build/edits.h"
#include "solid/body_edits.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

class AHoleGoneWrong : public test::DrawnPart {
protected:
  AHoleGoneWrong() {
    part = make(Part{"Flange", "mild steel", 1, 0});
    piece = make(Piece{part, 1});
    plate = plate_solid(80, 40);
    auto hole = two_holes(plate, 3.3, 40);
    hole.thread = "M4";
    holes = make(hole);
    face("end", {40, 0, 5}, Vec3::UnitX(), 40, 10);
    face("side", {0, 20, 5}, Vec3::UnitY(), 80, 10);
    Operation tap;
    tap.part = part;
    tap.kind = OperationKind::tap;
    tap.bodies = {holes};
    tap.name = "tap M4";
    tapped = make(tap);
  }
  Feature feature() const {
    for (const auto& f : features_to_make(b, part))
      if (f.body == holes) return f;
    ADD_FAILURE() << "no hole";
    return {};
  }
  std::vector<RecoveryWay> ways(HoleSlip slip, double off) {
    return hole_recoveries(b, feature(), {piece, slip, off, "2026-11-27T10:00:00Z"});
  }
  static const RecoveryWay* find(const std::vector<RecoveryWay>& all, Recovery way) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const auto& w) { return w.way == way; });
    return found == all.end() ? nullptr : &*found;
  }
  Id piece = 0, plate = 0, holes = 0, tapped = 0;
};

TEST_F(AHoleGoneWrong, TheNextThreadTakesTheOldHoleAway) {
  // Drilled 3.3, 0.4 off: 3.3 + 0.8 = 4.1 must go: M5 is drilled 4.2.
  auto all = ways(HoleSlip::out_of_place, 0.4);
  const auto* next = find(all, Recovery::next_thread);
  ASSERT_TRUE(next);
  EXPECT_NE(next->text.find("M5"), std::string::npos) << next->text;
  EXPECT_TRUE(next->works);
  // Tapped already, its thread must go as well: 4 + 0.8: M6 is drilled 5.
  make(OperationDone{piece, tapped, "now", ""});
  all = ways(HoleSlip::out_of_place, 0.4);
  EXPECT_NE(find(all, Recovery::next_thread)->text.find("M6"), std::string::npos);
  EXPECT_EQ(find(all, Recovery::open_out), nullptr); // a thread has no play to give
}

TEST_F(AHoleGoneWrong, TheMetalRoundItDecides) {
  // 20 mm from the axis at 20 along to the end at 40, 20 to the side: 20 - 2.1 for a hole of 4.2.
  EXPECT_NEAR(*metal_round(b, part, feature(), 4.2), 20 - 2.1, 1e-9);
  face("slot side", {0, 3, 5}, Vec3::UnitY(), 80, 10); // 3 mm from the axes
  EXPECT_NEAR(*metal_round(b, part, feature(), 4.2), 3 - 2.1, 1e-9);
  const auto all = ways(HoleSlip::out_of_place, 0.4);
  const auto* next = find(all, Recovery::next_thread);
  EXPECT_FALSE(next->works);
  EXPECT_NE(next->text.find("only 0.5"), std::string::npos) << next->text; // M5 is 5 across: 3 - 2.5
  EXPECT_TRUE(next->edit.empty());
}

TEST_F(AHoleGoneWrong, TakingOneAddsItsOperationsForThatPiece) {
  const auto all = ways(HoleSlip::out_of_place, 0.4);
  const auto* next = find(all, Recovery::next_thread);
  ASSERT_TRUE(b.apply(next->edit));
  ASSERT_EQ(b.operations_of(part).size(), 3U);
  const auto last = b.operations_of(part).back().second;
  EXPECT_EQ(last.kind, OperationKind::tap);
  EXPECT_EQ(last.note, "no. 1 only");
  EXPECT_EQ(last.bodies, std::vector<Id>{holes});
  ASSERT_EQ(b.decisions_of(part).size(), 1U);
  EXPECT_NE(b.decisions_of(part).front().second.reason.find("lies 0.40"), std::string::npos);
}

TEST_F(AHoleGoneWrong, AClearanceHoleMayStayWhereItsBoltAllows) {
  auto body = *b.find<Body>(holes);
  body.thread.clear();
  const auto surface = make(round("bolt hole", SurfaceKind::bore, {20, 0, 5}, Vec3::UnitZ(), 4.5));
  body.surface = 0;
  b.load(holes, body);
  auto d = dimension(DimensionKind::size, surface, 0, 4.5);
  const Id bolt_hole = make(d);
  Joint j;
  j.name = "bolt";
  j.purpose = JointPurpose::bolt_clearance;
  j.hole = bolt_hole;
  j.least = 0.5, j.most = 0.6;
  make(j);
  Feature f;
  for (const auto& one : features_to_make(b, part))
    if (contains(one.surfaces, surface)) f = one;
  auto all = hole_recoveries(b, f, {piece, HoleSlip::out_of_place, 0.2, "now"});
  const auto* leave = find(all, Recovery::leave);
  ASSERT_TRUE(leave);
  EXPECT_NEAR(leave->room, 0.05, 1e-9); // half of 0.5, less 0.2
  EXPECT_NE(leave->text.find("takes up 0.25"), std::string::npos) << leave->text;
  all = hole_recoveries(b, f, {piece, HoleSlip::out_of_place, 0.3, "now"});
  EXPECT_LT(find(all, Recovery::leave)->room, 0);
  const auto* open = find(all, Recovery::open_out);
  ASSERT_TRUE(open);
  EXPECT_NE(open->text.find("5.10"), std::string::npos) << open->text; // 4.5 + 2 · 0.3
}

TEST_F(AHoleGoneWrong, ASetHalfAPitchOnNeedsMetalBetween) {
  const auto all = ways(HoleSlip::out_of_place, 0.4);
  const auto* turned = find(all, Recovery::turned);
  ASSERT_TRUE(turned);
  EXPECT_TRUE(turned->works); // 20 between, less a diameter
  EXPECT_NEAR(turned->room, 20 - 3.3 - 0.4, 1e-9);
  const auto* out = find(all, Recovery::left_out);
  ASSERT_TRUE(out);
  EXPECT_FALSE(out->works); // of two none can be spared
}

// Six of 4.5 on a circle of 36: half the chord, 9.00, was taken; round the circle it is 2 · 18 · sin 15°
// = 9.317, less 4.5 and 0.2 off.
TEST_F(AHoleGoneWrong, HalfAPitchOnRoundACircle) {
  auto ring = *b.find<Body>(holes);
  ring.pattern = BodyPattern::circle;
  ring.count = 6;
  ring.thread.clear();
  ring.set_size({BodyRole::diameter, 0, 4.5});
  ring.set_size({BodyRole::circle, 0, 36});
  ASSERT_TRUE(b.apply(replace(b, holes, ring, "x")));
  const auto all = ways(HoleSlip::out_of_place, 0.2);
  const auto* turned = find(all, Recovery::turned);
  ASSERT_TRUE(turned);
  EXPECT_NEAR(turned->room, 36 * std::sin(pi / 12) - 4.5 - 0.2, 1e-6);
  EXPECT_TRUE(turned->works) << turned->text; // more than the hole's own 4.5
}

TEST_F(AHoleGoneWrong, ABrokenTapIsDissolvedOnlyWhereTheMetalStandsIt) {
  auto all = ways(HoleSlip::tap_broken, 0);
  ASSERT_TRUE(find(all, Recovery::dissolve));
  EXPECT_FALSE(find(all, Recovery::dissolve)->works); // alum eats steel
  EXPECT_TRUE(find(all, Recovery::erode)->works);
  EXPECT_NE(find(all, Recovery::drive_out)->text.find("eye protection"), std::string::npos);
  // Broken up it leaves a hole of 4: M5's drill of 4.2 takes that away.
  EXPECT_NE(find(all, Recovery::next_thread)->text.find("M5"), std::string::npos);
  auto p = *b.find<Part>(part);
  p.material = "brass";
  b.load(part, p);
  all = ways(HoleSlip::tap_broken, 0);
  EXPECT_TRUE(find(all, Recovery::dissolve)->works);
  EXPECT_EQ(all.back().way, Recovery::scrap); // at the end, whatever it costs
}

TEST_F(AHoleGoneWrong, NothingIsOfferedWhereNothingIsOff) {
  EXPECT_TRUE(ways(HoleSlip::out_of_place, 0).empty());
  Feature plane;
  EXPECT_TRUE(hole_recoveries(b, plane, {piece, HoleSlip::tap_broken, 0, "now"}).empty());
  EXPECT_TRUE(hole_recoveries(b, feature(), {0, HoleSlip::tap_broken, 0, "now"}).empty());
}

} // namespace
