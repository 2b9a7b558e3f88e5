// A part made in numbers: groups by size, progress, readings typed and pasted in one step.

#include "batch/batch_edits.h"
#include "batch/batch_sheet.h"

#include "build/edit_drawing.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::batch;

namespace {

/// Sixty gear blanks: a bore of 12 H7 and an outside that is turned to 45.50 afterwards.
class Blanks : public testing::Test {
protected:
  void SetUp() override {
    part = put(Part{"Gear blank", "steel", 60, 0});
    for (int n = 1; n <= 60; ++n) pieces.push_back(put(Piece{part, n}));
    Dimension bore;
    bore.part = part;
    bore.name = "bore";
    bore.kind = DimensionKind::size;
    bore.nominal = 12;
    bore.upper = 0.018;
    bore.tolerance = "H7";
    hole = put(bore);
    Dimension outside;
    outside.part = part;
    outside.name = "outside";
    outside.kind = DimensionKind::length;
    outside.nominal = 46;
    outside.order = 1;
    rim = put(outside);
  }
  Id put(Record record) {
    const Id id = b.next_id();
    EXPECT_TRUE(b.apply(add(b, std::move(record), "x")));
    return id;
  }
  KeptReadings type(const std::vector<TypedReading>& typed, const char* at = "2026-01-02T10:00:00Z") {
    ReadingsContext context;
    context.at = at;
    context.lengths.bare_unit = Unit::mm;
    auto kept = keep_readings(b, typed, context);
    EXPECT_TRUE(kept.edit.empty() || b.apply(kept.edit));
    return kept;
  }
  Build b;
  Id part = 0, hole = 0, rim = 0;
  std::vector<Id> pieces;
};

} // namespace

// The fewest intervals of a width that cover points: greedy from the left is the best there is (a textbook
// exercise); here against trying every way to cut the sorted list.
TEST(SizeGroups, AreTheFewest) {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> size(10, 10.3);
  for (int round = 0; round < 200; ++round) {
    std::vector<SizedPiece> some;
    for (int k = 0; k < 9; ++k) some.push_back({k, k, size(random)});
    const double width = 0.02 + 0.01 * (round % 10);
    const auto groups = size_groups(some, width);
    auto sorted = some;
    std::sort(sorted.begin(), sorted.end(), [](auto& a, auto& c) { return a.value < c.value; });
    int best = 99;
    for (unsigned cuts = 0; cuts < 256; ++cuts) { // a cut between neighbours k and k + 1
      int n = 1;
      double from = sorted[0].value;
      bool fits = true;
      for (std::size_t k = 1; k < 9; ++k) {
        if (cuts >> (k - 1) & 1U) {
          ++n;
          from = sorted[k].value;
        }
        fits = fits && sorted[k].value - from <= width + 1e-9;
      }
      if (fits) best = std::min(best, n);
    }
    EXPECT_EQ(static_cast<int>(groups.size()), best);
    std::size_t all = 0;
    for (const auto& g : groups) {
      all += g.pieces.size();
      EXPECT_LE(g.most - g.least, width + 1e-9);
    }
    EXPECT_EQ(all, some.size());
  }
  EXPECT_TRUE(size_groups({}, 1).empty());
  EXPECT_EQ(size_groups({{1, 1, 5}, {2, 2, NAN}}, 1)[0].pieces.size(), 1U);
}

// By hand: 4 minutes each with one dinner of two hours between; 7 of 10 done, one rejected: 2 left, 8
// minutes.
TEST(BatchProgress, TimeLeftFromWhatIsDone) {
  ProgressInput in;
  in.pieces = 10;
  in.rejected = 1;
  for (const char* minute : {"10:00", "10:04", "10:08", "12:08", "12:12", "12:16", "12:20"})
    in.done_at.push_back("2026-01-02T" + std::string(minute) + ":00Z");
  const auto p = progress(in);
  EXPECT_EQ(p.open, 2);
  ASSERT_TRUE(p.minutes_each);
  EXPECT_NEAR(*p.minutes_each, 4, 1e-9);
  EXPECT_NEAR(*p.minutes_left, 8, 1e-9);
  EXPECT_EQ(progress_words(p), "7 of 10 done, 1 rejected; about 4 min each, 8 min left.");
  in.done_at.resize(2);
  EXPECT_FALSE(progress(in).minutes_left); // one interval says nothing
  // Sixty pasted in one block tell nothing of how long one takes.
  EXPECT_FALSE(progress({9, 0, std::vector<std::string>(6, "2026-01-02T10:00:00Z")}).minutes_left);
  EXPECT_EQ(progress_words(progress({3, 0, {"a", "b", "c"}})), "3 of 3 done. Nothing is left to do.");
  // Over the new year and a leap day: 60 s each.
  EXPECT_NEAR(*utc_seconds("2027-01-01T00:00:30Z") - *utc_seconds("2026-12-31T23:59:30Z"), 60, 1e-9);
  EXPECT_NEAR(*utc_seconds("2028-03-01T00:00:00Z") - *utc_seconds("2028-02-28T00:00:00Z"), 2 * 86400, 1e-9);
  EXPECT_FALSE(utc_seconds("yesterday"));
  EXPECT_FALSE(utc_seconds("2026-13-01T00:00:00Z"));
}

TEST_F(Blanks, SixtyReadingsAreOneStepAndSixtyVerdicts) {
  std::vector<TypedReading> typed;
  for (std::size_t k = 0; k < 60; ++k) // 12.000 to 12.0295: from the 38th on over 12.018
    typed.push_back({{hole, pieces[k]}, fmt::format("{:.4f}", 12.0 + 0.0005 * static_cast<double>(k))});
  const auto before = b;
  const auto kept = type(typed);
  EXPECT_EQ(kept.kept, 60U);
  EXPECT_EQ(kept.edit.label, "60 readings");
  const auto sheet = batch_sheet(b, part, nullptr);
  ASSERT_EQ(sheet.rows.size(), 60U);
  EXPECT_EQ(sheet.columns[0].read, 60);
  EXPECT_EQ(sheet.columns[0].out, 23); // no. 38 (12.0185) to no. 60
  EXPECT_NEAR(sheet.columns[0].mean, 12 + 0.0005 * 29.5, 1e-9);
  EXPECT_NEAR(sheet.columns[0].sigma, 0.0005 * std::sqrt(305.0),
              1e-9); // (n² + n) / 12 for n = 60, of the sample
  EXPECT_EQ(sheet.rows[0].cells[0].verdict, CellVerdict::good);
  EXPECT_EQ(sheet.rows[59].cells[0].verdict, CellVerdict::out);
  EXPECT_NEAR(sheet.rows[59].cells[0].over, 0.0115, 1e-9);
  EXPECT_EQ(groups_of(sheet, 0, 0.01).size(), 3U); // 12.000 to .010, .0105 to .0205, .021 to .0295
  // Undone in one step.
  auto undone = kept.edit;
  for (auto& change : undone.changes) std::swap(change.before, change.after);
  ASSERT_TRUE(b.apply(undone));
  EXPECT_EQ(b.records(), before.records());
}

TEST_F(Blanks, WhatIsNotUnderstoodIsSaidAndTheRestIsKept) {
  const auto kept =
      type({{{hole, pieces[0]}, "12.005"}, {{hole, pieces[1]}, "twelve"}, {{hole, pieces[2]}, "12.007"}});
  EXPECT_EQ(kept.kept, 2U);
  ASSERT_EQ(kept.refused.size(), 1U);
  EXPECT_EQ(kept.refused[0].at, 1U);
  EXPECT_FALSE(kept.refused[0].why.empty());
  // Read again in the same block: the later one stands, and there is one of it.
  type({{{hole, pieces[0]}, "12.001"}, {{hole, pieces[0]}, "12.002"}});
  const auto sheet = batch_sheet(b, part, nullptr);
  EXPECT_NEAR(sheet.rows[0].cells[0].now.value, 12.002, 1e-9);
  type({{{hole, pieces[0]}, ""}});
  EXPECT_EQ(batch_sheet(b, part, nullptr).rows[0].cells[0].verdict, CellVerdict::empty);
}

// A no-go that goes, and a size over a loose pin that may lie either side of a limit, were "as it should be".
// Limits 12.000 to 12.018. ISO 14253-1: in the band of the uncertainty about a limit neither is proved.
TEST_F(Blanks, AVerdictHasThreeAnswers) {
  Joint joint; // it is a hole
  joint.name = "on the arbor";
  joint.hole = hole;
  put(joint);
  type({{{hole, pieces[0]}, "no-go 12.018 goes"},      // larger than the largest
        {{hole, pieces[1]}, "go 12.000 no-go 12.018"}, // as it should be
        {{hole, pieces[2]}, "12.010 \u00B10.005"},     // all of it within
        {{hole, pieces[3]}, "12.016 \u00B10.005"},     // 12.011 to 12.021
        {{hole, pieces[4]}, "12.030 \u00B10.005"}});   // all of it out
  const auto sheet = batch_sheet(b, part, nullptr);
  const auto verdict = [&](std::size_t row) { return sheet.rows[row].cells[0].verdict; };
  EXPECT_EQ(verdict(0), CellVerdict::out);
  EXPECT_GT(sheet.rows[0].cells[0].over, 0); // too large, nobody knows by how much
  EXPECT_EQ(verdict(1), CellVerdict::good);
  EXPECT_EQ(verdict(2), CellVerdict::good);
  EXPECT_EQ(verdict(3), CellVerdict::undecided);
  EXPECT_NEAR(sheet.rows[3].cells[0].band.low, 12.011, 1e-9);
  EXPECT_NEAR(sheet.rows[3].cells[0].band.high, 12.021, 1e-9);
  EXPECT_EQ(verdict(4), CellVerdict::out);
  // Gauges give no size: the mean is of the three that were read.
  EXPECT_EQ(sheet.columns[0].read, 5);
  EXPECT_EQ(sheet.columns[0].undecided, 1);
  EXPECT_NEAR(sheet.columns[0].mean, (12.010 + 12.016 + 12.030) / 3, 1e-9);
}

TEST_F(Blanks, ARejectedPieceCountsNoMoreAndMatesNothing) {
  for (std::size_t k = 0; k < 60; ++k) type({{{hole, pieces[k]}, "12.005"}, {{rim, pieces[k]}, "46"}});
  type({{{hole, pieces[3]}, "12.3"}});
  ASSERT_TRUE(b.apply(reject(b, pieces[3], " bored over ")));
  auto sheet = batch_sheet(b, part, nullptr);
  EXPECT_EQ(sheet.rows[3].rejected, "bored over");
  EXPECT_EQ(sheet.columns[0].read, 59);
  EXPECT_EQ(sheet.columns[0].out, 0);
  EXPECT_EQ(sheet.progress.done, 59);
  EXPECT_EQ(sheet.progress.rejected, 1);
  EXPECT_EQ(sheet.progress.open, 0);
  EXPECT_EQ(sheet.rows[0].cells[1].verdict, CellVerdict::unknown); // nobody said how large
  // A joint of the blanks passes it over.
  const Id shafts = put(Part{"Arbor", "steel", 1, 1});
  const Id arbor = put(Piece{shafts, 1});
  Dimension d;
  d.part = shafts;
  d.nominal = 12;
  d.name = "seat";
  Joint joint;
  joint.hole = hole;
  joint.shaft = put(d);
  for (const auto& pair : chains::joint_pairs(b, joint)) EXPECT_NE(pair.first, pieces[3]);
  EXPECT_EQ(chains::joint_pairs(b, joint).size(), 59U);
  EXPECT_EQ(chains::joint_pairs(b, joint)[0].second, arbor);
  ASSERT_TRUE(b.apply(reject(b, pieces[3], "")));
  EXPECT_EQ(chains::joint_pairs(b, joint).size(), 60U);
}

// An angle was shown as a length of so many radians, and grouped with its neighbours within 0.05 mm.
TEST_F(Blanks, AnAngleIsJudgedButInNoGroup) {
  Dimension chamfer;
  chamfer.part = part;
  chamfer.name = "chamfer";
  chamfer.kind = DimensionKind::angle;
  chamfer.nominal = radians(45);
  chamfer.upper = radians(0.5);
  chamfer.lower = -chamfer.upper;
  chamfer.order = 2;
  const Id angle = put(chamfer);
  EXPECT_EQ(type({{{angle, pieces[0]}, "45.2"}, {{angle, pieces[1]}, "46"}}).kept, 2U);
  const auto sheet = batch_sheet(b, part, nullptr);
  ASSERT_TRUE(sheet.columns[2].angle);
  EXPECT_EQ(sheet.rows[0].cells[2].verdict, CellVerdict::good);
  EXPECT_EQ(sheet.rows[1].cells[2].verdict, CellVerdict::out);
  EXPECT_NEAR(sheet.rows[1].cells[2].over, radians(0.5), 1e-9);
  EXPECT_TRUE(groups_of(sheet, 2, 1).empty());
}

// A size without limits counted as good whatever its mates could have: an arbor of 12.000 that is to slide in
// with 10 to 20 µm takes a bore of 12.010 to 12.020.
TEST_F(Blanks, AFreeSizeIsJudgedByItsMates) {
  auto free = *b.find<Dimension>(hole);
  free.upper = 0;
  free.tolerance.clear();
  ASSERT_TRUE(b.apply(replace(b, hole, free, "x")));
  const Id arbor = put(Part{"Arbor", "steel", 1, 1});
  const Id one = put(Piece{arbor, 1});
  Dimension seat;
  seat.part = arbor;
  seat.name = "seat";
  seat.kind = DimensionKind::size;
  seat.nominal = 12;
  Joint joint;
  joint.name = "on the arbor";
  joint.hole = hole;
  joint.shaft = put(seat);
  joint.least = 0.010;
  joint.most = 0.020;
  put(joint);
  type({{{joint.shaft, one}, "12.000"}, {{hole, pieces[0]}, "12.015"}, {{hole, pieces[1]}, "12.045"}});
  const auto targets = chains::build_targets(b);
  const auto sheet = batch_sheet(b, part, &targets);
  EXPECT_EQ(sheet.rows[0].cells[0].verdict, CellVerdict::good);
  EXPECT_EQ(sheet.rows[1].cells[0].verdict, CellVerdict::out);
  EXPECT_NEAR(sheet.rows[1].cells[0].over, 0.025, 1e-9);
  EXPECT_EQ(sheet.rows[2].cells[0].verdict, CellVerdict::empty);
  EXPECT_NEAR(sheet.rows[2].cells[0].make.value_or(0), 12.015, 1e-6);
}
