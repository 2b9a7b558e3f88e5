#include "build/references.h"

#include "build/edits.h"
#include "demo/mill_engine.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

namespace {

/// The demo's bracket with one record of every kind that hangs on it.
struct Everything {
  Everything() : build(demo::mill_engine().build) {
    part = build.parts()[3].first;
    piece = build.pieces_of(part).front().first;
    foot = build.surfaces_of(part)[0].first;
    back = build.surfaces_of(part)[1].first;
    bore = build.surfaces_of(part)[8].first;
    put(Seat{piece, {}, true});
    touch = build.touches_of(piece).front().first;
    put(Marking{piece, Vec3::UnitZ(), foot, 25, {touch, 0, 0}});
    put(SizeReading{piece, foot, back, 30, 0.05, "", 0});
    put(Scan{piece, "s.ply", {}, 0.05, std::make_shared<ScanPoints>()});
    put(Judgement{piece, {}, {{foot, 0.2}}, bore});
    put(Decision{part, piece, foot, "x", "y", "z"});
  }
  void put(Record record) { EXPECT_TRUE(build.apply(add(build, std::move(record), "x"))); }
  Build build;
  Id part = 0, piece = 0, foot = 0, back = 0, bore = 0, touch = 0;
};

template <class T>
std::size_t count(const Build& build) {
  return build.all<T>().size();
}

} // namespace

TEST(References, TheDemoStands) {
  EXPECT_EQ(first_dangling(demo::mill_engine().build), "");
  EXPECT_EQ(first_dangling(Everything().build), "");
}

TEST(References, WhatIsMissingIsNamed) {
  Build build;
  build.load(7, Piece{3, 1});
  EXPECT_EQ(first_dangling(build), "record 7 needs record 3, which is not there");
}

TEST(References, RemovingASurfaceTakesWhatNeedsItAndForgetsItElsewhere) {
  Everything all;
  const auto edit = remove(all.build, all.foot, "Remove foot");
  ASSERT_TRUE(all.build.apply(edit));
  EXPECT_EQ(first_dangling(all.build), "");
  EXPECT_TRUE(all.build.sizes_of(all.piece).empty()); // a thickness from a face that is gone says nothing
  for (const auto& [id, touch] : all.build.touches_of(all.piece)) EXPECT_NE(touch.surface, all.foot);
  const auto marking = all.build.marking_of(all.piece);
  ASSERT_TRUE(marking);
  EXPECT_EQ(marking->second.reference, 0);
  EXPECT_EQ(marking->second.jacks[0], 0); // its touch went with the surface
  ASSERT_TRUE(all.build.judgement_of(all.piece));
  EXPECT_TRUE(all.build.judgement_of(all.piece)->second.favours.empty());
  EXPECT_EQ(all.build.decisions_of(all.part).size(), 1U); // what was decided stays known
  ASSERT_TRUE(all.build.apply(reversed(edit)));
  EXPECT_EQ(all.build.sizes_of(all.piece).size(), 1U);
}

TEST(References, RemovingAPartTakesEverythingOnIt) {
  Everything all;
  const auto before = all.build.records();
  const auto edit = remove(all.build, all.part, "Remove part");
  ASSERT_TRUE(all.build.apply(edit));
  EXPECT_EQ(first_dangling(all.build), "");
  EXPECT_EQ(count<Setting>(all.build) + count<Mark>(all.build) + count<SizeReading>(all.build) +
                count<Spot>(all.build) + count<Scan>(all.build) + count<Judgement>(all.build) +
                count<Decision>(all.build),
            0U);
  ASSERT_TRUE(all.build.apply(reversed(edit)));
  EXPECT_EQ(all.build.records(), before);
}

TEST(References, OnePlaceIsForgottenWithoutTheRest) {
  const Record record = Judgement{3, {}, {{8, 0.1}, {9, 0.2}}, 9};
  EXPECT_FALSE(without(record, {7}));
  const auto left = without(record, {9});
  ASSERT_TRUE(left);
  EXPECT_EQ(*left, Record(Judgement{3, {}, {{8, 0.1}}, 0}));
  EXPECT_EQ(record.as<Judgement>()->favours.size(), 2U); // a record does not change
  const auto spot = without(Spot{3, 8, SpotKind::pore, {}, 1, ""}, {8});
  ASSERT_TRUE(spot);
  EXPECT_EQ(spot->as<Spot>()->surface, 0);
}
