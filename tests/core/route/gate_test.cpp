#include "route/gate.h"

#include "build/edits.h"
#include "build/references.h"
#include "tests/core/demo_piece.h"

#include "quantity/length_text.h"
#include "readings/size_now.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;

class Gate : public test::DemoPiece {
protected:
  route::GateResult gate(std::size_t k) {
    return route::unclamp_gate(b, piece, b.setups_of(part)[k].first,
                               allowance::surface_plans(b, piece, input(), pose()));
  }
  void change(std::size_t k, auto&& what) {
    const auto [id, setup] = b.setups_of(part)[k];
    auto changed = setup;
    what(changed);
    ASSERT_TRUE(b.apply(replace(b, id, changed, "x")));
  }
  static bool says(const route::GateResult& result, const std::string& text) {
    return std::any_of(result.items.begin(), result.items.end(),
                       [&](const auto& i) { return i.text.find(text) != std::string::npos; });
  }
};

TEST_F(Gate, ReferencesComeFromTheDatumsOfLaterSetups) {
  const auto first = gate(0);
  EXPECT_TRUE(says(first, "foot is there, wanted by \"on the foot\""));
  EXPECT_TRUE(says(first, "end B must be cut or scribed, wanted by \"on the foot\""));
  EXPECT_TRUE(says(first, "take the burrs off: not done"));
  EXPECT_EQ(first.open, 3);
  // The last setup asks for no reference: nothing comes after it.
  for (const auto& item : gate(1).items) EXPECT_NE(item.kind, route::GateKind::reference);
}

// Common practice: a reference omitted once before a turn-over is a scrapped part.
TEST_F(Gate, NothingMachinedForTheNextSetupIsSaid) {
  change(0, [&](build::Setup& s) { s.cuts = {surface("bore")}; });
  EXPECT_TRUE(says(gate(0), "Nothing machined so far locates the part in \"on the foot\""));
  EXPECT_TRUE(says(gate(0), "\"on the foot\" locates from foot, which nothing up to here has cut"));
}

TEST_F(Gate, SizesMustBeReadAndWithinLimits) {
  Id bore = 0;
  for (const auto& [id, d] : b.dimensions_of(part))
    if (d.name == "bore") bore = id;
  // The cut that was logged is a reading of it: metal is still on.
  const auto cut = readings::size_now(b, {bore, piece});
  ASSERT_TRUE(cut.by_cut);
  const auto figure = [](double mm) {
    return length_text(mm, Unit::mm, {.decimals_mm = 3, .show_unit = true});
  };
  EXPECT_TRUE(says(gate(1), "bore measures " + figure(cut.value) + ": " + figure(31 - cut.value) +
                                " still to come off on the diameter"));
  ASSERT_TRUE(b.apply(add(b, Measurement{piece, bore, 31.05, 0.005, "", "2026-11-21"}, "x")));
  EXPECT_TRUE(says(gate(1), "bore measures 31.050\u202Fmm, outside 31.000\u202Fmm to 31.025\u202Fmm"));
  ASSERT_TRUE(b.apply(add(b, Measurement{piece, bore, 31.01, 0.005, "", "2026-11-21"}, "x")));
  EXPECT_TRUE(says(gate(1), "bore measured, 31.010\u202Fmm"));
  // What was measured is never "as cast": the feature is finished by the same reading.
  EXPECT_TRUE(says(gate(1), "bore finished"));
}

TEST_F(Gate, RemarksOnTheRoute) {
  EXPECT_TRUE(route::route_remarks(b, part).empty());
  change(1, [&](build::Setup& s) { s.datums.push_back(surface("barrel")); });
  change(0, [&](build::Setup& s) { s.datums[0] = surface("end B"); });
  std::string all;
  for (const auto& r : route::route_remarks(b, part)) all += r.text + "|";
  EXPECT_NE(all.find("\"on the foot\" uses barrel as cast a second time"), std::string::npos) << all;
  EXPECT_NE(all.find("\"on the chest, foot to the side\" cuts end B, which it is located from"),
            std::string::npos)
      << all;
  change(1, [&](build::Setup& s) { std::erase(s.cuts, surface("bore")); });
  all.clear();
  for (const auto& r : route::route_remarks(b, part)) all += r.text + "|";
  EXPECT_NE(all.find("no setup cuts bore"), std::string::npos) << all;
}

TEST_F(Gate, RemovingASurfaceTakesItOutOfTheSetups) {
  ASSERT_TRUE(b.apply(remove(b, surface("foot"), "x")));
  EXPECT_EQ(b.setups_of(part)[1].second.datums.size(), 1U);
  EXPECT_EQ(first_dangling(b), "");
}

// A dimension without limits is free: any size of it is right, and the gate never calls it outside 12 to 12.
TEST_F(Gate, ADimensionWithoutLimitsIsNeverOutside) {
  Dimension free;
  free.part = part;
  free.name = "boss height";
  free.nominal = 12;
  const Id id = b.next_id();
  ASSERT_TRUE(b.apply(add(b, free, "x")));
  change(1, [&](build::Setup& s) { s.sizes = {id}; });
  EXPECT_TRUE(says(gate(1), "boss height is not measured"));
  ASSERT_TRUE(b.apply(add(b, Measurement{piece, id, 12.01, 0.005, "", ""}, "x")));
  const auto result = gate(1);
  EXPECT_TRUE(says(result, "boss height measured, 12.010"));
  EXPECT_FALSE(says(result, "outside"));
  for (const auto& item : result.items) {
    EXPECT_TRUE(item.dimension != id || item.done);
  }
  // With limits the same reading is judged by them, to a hair.
  free.upper = 0.005;
  ASSERT_TRUE(b.apply(replace(b, id, free, "x")));
  EXPECT_TRUE(says(gate(1), "boss height measures 12.010\u202Fmm, outside 12.000\u202Fmm to 12.005\u202Fmm"));
  free.upper = 0.01;
  ASSERT_TRUE(b.apply(replace(b, id, free, "x")));
  EXPECT_TRUE(says(gate(1), "boss height measured, 12.010"));
}

TEST_F(Gate, WhatIsMissingIsPutInWordsAndNothingWhenAllIsThere) {
  const auto before = gate(0);
  ASSERT_GT(before.open, 0);
  const auto words = route::still_missing(before);
  for (const auto& item : before.items)
    EXPECT_EQ(words.find(item.text) != std::string::npos, !item.done) << item.text;
  const auto operations = b.operations_of(part);
  for (const auto& [id, o] : operations) ASSERT_TRUE(b.apply(remove(b, id, "Remove")));
  change(0, [](build::Setup& s) { s.cuts.clear(), s.sizes.clear(), s.marks.clear(); });
  change(1, [](build::Setup& s) { s.datums.clear(), s.cuts.clear(), s.sizes.clear(); });
  const auto nothing = gate(1);
  EXPECT_EQ(route::still_missing(nothing), "");
  EXPECT_EQ(nothing.verdict, "Nothing is asked of this setup yet: say what it cuts and measures.");
  EXPECT_TRUE(route::unclamp_gate(b, piece, 9999, {}).items.empty());
}
