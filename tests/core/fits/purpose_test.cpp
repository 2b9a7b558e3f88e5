#include "fits/purpose.h"

#include "build/words.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::fits;
using build::JointPurpose;

TEST(Purpose, EveryOneProposesLimitsInOrder) {
  for (int k = 0; k < static_cast<int>(build::words_of<JointPurpose>().second); ++k) {
    ProposeInput in;
    in.purpose = static_cast<JointPurpose>(k);
    in.nominal = in.purpose == JointPurpose::thread ? 5 : 12;
    in.thread = "M6";
    const auto result = propose(in);
    ASSERT_TRUE(result.ok) << build::shown_word(in.purpose) << result.message;
    ASSERT_FALSE(result.proposals.empty()) << build::shown_word(in.purpose);
    for (const auto& p : result.proposals) {
      EXPECT_LT(p.least, p.most) << p.name;
      if (is_pressed(in.purpose)) {
        EXPECT_LT(p.least + p.most, 0) << p.name;
      }
    }
  }
}

// H7/p6 at 3 mm may drop through (0 to 10 over 6 to 12 µm, ISO 286-2, from memory): r6 there.
TEST(Purpose, APressNeverHasClearance) {
  for (const auto purpose : {JointPurpose::light_press, JointPurpose::press, JointPurpose::shrink})
    for (const double size : {1.5, 3.0, 5.0, 8.0, 12.0, 25.0, 60.0, 120.0, 250.0})
      for (const auto& p : propose({purpose, size, "", {}, Unit::mm, 0}).proposals)
        EXPECT_LE(p.most, 1e-9) << p.name << ' ' << size;
  EXPECT_EQ(propose({JointPurpose::light_press, 3, "", {}, Unit::mm, 0}).proposals.front().basis,
            "ISO 286 H7/r6");
  EXPECT_EQ(propose({JointPurpose::light_press, 12, "", {}, Unit::mm, 0}).proposals.front().basis,
            "ISO 286 H7/p6");
}

// From loose to tight as the trade orders them; the middle of each proposal falls (common practice).
TEST(Purpose, FromLooseToTight) {
  double last = 1e9;
  for (const auto purpose :
       {JointPurpose::runs_freely, JointPurpose::runs_true, JointPurpose::slides, JointPurpose::locates,
        JointPurpose::light_press, JointPurpose::press, JointPurpose::shrink}) {
    const auto p = propose({purpose, 20, "", {}, Unit::mm, 0}).proposals.front();
    EXPECT_LT(p.least + p.most, last) << build::shown_word(purpose);
    last = p.least + p.most;
  }
}

TEST(Purpose, ReachesWithWhatTheShopHas) {
  build::Tool reamer, bar;
  reamer.name = "12 mm";
  reamer.size = 12;
  reamer.kind = build::ToolKind::reamer;
  bar.name = "12 mm silver steel";
  bar.size = 12;
  bar.kind = build::ToolKind::ground_bar;
  ProposeInput in{JointPurpose::slides, 12, "", {reamer, bar}, Unit::mm, 0};
  const auto both = propose(in).proposals;
  EXPECT_TRUE(both[0].owned);
  EXPECT_NE(both[0].reach.find("reamer 12 mm"), std::string::npos) << both[0].reach;
  EXPECT_NE(both[0].reach.find("shaft turned"), std::string::npos) << both[0].reach; // g6 is under the bar
  EXPECT_NE(both[1].reach.find("ground bar"), std::string::npos) << both[1].reach;   // shaft basis: h6
  in.nominal = 12.3;
  EXPECT_NE(propose(in).proposals[0].reach.find("no reamer of it; 12 mm is \u22120.300\u202Fmm away"),
            std::string::npos)
      << propose(in).proposals[0].reach;
  in.shop.clear();
  EXPECT_NE(propose(in).proposals[0].reach.find("buy one of 12.30\u202Fmm H7"), std::string::npos);
}

TEST(Purpose, WhatIsAskedRulesMethodsOut) {
  const auto why = [](const MethodInput& in, const std::string& name) {
    for (const auto& m : methods(in))
      if (m.name == name) return m.why_not;
    return std::string("?");
  };
  EXPECT_EQ(why({true, false, false, 20}, "press"), "it must come apart again");
  EXPECT_EQ(why({false, false, false, 20}, "press"), "");
  EXPECT_NE(why({false, false, false, 200}, "retaining compound").find("150"), std::string::npos);
  EXPECT_NE(why({false, true, false, 20}, "cross pin").find("bore"), std::string::npos);
  EXPECT_NE(why({false, false, true, 20}, "set screw").find("looked at"), std::string::npos);
}

TEST(Purpose, NonsenseIsRefused) {
  EXPECT_FALSE(propose({JointPurpose::slides, 0, "", {}, Unit::mm, 0}).ok);
  EXPECT_FALSE(propose({JointPurpose::slides, 600, "", {}, Unit::mm, 0}).ok);
  EXPECT_NE(
      propose({JointPurpose::thread, 5, "M6.7", {}, Unit::mm, 0}).message.find("not in the table of threads"),
      std::string::npos);
}

TEST(Purpose, LimitsFollowPurposeAndSize) {
  build::Joint j;
  j.purpose = JointPurpose::runs_freely;
  ASSERT_TRUE(take_limits(j, 20, false));
  EXPECT_EQ(j.basis, "ISO 286 H8/f7");
  EXPECT_NEAR(j.most, 0.033 + 0.041, 1e-12); // 20 H8/f7, ISO 286-2, from memory
  j.basis = "ANSI B4.1 RC4";
  ASSERT_TRUE(take_limits(j, 50, true)); // the same class at another size
  EXPECT_EQ(j.basis, "ANSI B4.1 RC4");
  EXPECT_NEAR(j.least, 1.0 * mm_per_thou, 1e-9); // 1.97 in: RC4 from 1.0 thou, from memory
  j.basis.clear();
  j.least = 0.123;
  ASSERT_TRUE(take_limits(j, 20, true)); // typed limits stay
  EXPECT_EQ(j.least, 0.123);
  j.purpose = JointPurpose::press;
  ASSERT_TRUE(take_limits(j, 20, false));
  EXPECT_LT(j.most, 0);
  j.purpose = JointPurpose::thread;
  j.thread = "M99";
  std::string why;
  EXPECT_FALSE(take_limits(j, 20, false, &why));
  EXPECT_NE(why.find("not in the table of threads"), std::string::npos);
}

TEST(Purpose, HolesOverThreadsAreDrilledWithWhatTheShopHas) {
  build::Tool drill;
  drill.name = "4.3 mm";
  drill.size = 4.3;
  drill.kind = build::ToolKind::drill;
  ProposeInput in{JointPurpose::bolt_clearance, 4.3, "M4", {drill}, Unit::mm, 0};
  // ISO 273:1979, M4: fine 4.3, medium 4.5, coarse 4.8, with H12, H13 and H14; from memory. The trade's rule
  // stands last.
  const auto holes = propose(in).proposals;
  ASSERT_EQ(holes.size(), 4U);
  EXPECT_EQ(holes[0].basis, "ISO 273 medium, M4");
  EXPECT_NEAR(holes[0].least, 0.5, 1e-9);
  EXPECT_NEAR(holes[0].most, 0.5 + 0.18, 1e-9); // IT13 of 4.5
  EXPECT_EQ(holes[1].reach, "drill 4.3 mm");
  EXPECT_TRUE(holes[1].owned);
  EXPECT_NEAR(holes[2].least, 0.8, 1e-9);
  EXPECT_EQ(holes[3].basis, "shop's rule");
  in.purpose = JointPurpose::thread; // 3.3 mm is wanted, common practice
  EXPECT_EQ(propose(in).proposals[0].reach, "no drill of it in the list; 3.3 mm suits");
  EXPECT_FALSE(propose(in).proposals[0].owned);
  in.shop[0].size = 3.3;
  in.shop[0].name = "3.3 mm";
  EXPECT_EQ(propose(in).proposals[0].reach, "drill 3.3 mm");
}

// Common practice: what runs freely has H8/f7, on the shaft's basis F8/h7, by B4.1 RC4: one clearance by
// three names.
TEST(Purpose, RunsFreelyMeansTheSameByEveryName) {
  ProposeInput in;
  in.purpose = build::JointPurpose::runs_freely;
  in.nominal = 20;
  const auto found = propose(in);
  ASSERT_TRUE(found.ok) << found.message;
  std::vector<std::string> bases;
  for (const auto& p : found.proposals) {
    if (!p.has_limits) continue;
    bases.push_back(p.basis);
    EXPECT_NEAR(p.least, 0.020, 0.002) << p.name;
    EXPECT_NEAR(p.most, 0.074, 0.022) << p.name; // B4.1's steps differ: its RC4 at 20 mm is 0.8 to 2.8 thou
  }
  const auto has = [&](const std::string& code) {
    return std::any_of(bases.begin(), bases.end(),
                       [&](const std::string& b) { return b.find(code) != std::string::npos; });
  };
  EXPECT_TRUE(has("H8/f7"));
  EXPECT_TRUE(has("F8/h7"));
  EXPECT_TRUE(has("RC4"));
}
