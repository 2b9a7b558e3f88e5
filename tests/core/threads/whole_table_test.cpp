// Every thread of the table against the geometry of its series, and the drills that go with it.

#include "quantity/drills.h"
#include "quantity/unit.h"
#include "threads/thread_limits.h"
#include "threads/threads.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

using namespace datrin;
using namespace datrin::threads;

// ISO 68-1 and ASME B1.1: 60°; BS 84 (Whitworth, and pipe threads by ISO 228-1): 55°; BS 93 (BA): 47.5°.
TEST(EveryThread, HasTheFlankAngleOfItsSeries) {
  const std::map<std::string, double> angles{{"M", 60},    {"M fine", 60}, {"UNC", 60}, {"UNF", 60},
                                             {"UNEF", 60}, {"BSW", 55},    {"BSF", 55}, {"ME", 55},
                                             {"G", 55},    {"BA", 47.5},   {"NPT", 60}, {"BSC", 60}};
  std::set<std::string> seen;
  for (const auto& t : all()) {
    ASSERT_TRUE(angles.contains(t.series)) << t.series;
    EXPECT_EQ(t.angle, angles.at(t.series)) << t.name;
    seen.insert(t.series);
  }
  EXPECT_EQ(seen.size(), angles.size());
}

// The same standards: depth of the screw's thread on one side as a part of the pitch (ISO 68-1 17/24 · 0.866
// = 0.61343; Whitworth 0.64033; BA 0.6).
TEST(EveryThread, HasTheDepthOfItsForm) {
  for (const auto& t : all()) {
    const double profile = t.series == "BA" ? 0.6 : t.angle == 55 ? 0.64033 : 0.61343;
    if (t.series == "NPT") continue; // ASME B1.20.1 has its own
    if (t.series == "BSC") continue; // BS 811: 0.5327
    EXPECT_NEAR(t.profile, profile, 0.001) << t.name;
    EXPECT_NEAR(t.core(), t.major - 2 * t.profile * t.pitch, 1e-12) << t.name;
  }
}

TEST(EveryThread, IsFoundByItsOwnName) {
  for (const auto& t : all()) {
    const auto found = find(t.name);
    ASSERT_NE(found.thread, nullptr) << t.name << ": " << found.message;
    EXPECT_EQ(found.thread->name, t.name);
    EXPECT_GT(t.major, 2 * t.profile * t.pitch) << t.name;
  }
}

// Common practice: a tapping drill leaves half to all of a thread; small and fine ones the most.
TEST(EveryThread, HasATappingDrillThatLeavesAThread) {
  for (const auto& t : all()) {
    const auto drill = tapping_drill(t);
    ASSERT_FALSE(drill.name.empty()) << t.name;
    EXPECT_GT(drill.size, t.core() - 0.35 * t.pitch) << t.name << " " << drill.name;
    EXPECT_LT(drill.size, t.major) << t.name << " " << drill.name;
    EXPECT_GT(drill.percent, 50) << t.name << " " << drill.name;
    EXPECT_LT(drill.percent, 112) << t.name << " " << drill.name;
    EXPECT_NEAR(t.percent_of(t.hole(drill.percent)), drill.percent, 1e-9) << t.name;
  }
}

// ISO 273: fine is less than medium is less than coarse, and all pass the screw.
TEST(EveryThread, PassesThroughItsClearanceHoles) {
  for (const auto& t : all()) {
    if (t.taper > 0) continue; // a taper thread passes through nothing
    for (const bool trade : {false, true}) {
      const auto c = clearance_holes(t, trade);
      EXPECT_GT(c.fine, t.major) << t.name << trade;
      EXPECT_GE(c.medium, c.fine) << t.name << trade;
      EXPECT_GE(c.coarse, c.medium) << t.name << trade;
      EXPECT_LT(c.coarse, 1.3 * t.major + 0.7) << t.name << trade;
      EXPECT_FALSE(c.source.empty()) << t.name;
    }
    EXPECT_EQ(clearance_holes(t, true).source == "ISO 273", false) << t.name;
  }
}

TEST(EveryThread, AWantedPercentageIsMetFromTheDrawer) {
  for (const auto& t : all()) {
    if (t.taper > 0 || t.major > 25 || t.major < 2) continue;
    for (const auto drawer : {Unit::mm, Unit::inch}) {
      TapInput in{t};
      in.percent = 75;
      in.drawer = drawer;
      const auto plan = plan_tap(in);
      ASSERT_TRUE(plan.ok) << t.name << plan.message;
      const auto& drills = drill_drawer(drawer);
      EXPECT_TRUE(std::any_of(drills.begin(), drills.end(),
                              [&](const Drill& d) { return std::abs(d.size - plan.drill.size) < 1e-9; }))
          << t.name << " " << plan.drill.name;
      // No drill of the drawer is nearer.
      for (const auto& d : drills)
        EXPECT_GE(std::abs(t.percent_of(d.size) - 75) + 1e-9, std::abs(plan.drill.percent - 75))
            << t.name << " " << d.name;
    }
  }
}

// A screw measured at its nominal is named as what it is, or as one that cannot be told from it.
TEST(EveryThread, IsKnownAgainByMeasuring) {
  int known = 0;
  for (const auto& t : all()) {
    const auto found = identify({t.major, t.pitch});
    ASSERT_TRUE(found.ok) << t.name << found.message;
    ASSERT_FALSE(found.ranked.empty());
    const auto& best = *found.ranked.front().thread;
    EXPECT_NEAR(best.major, t.major, 0.13) << t.name << " taken for " << best.name;
    EXPECT_NEAR(best.pitch, t.pitch, 0.03) << t.name << " taken for " << best.name;
    known += best.name == t.name;
  }
  EXPECT_GT(known, static_cast<int>(all().size()) * 7 / 10);
}
