#include "threads/threads.h"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

using namespace datrin;
using namespace datrin::threads;

namespace {

const Thread& named(const char* text) {
  const auto found = find(text);
  EXPECT_NE(found.thread, nullptr) << text << ": " << found.message;
  static const Thread none;
  return found.thread ? *found.thread : none;
}

} // namespace

TEST(Threads, AnswerToWhatPeopleWrite) {
  EXPECT_EQ(named("m6").name, "M6");
  EXPECT_EQ(named("M6 x 1").name, "M6");
  EXPECT_EQ(named("M8 \u00D7 1").name, "M8x1");
  EXPECT_EQ(named("4 BA").name, "4BA");
  EXPECT_EQ(named("5/16-18").name, "5/16-18 UNC"); // BSW has 18 as well
  EXPECT_EQ(named("5/16-18 tap").name, "5/16-18 UNC");
  EXPECT_EQ(named("5/16 BSW").name, "5/16 BSW");
  EXPECT_EQ(named("5/16x18 BSW").name, "5/16 BSW");
  EXPECT_EQ(named("1/4 x 40").name, "1/4x40 ME");
  EXPECT_EQ(named("3/8 bsf").name, "3/8 BSF");
  EXPECT_EQ(named("no 4-40").name, "#4-40 UNC");
  EXPECT_EQ(find("M6.5").thread, nullptr);
  EXPECT_NE(find("M66").message.find("not in the table of threads (did you mean"), std::string::npos)
      << find("M66").message;
  EXPECT_EQ(find(" ").message, "name a thread, such as M6, 4BA, 5/16-18 or 3/8 BSF");
  std::set<std::string> names;
  for (const auto& t : all()) EXPECT_TRUE(names.insert(t.name).second) << t.name;
}

// BS 93: pitch 0.9^n mm, major diameter 6 p^1.2, each rounded to two figures.
TEST(Threads, BaFollowsItsLaw) {
  for (int n = 0; n <= 16; ++n) {
    const auto& t = named((std::to_string(n) + "BA").c_str());
    const double pitch = std::pow(0.9, n), major = 6 * std::pow(t.pitch, 1.2);
    EXPECT_NEAR(t.pitch, pitch, 0.006) << n;
    EXPECT_NEAR(t.major, major, t.pitch < 0.3 ? 0.07 : 0.051) << n; // the small ones are rounded to a tenth
  }
}

// ISO 261 and ISO 262 (M), ASME B1.1 (UNC, UNF), BS 84 (BSW, BSF): majors and pitches, from memory.
TEST(Threads, TableValues) {
  const struct {
    const char* name;
    double major, pitch;
  } rows[] = {{"M3", 3, 0.5},
              {"M5", 5, 0.8},
              {"M10", 10, 1.5},
              {"M10x1.25", 10, 1.25},
              {"#8-36", 4.1656, 0.7056},
              {"#10-24", 4.826, 1.0583},
              {"1/4-28", 6.35, 0.9071},
              {"1/2-13", 12.7, 1.9538},
              {"1/4 BSW", 6.35, 1.27},
              {"3/8 BSF", 9.525, 1.27},
              {"3/16x40 ME", 4.7625, 0.635},
              {"0BA", 6, 1}};
  for (const auto& r : rows) {
    EXPECT_NEAR(named(r.name).major, r.major, 1e-4) << r.name;
    EXPECT_NEAR(named(r.name).pitch, r.pitch, 1e-4) << r.name;
  }
}

// Common practice: per cent of thread by drill.
TEST(Threads, PerCentOfThreadAsTheTradeReckonsIt) {
  const auto percent_of = [](const char* thread, double drill) {
    const auto& t = named(thread);
    return percent(t.major, t.pitch, drill, t.depth);
  };
  EXPECT_NEAR(percent_of("4BA", 2.8), 101, 0.5);
  EXPECT_NEAR(percent_of("5BA", 2.65), 78, 0.5);
  EXPECT_NEAR(percent_of("3/8-16", 5.0 / 16 * 25.4), 77, 0.5);
  EXPECT_NEAR(percent_of("5/16-18", 0.257 * 25.4), 77, 0.6); // letter F
  EXPECT_NEAR(percent_of("M10", 0.339 * 25.4), 71, 0.5);     // letter R
}

// ISO 2306, tapping drills of coarse threads, from memory; the drawer's nearest at 77 %.
TEST(Threads, TappingDrills) {
  const std::pair<const char*, double> drills[] = {{"M2", 1.6}, {"M3", 2.5}, {"M4", 3.3},  {"M5", 4.2},
                                                   {"M6", 5.0}, {"M8", 6.8}, {"M10", 8.5}, {"M12", 10.2}};
  for (const auto& [name, drill] : drills) {
    TapInput in{named(name)};
    in.percent = 77;
    const auto plan = plan_tap(in);
    ASSERT_TRUE(plan.ok) << plan.message;
    EXPECT_NEAR(plan.drill_size, drill, 0.101) << name;
    EXPECT_GT(plan.clearance_size, in.thread.major);
    EXPECT_LT(plan.clearance_size, in.thread.major * 1.1 + 0.2);
  }
}

// Common practice: a 118° point is 0.300 D long, 135° 0.207 D; 0.257 in: 0.077 and 0.053.
TEST(Threads, DepthsToTheShoulderAndThePoint) {
  TapInput in{named("5/16-18")};
  in.drawer = Unit::inch;
  in.full_thread = 15;
  in.percent = 77;
  const auto plan = plan_tap(in);
  ASSERT_TRUE(plan.ok);
  EXPECT_EQ(plan.drill, "F");
  EXPECT_NEAR(plan.point / 25.4, 0.077, 5e-4);
  EXPECT_NEAR(plan.drill_depth, 15 + 3 * in.thread.pitch, 1e-9);
  in.point_degrees = 135;
  EXPECT_NEAR(plan_tap(in).point / 25.4, 0.053, 5e-4);
  in.engaged = 4;
  EXPECT_NE(plan_tap(in).verdict.find("Short"), std::string::npos);
  in.percent = 10;
  EXPECT_FALSE(plan_tap(in).ok);
  in.percent = 75;
  in.engaged = -1;
  EXPECT_FALSE(plan_tap(in).ok);
}

// Common practice: 3/8-16 (9.525, pitch 1.5875) is taken for M10 x 1.5 (10.0, 1.5), and the other way round.
TEST(Threads, UnknownOnesAreRankedAndLookAlikesNamed) {
  const auto inch = identify({9.48, 1.588, 0.03, 0.02});
  ASSERT_TRUE(inch.ok);
  EXPECT_TRUE(inch.ranked[0].thread->name == "3/8-16 UNC" || inch.ranked[0].thread->name == "3/8 BSW");
  EXPECT_NE(inch.verdict.find("Could be taken for it"),
            std::string::npos); // UNC and BSW differ in the angle alone
  EXPECT_EQ(identify({9.93, 1.5, 0.03, 0.02}).ranked[0].thread->name, "M10");
  EXPECT_EQ(identify({3.57, 0.66, 0.02, 0.01}).ranked[0].thread->name, "4BA");
  EXPECT_EQ(identify({6.3, 25.4 / 40, 0.03, 0.01}).ranked[0].thread->name, "1/4x40 ME");
  // Every thread of the table is found again from what a good screw of it measures.
  for (const auto& t : all()) {
    const auto again = identify({t.major - 0.03 * t.pitch, t.pitch, 0.02, 0.01});
    bool among = false;
    for (std::size_t k = 0; k < 3; ++k) among = among || again.ranked[k].thread->name == t.name;
    EXPECT_TRUE(among) << t.name << " was taken for " << again.ranked[0].thread->name;
  }
  EXPECT_NE(identify({40, 0.2, 0.03, 0.02}).verdict.find("Nothing in the table is like it"),
            std::string::npos);
  EXPECT_FALSE(identify({1, 2, 0.03, 0.02}).ok);
}
