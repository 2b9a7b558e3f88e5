#include "build/edit_casting.h"
#include "build/edit_drawing.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

namespace {

struct Made {
  Build build;
  Id part = 0, piece = 0, foot = 0, boss = 0, wall = 0, touch = 0;
};

Made make() {
  Made m;
  m.part = m.build.next_id();
  EXPECT_TRUE(m.build.apply(add_part(m.build, "Pedestal").edit));
  m.piece = m.build.pieces_of(m.part).front().first;
  const auto keep = [&](Record record) {
    const Id id = m.build.next_id();
    EXPECT_TRUE(m.build.apply(add(m.build, std::move(record), "add")));
    return id;
  };
  PartSurface surface;
  surface.part = m.part;
  surface.name = "foot";
  m.foot = keep(surface);
  surface.name = "boss";
  m.boss = keep(surface);
  m.wall = keep(Wall{m.part, m.boss, m.foot, 3});
  Touch touch;
  touch.piece = m.piece;
  touch.surface = m.foot;
  m.touch = keep(touch);
  EXPECT_TRUE(m.build.apply(
      set_marking(m.build, Marking{m.piece, Vec3::UnitZ(), m.foot, 25, {m.touch, 0, 0}}, "mark")));
  EXPECT_TRUE(m.build.apply(set_seat(m.build, m.piece, Pose{}, true, "seat")));
  return m;
}

} // namespace

TEST(Edits, ReversedTakesEverythingBack) {
  auto m = make();
  const auto before = m.build.records();
  const auto edit = remove(m.build, m.part, "Remove Pedestal");
  ASSERT_TRUE(m.build.apply(edit));
  EXPECT_EQ(m.build.records().size(), 1U); // only the build itself
  ASSERT_TRUE(m.build.apply(reversed(edit)));
  EXPECT_EQ(m.build.records(), before);
}

TEST(Edits, RemovingASurfaceTakesItsWallsAndTouchesAndFreesTheMarking) {
  auto m = make();
  ASSERT_TRUE(m.build.apply(remove(m.build, m.foot, "Remove foot")));
  EXPECT_EQ(m.build.find<Wall>(m.wall), nullptr);
  EXPECT_EQ(m.build.find<Touch>(m.touch), nullptr);
  EXPECT_NE(m.build.find<PartSurface>(m.boss), nullptr);
  const auto marking = m.build.marking_of(m.piece);
  ASSERT_TRUE(marking);
  EXPECT_EQ(marking->second.reference, 0);
  EXPECT_EQ(marking->second.jacks[0], 0);
}

TEST(Edits, QuantityMakesPiecesAndKeepsThoseWithTouches) {
  auto m = make();
  ASSERT_TRUE(m.build.apply(set_quantity(m.build, m.part, 3)));
  EXPECT_EQ(m.build.pieces_of(m.part).size(), 3U);
  ASSERT_TRUE(m.build.apply(set_quantity(m.build, m.part, 1)));
  ASSERT_EQ(m.build.pieces_of(m.part).size(), 1U);
  EXPECT_EQ(m.build.pieces_of(m.part).front().first, m.piece);
  EXPECT_TRUE(set_quantity(m.build, m.part, 0).empty());
}

TEST(Edits, IdsAreNotUsedAgain) {
  auto m = make();
  const Id before = m.build.next_id();
  ASSERT_TRUE(m.build.apply(remove_touches(m.build, {m.touch})));
  EXPECT_EQ(m.build.next_id(), before);
}

TEST(Edits, NothingChangedIsNoEdit) {
  auto m = make();
  EXPECT_TRUE(replace(m.build, m.foot, *m.build.find<PartSurface>(m.foot), "same").empty());
  EXPECT_TRUE(replace(m.build, 9999, Part{}, "not there").empty());
  EXPECT_TRUE(remove(m.build, Build::info_id, "the build").empty());
  EXPECT_TRUE(remove_touches(m.build, {9999}).empty());
}

TEST(Build, RefusesAnEditThatDoesNotFit) {
  auto m = make();
  Part other = *m.build.find<Part>(m.part);
  const auto edit = replace(m.build, m.part, Part{"New name", "", 1, 0}, "Name");
  other.material = "iron";
  ASSERT_TRUE(m.build.apply(replace(m.build, m.part, other, "Material")));
  const auto before = m.build.records();
  EXPECT_FALSE(m.build.apply(edit)); // it was made against what is no longer there
  EXPECT_EQ(m.build.records(), before);
}
