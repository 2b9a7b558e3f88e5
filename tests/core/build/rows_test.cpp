// Several changes on a copy of a build come out as one edit.

#include "build/rows.h"

#include <gtest/gtest.h>

using namespace datrin::build;

namespace {

Build with_part() {
  Build build;
  build.load(2, Part{"Pedestal", "cast iron", 1, 0});
  build.load(3, Piece{2, 1});
  return build;
}

} // namespace

TEST(Rows, SeveralChangesOfOneRecordAreOneRow) {
  const auto build = with_part();
  Rows rows(build);
  auto part = *build.find<Part>(2);
  part.name = "A";
  rows.set(2, part);
  part.name = "B";
  rows.set(2, part);
  const auto edit = rows.edit("Name");
  ASSERT_EQ(edit.changes.size(), 1U);
  EXPECT_EQ(edit.changes[0].before->as<Part>()->name, "Pedestal");
  EXPECT_EQ(edit.changes[0].after->as<Part>()->name, "B");
}

TEST(Rows, WhatIsMadeAndTakenAwayAgainLeavesNothing) {
  const auto build = with_part();
  Rows rows(build);
  const auto id = rows.add(Piece{2, 2});
  EXPECT_TRUE(rows.build().find<Piece>(id));
  rows.take_away(id);
  EXPECT_TRUE(rows.edit("Nothing").empty());
}

TEST(Rows, WhatNeedsARecordGoesWithItAndComesBack) {
  const auto build = with_part();
  Rows rows(build);
  rows.take_away(2);
  const auto edit = rows.edit("Remove");
  EXPECT_EQ(edit.changes.size(), 2U);
  auto after = build;
  ASSERT_TRUE(after.apply(edit));
  EXPECT_TRUE(after.parts().empty());
  ASSERT_TRUE(after.apply(reversed(edit)));
  EXPECT_EQ(after.records(), build.records());
}
