// Facing a raw casting in the vise. Common practice: the first face with a soft rod at the raw side; each
// face cut goes to the fixed jaw for the next; no rod once both sides between the jaws are true; a raw side
// that slopes is packed, not hammered down.

#include "route/facing.h"

#include "route/plan_route.h"
#include "route/plans.h"
#include "route/propose.h"
#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

/// A bracket: foot, a cheek each side, a raw top and raw ends, a bore across the cheeks.
class RawCasting : public test::DrawnPart {
protected:
  RawCasting() {
    part = make(Part{"Bracket", "cast iron", 1, 0});
    make(Piece{part, 1});
    foot = face("foot", {0, 0, 0}, -Vec3::UnitZ(), 60, 40);
    cheek_a = face("cheek A", {0, -20, 20}, -Vec3::UnitY(), 50, 40);
    cheek_b = face("cheek B", {0, 20, 20}, Vec3::UnitY(), 50, 40);
    top = raw("top", {0, 0, 40}, Vec3::UnitZ());
    end = raw("end", {30, 0, 20}, Vec3::UnitX());
    bore = make(round("bore", SurfaceKind::bore, {0, 0, 25}, Vec3::UnitX(), 12));
    Foundry f;
    f.part = part;
    f.draft = 0.026;
    f.draw = Vec3::UnitZ();
    make(f);
  }
  Id raw(const char* name, const Vec3& at, const Vec3& faces) {
    auto s = plane(name, at, faces);
    s.machined = false;
    return make(s);
  }
  Id foot = 0, cheek_a = 0, cheek_b = 0, top = 0, end = 0, bore = 0;
};

TEST_F(RawCasting, ItsFacesAreTakenInTheOrderOfSquaring) {
  const auto of = faces_to_square(b, part);
  ASSERT_TRUE(of.usable());
  EXPECT_TRUE(of.casting);
  EXPECT_EQ(of.faces[0], foot); // the largest that is machined
  EXPECT_EQ(of.faces[3], top);
  const auto in = squaring_input(b, part, of);
  EXPECT_TRUE(in.stays[3]);  // the top stays as it was cast
  EXPECT_EQ(in.slope[3], 0); // looks the way the pattern is drawn
  EXPECT_NEAR(in.slope[1], 0.026, 1e-12);
  EXPECT_TRUE(in.missing[4] || in.missing[5]); // one end is no plane
}

TEST_F(RawCasting, RodAndPackingUntilItsFacesAreTrue) {
  std::vector<std::string> notes;
  const auto setups = facing_setups(b, part, &notes);
  ASSERT_EQ(setups.size(), 4U); // three faces, and one for the bore
  ASSERT_EQ(notes.size(), 3U);
  EXPECT_EQ(setups[0].cuts, std::vector<Id>{foot});
  EXPECT_EQ(setups[0].holding, Workholding::soft_rod);
  EXPECT_EQ(setups[0].packing, "packed level, not hammered");
  EXPECT_NE(notes[0].find("a strip of that taper behind it"), std::string::npos) << notes[0];
  // The second: the foot to the fixed jaw, the raw top under a rod, square to the foot.
  EXPECT_EQ(setups[1].datums.front(), foot);
  EXPECT_EQ(setups[1].holding, Workholding::soft_rod);
  EXPECT_NE(notes[1].find("square to foot"), std::string::npos) << notes[1];
  // The third stands on the second, which is true: hammered down.
  EXPECT_NE(notes[2].find("hammered down on"), std::string::npos) << notes[2];
  EXPECT_NE(notes[2].find("parallel to"), std::string::npos) << notes[2];
  // The bore is located from what is cut.
  EXPECT_EQ(setups[3].cuts, std::vector<Id>{bore});
  EXPECT_TRUE(contains(setups[3].datums, foot));
  EXPECT_LT(std::abs(setups[3].way.dot(Vec3::UnitZ())), 1e-9);
}

// What is held to 20 µm over 100 mm by the jaw comes out so, three standard deviations: 0.06 mm in 100.
TEST_F(RawCasting, HowTrueItComesOutIsSaid) {
  std::vector<std::string> notes;
  facing_setups(b, part, &notes);
  EXPECT_NE(notes[1].find("within 0.060\u202Fmm in 100"), std::string::npos) << notes[1];
}

TEST_F(RawCasting, IsAmongThePlans) {
  const auto found = best_plans(b, part);
  ASSERT_FALSE(found.plans.empty()) << found.message;
  for (const auto& plan : found.plans) {
    auto taken = b;
    ASSERT_TRUE(taken.apply(plan.edit));
    const auto route = plan_route(taken, part);
    EXPECT_TRUE(route.unmade.empty()) << plan.words;
    EXPECT_TRUE(route.cycle.empty()) << plan.words;
    EXPECT_TRUE(std::none_of(route.operations.begin(), route.operations.end(), [](const auto& o) {
      return o.broken;
    })) << plan.words;
  }
}

TEST_F(RawCasting, OneFaceOnlyIsNoChain) {
  for (const Id id : {cheek_a, cheek_b}) {
    auto s = *b.find<PartSurface>(id);
    s.machined = false;
    b.load(id, s);
  }
  EXPECT_FALSE(faces_to_square(b, part).usable());
  EXPECT_TRUE(facing_setups(b, part).empty());
}

TEST(Squaring, WithoutSidesItIsClamped) {
  SquaringInput in;
  in.size = {60, 40, 20};
  in.missing = {false, true, true, false, true, true};
  const auto r = squaring(in);
  ASSERT_EQ(r.steps.size(), 2U);
  EXPECT_EQ(r.steps[0].fixed_jaw, 0);
  EXPECT_EQ(r.steps[1].parallel_to, 1);
  EXPECT_NE(squaring_text(r.steps[0]).find("clamped"), std::string::npos);
}

} // namespace
