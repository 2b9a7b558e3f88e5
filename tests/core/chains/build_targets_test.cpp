#include "chains/build_targets.h"
#include "chains/next_number.h"

#include "build/edits.h"
#include "demo/mill_engine.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::chains;

namespace {

class BuildTargetsTest : public testing::Test {
protected:
  Id joint(const std::string& name) const {
    for (const auto& [id, j] : b.joints())
      if (j.name == name) return id;
    ADD_FAILURE() << name;
    return 0;
  }
  Made shaft_of(const std::string& name) const {
    const auto* j = b.find<Joint>(joint(name));
    return {j->shaft, joint_pairs(b, *j).front().second};
  }
  Made hole_of(const std::string& name) const {
    const auto* j = b.find<Joint>(joint(name));
    return {j->hole, joint_pairs(b, *j).front().first};
  }
  void measure(const Made& made, double value, double uncertainty, const char* at) {
    Measurement m;
    m.piece = made.piece;
    m.dimension = made.dimension;
    m.value = value;
    m.uncertainty = uncertainty;
    m.at = at;
    ASSERT_TRUE(b.apply(add(b, m, "x")));
  }
  Build b = demo::mill_engine().build;
};

} // namespace

TEST_F(BuildTargetsTest, TheDemoEngineIsLargeEnoughAndCanBeHeld) {
  EXPECT_GE(b.parts().size(), 20U);
  EXPECT_GE(b.joints().size(), 30U);
  const auto targets = build_targets(b);
  ASSERT_TRUE(targets.result.usable()) << targets.result.message;
  EXPECT_TRUE(targets.result.feasible);
  EXPECT_TRUE(targets.result.proved);
  EXPECT_TRUE(targets.left_out.empty());
  // Nothing measured has a target, everything else that mates has one.
  for (std::size_t k = 0; k < targets.made.size(); ++k)
    EXPECT_EQ(targets.result.target(static_cast<int>(k)) == nullptr,
              readings::size_now(b, targets.made[k]).settled());
}

TEST_F(BuildTargetsTest, ABoreOverMovesItsPinAndSaysSo) {
  const auto bore = hole_of("Eccentric on shaft"), pin = shaft_of("Eccentric on shaft");
  const double before = build_targets(b).target(pin)->make;
  measure(bore, 17.031, 0.003, "2026-11-21T08:00:00Z");
  const auto after = build_targets(b);
  EXPECT_GT(after.target(pin)->make, before + 0.004);
  const auto last = last_reading(after);
  EXPECT_EQ(last.made, bore);
  ASSERT_NE(last.of(pin), nullptr);
  EXPECT_NEAR(last.of(pin)->was, before, 1e-9);
  EXPECT_NEAR(last.of(pin)->now, after.target(pin)->make, 1e-12);
}

TEST_F(BuildTargetsTest, TheDrawingGivesWayWhenBothCannotHold) {
  measure(hole_of("Eccentric on shaft"), 17.080, 0.003, "2026-11-21T08:00:00Z");
  const auto targets = build_targets(b);
  ASSERT_TRUE(targets.function_first);
  const auto* target = targets.target(shaft_of("Eccentric on shaft"));
  EXPECT_GT(target->departs, 0.03);
  EXPECT_NEAR(target->make, 17.080 - 0.035 + 0.007, 1e-6); // most clearance 0.035, spread 0.004 + 0.003
  EXPECT_GE(targets.result
                .conditions[static_cast<std::size_t>(targets.tightest_of_joint(joint("Eccentric on shaft")))]
                .room,
            1 - 1e-6);
}

TEST_F(BuildTargetsTest, PiecesMeetInOrderOrAsTheyWerePaired) {
  auto j = *b.find<Joint>(joint("Pedestal bushes"));
  const auto in_order = joint_pairs(b, j);
  ASSERT_EQ(in_order.size(), 2U);
  j.pairs = {{in_order[0].first, in_order[1].second}};
  EXPECT_EQ(joint_pairs(b, j), j.pairs);
  // Two covers and one cylinder: the one meets both.
  EXPECT_EQ(joint_pairs(b, *b.find<Joint>(joint("Cover in cylinder"))).size(), 2U);
}

TEST_F(BuildTargetsTest, WhatSaysNothingYetIsLeftOutWithItsReason) {
  Joint none;
  none.name = "nothing yet";
  ASSERT_TRUE(b.apply(add(b, none, "x")));
  auto same = *b.find<Joint>(joint("Big end"));
  same.name = "itself";
  same.shaft = same.hole;
  ASSERT_TRUE(b.apply(add(b, same, "x")));
  auto thread = *b.find<Joint>(joint("Cover studs"));
  thread.name = "studs";
  thread.thread = "M99";
  ASSERT_TRUE(b.apply(add(b, thread, "x")));
  Chain empty;
  empty.name = "bare";
  ASSERT_TRUE(b.apply(add(b, empty, "x")));
  const auto targets = build_targets(b);
  ASSERT_EQ(targets.left_out.size(), 4U);
  EXPECT_EQ(targets.left_out[0], "nothing yet: point at two features, or type two sizes");
  EXPECT_EQ(targets.left_out[1], "itself: hole and shaft are the same dimension");
  EXPECT_NE(targets.left_out[2].find("studs: \"M99\" is not in the table of threads"), std::string::npos);
  EXPECT_EQ(targets.left_out[3], "bare: it has no terms yet");
}

TEST_F(BuildTargetsTest, WhatIsHardToHoldIsMadeFirstAndSuitedLast) {
  const auto targets = build_targets(b);
  const auto order = order_of_making(b, targets);
  EXPECT_EQ(order.size(), targets.result.targets.size());
  double last = 1e9;
  bool suited = false;
  for (const auto& n : order) {
    if (n.waits_for == 0) suited = true;
    EXPECT_EQ(n.waits_for == 0,
              suited); // what can only be cut to suit comes after all that something can follow
    const double hold = capability_of(*b.find<Dimension>(n.made.dimension));
    if (!suited) {
      EXPECT_LE(hold, last + 1e-12);
      last = hold;
    }
  }
}

TEST_F(BuildTargetsTest, ChainsTakeWhatIsMeasured) {
  for (const auto& [id, c] : b.chains()) {
    const auto input = chain_input(b, c);
    EXPECT_EQ(input.links.size(), c.terms.size());
    const auto result = chain(input, {.samples = 20000});
    ASSERT_TRUE(result.usable()) << c.name;
    EXPECT_LE(result.worst_low, result.mean);
    EXPECT_GE(result.worst_high, result.mean);
  }
}

// Removing a part takes its joints along, and what only pointed to it forgets it.
TEST_F(BuildTargetsTest, RemovingAPartTakesItsJointsAlong) {
  const auto* big = b.find<Joint>(joint("Big end"));
  const Id rod = b.find<Dimension>(big->hole)->part;
  const auto before = b.joints().size();
  ASSERT_TRUE(b.apply(build::remove(b, rod, "Remove the rod")));
  EXPECT_LT(b.joints().size(), before);
  EXPECT_TRUE(build_targets(b).result.usable());
}
