#include "threads/threads.h"

#include <gtest/gtest.h>

#include <algorithm>
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
  EXPECT_NEAR(named("4BA").percent_of(2.8), 101, 0.5);
  EXPECT_NEAR(named("5BA").percent_of(2.65), 78, 0.5);
  EXPECT_NEAR(named("3/8-16").percent_of(5.0 / 16 * 25.4), 77, 0.5);
  EXPECT_NEAR(named("5/16-18").percent_of(0.257 * 25.4), 77, 0.6); // letter F
  EXPECT_NEAR(named("M10").percent_of(0.339 * 25.4), 71, 0.5);     // letter R
}

// ISO 2306:1972, drills before tapping (metric); the usual number, letter and fraction drills of handbooks
// (inch); from memory.
TEST(Threads, TappingDrillsAreTheStandards) {
  const std::pair<const char*, const char*> drills[] = {
      {"M1.6", "1.25 mm"},     {"M2", "1.6 mm"},       {"M2.5", "2.05 mm"},    {"M3", "2.5 mm"},
      {"M3x0.35", "2.65 mm"},  {"M4", "3.3 mm"},       {"M5", "4.2 mm"},       {"M6", "5 mm"},
      {"M8", "6.8 mm"},        {"M10", "8.5 mm"},      {"M12", "10.2 mm"},     {"M16", "14 mm"},
      {"M20", "17.5 mm"},      {"M8x1", "7 mm"},       {"M10x1.25", "8.8 mm"}, {"M12x1.25", "10.8 mm"},
      {"M14x1.25", "12.8 mm"}, {"M30", "26.5 mm"},     {"M36", "32 mm"},       {"#4-40", "#43"},
      {"#6-32", "#36"},        {"#8-32", "#29"},       {"#10-24", "#25"},      {"#10-32", "#21"},
      {"1/4-20", "#7"},        {"1/4-28", "#3"},       {"1/4-32", "7/32 in"},  {"5/16-18", "F"},
      {"3/8-16", "5/16 in"},   {"1/2-13", "27/64 in"}, {"5/8-18", "37/64 in"}, {"G1/4", "11.8 mm"},
      {"5BA", "2.65 mm"}};
  for (const auto& [thread, drill] : drills) EXPECT_EQ(tapping_drill(named(thread)).name, drill) << thread;
  // Every drill of the table leaves a thread that holds and can be cut, and is in a full drawer.
  for (const auto& t : all()) {
    const auto drill = tapping_drill(t);
    EXPECT_GT(drill.percent, 60) << t.name << " " << drill.name;
    EXPECT_LT(drill.percent, 96) << t.name << " " << drill.name;
    const auto& drawer = drill_drawer(t.metric() ? Unit::mm : Unit::inch);
    EXPECT_TRUE(
        std::any_of(drawer.begin(), drawer.end(), // the standard has a few sizes between
                    [&](const Drill& d) { return std::abs(d.size - drill.size) < 0.02 * drill.size; }))
        << t.name << " " << drill.name;
    EXPECT_NEAR(*hole_of(t.name, ThreadHole::tapping), drill.size, 1e-12) << t.name;
  }
}

// The one answer wherever a thread's drill is asked for; beside it the drill for a percentage, and the shop's
// own.
TEST(Threads, APercentageAndTheShopsOwnDrillsStandBesideTheStandard) {
  TapInput in{named("M8")};
  in.owned = {{"6.7 mm", 6.7}, {"H", 0.266 * 25.4}};
  auto plan = plan_tap(in);
  ASSERT_TRUE(plan.ok) << plan.message;
  EXPECT_EQ(plan.drill.name, "6.8 mm");
  EXPECT_NEAR(plan.drill.percent, 73.9, 0.1); // (8 − 6.8) / (2 · 0.6495 · 1.25)
  EXPECT_EQ(plan.owned.name, "H");            // 6.756: nearer to 6.8 than 6.7 is
  in.percent = 60;
  plan = plan_tap(in);
  EXPECT_EQ(plan.standard.name, "6.8 mm");
  EXPECT_EQ(plan.drill.name, "7.0 mm"); // 8 − 0.6 · 1.624 = 7.03
  in.owned = {{"8 mm", 8}, {"3 mm", 3}};
  EXPECT_EQ(plan_tap(in).owned.name, ""); // neither is any use
  in.percent = 10;
  EXPECT_EQ(plan_tap(in).message, "the thread wanted must be between 30 and 100 %");
}

// ISO 273:1979, clearance holes; from memory. Others: common practice, 5 thou over the thread at the least.
TEST(Threads, ClearanceHoles) {
  const struct {
    const char* name;
    double fine, medium, coarse;
  } rows[] = {{"M3", 3.2, 3.4, 3.6}, {"M6", 6.4, 6.6, 7},       {"M8", 8.4, 9, 10},
              {"M10", 10.5, 11, 12}, {"M12", 13, 13.5, 14.5},   {"M16", 17, 17.5, 18.5},
              {"M20", 21, 22, 24},   {"M10x1.25", 10.5, 11, 12}};
  for (const auto& r : rows) {
    const auto holes = clearance_holes(named(r.name));
    EXPECT_EQ(holes.source, "ISO 273");
    EXPECT_NEAR(holes.fine, r.fine, 1e-9) << r.name;
    EXPECT_NEAR(holes.medium, r.medium, 1e-9) << r.name;
    EXPECT_NEAR(holes.coarse, r.coarse, 1e-9) << r.name;
  }
  EXPECT_EQ(clearance_holes(named("1/4-20")).source, "the trade's rule");
  EXPECT_NEAR(clearance_holes(named("5BA")).fine, 3.3, 1e-9); // common practice
  EXPECT_EQ(clearance_holes(named("M6"), true).source, "the trade's rule");
  for (const auto& t : all()) {
    const auto trade = clearance_holes(t, true), holes = clearance_holes(t);
    EXPECT_GE(trade.fine, t.major + 0.04) << t.name;
    EXPECT_LE(holes.fine, holes.medium) << t.name;
    EXPECT_LE(holes.medium, holes.coarse) << t.name;
  }
}

// Cores: DIN 13-1 (M8 6.466, M20 16.933), ASME B1.1 (1/2-13 UNC 0.4056 in), BS 84 (3/8 BSW 0.2950 in), BS 93
// (0BA 4.8), ISO 228-1 (G1/2 18.631). Pipe: ASME B1.20.1, 1/8-27 NPT: pitch diameter at the small end 0.36351
// in. From memory.
TEST(Threads, CoresAndAngles) {
  EXPECT_NEAR(named("M8").core(), 6.466, 1e-3);
  EXPECT_NEAR(named("M20").core(), 16.933, 1e-3);
  EXPECT_NEAR(named("1/2-13").core() / 25.4, 0.4056, 1e-4);
  EXPECT_NEAR(named("3/8 BSW").core() / 25.4, 0.2950, 1e-4);
  EXPECT_NEAR(named("0BA").core(), 4.8, 1e-9);
  EXPECT_NEAR(named("G1/2").core(), 18.631, 1e-3);
  EXPECT_DOUBLE_EQ(named("M8").angle, 60);
  EXPECT_DOUBLE_EQ(named("4BA").angle, 47.5);
  EXPECT_DOUBLE_EQ(named("3/8 BSF").angle, 55);
  EXPECT_DOUBLE_EQ(named("1/4 BSC").angle, 60);
  const auto& pipe = named("1/8 NPT");
  EXPECT_DOUBLE_EQ(pipe.taper, 16);
  EXPECT_NEAR((pipe.outside_at_hole() - pipe.depth * pipe.pitch) / 25.4, 0.36351, 2e-5);
  EXPECT_EQ(named("1/8 BSP").name, "G1/8");
  EXPECT_EQ(named("1/4-32").name, "1/4-32 UNEF"); // with a dash the unified one …
  EXPECT_EQ(named("1/4x32").name, "1/4x32 ME");   // … with a cross the model engineer's
}

// Common practice: a 118° point is 0.300 D long, 135° 0.207 D; 0.257 in: 0.077 and 0.053.
TEST(Threads, DepthsToTheShoulderAndThePoint) {
  TapInput in{named("5/16-18")};
  in.full_thread = 15;
  const auto plan = plan_tap(in);
  ASSERT_TRUE(plan.ok);
  EXPECT_EQ(plan.drill.name, "F");
  EXPECT_NEAR(plan.point / 25.4, 0.077, 5e-4);
  EXPECT_NEAR(plan.drill_depth, 15 + 3 * in.thread.pitch, 1e-9);
  in.point_degrees = 135;
  EXPECT_NEAR(plan_tap(in).point / 25.4, 0.053, 5e-4);
  in.engaged = 4;
  EXPECT_NE(plan_tap(in).verdict.find("Short"), std::string::npos);
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
    for (std::size_t k = 0; k < 5; ++k) among = among || again.ranked[k].thread->name == t.name;
    EXPECT_TRUE(among) << t.name << " was taken for " << again.ranked[0].thread->name;
  }
  EXPECT_NE(identify({40, 0.2, 0.03, 0.02}).verdict.find("Nothing in the table is like it"),
            std::string::npos);
  EXPECT_FALSE(identify({1, 2, 0.03, 0.02}).ok);
}
