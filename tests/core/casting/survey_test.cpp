#include "casting/survey.h"

#include "build/edits.h"
#include "demo/mill_engine.h"

#include <gtest/gtest.h>

using namespace datrin;

TEST(Survey, TipRadiusIsTakenOffAlongTheTravel) {
  build::Touch touch;
  touch.centre = {10, 0, 5};
  touch.tip_radius = 1.5;
  EXPECT_FALSE(casting::touched_point(touch)); // which way it went is not known
  touch.toward = {0, 0, -2};
  EXPECT_NEAR((*casting::touched_point(touch) - Vec3(10, 0, 3.5)).norm(), 0, 1e-12);
  touch.tip_radius = 0;
  touch.toward.setZero();
  EXPECT_EQ(*casting::touched_point(touch), touch.centre);
}

TEST(Survey, InputCarriesTheRecordsItCameFrom) {
  const auto demo = demo::mill_engine();
  const auto piece = demo.pieces[0].piece;
  const auto input = casting::piece_input(demo.build, piece);
  EXPECT_EQ(input.seat.points.size(), 72U);
  EXPECT_EQ(input.touch_ids.size(), input.seat.points.size());
  EXPECT_EQ(input.seat.walls.size(), 1U);
  for (std::size_t i = 0; i < input.touch_ids.size(); ++i) {
    const auto* touch = demo.build.find<build::Touch>(input.touch_ids[i]);
    ASSERT_NE(touch, nullptr);
    EXPECT_EQ(input.surface_index(touch->surface), input.seat.points[i].surface);
  }
}

TEST(Survey, ATouchThatCannotBeCorrectedIsLeftOutAndTold) {
  auto demo = demo::mill_engine();
  const auto piece = demo.pieces[0].piece;
  const auto [id, touch] = demo.build.touches_of(piece).front();
  auto changed = touch;
  changed.tip_radius = 1;
  ASSERT_TRUE(demo.build.apply(build::replace(demo.build, id, changed, "tip")));
  const auto input = casting::piece_input(demo.build, piece);
  EXPECT_EQ(input.seat.points.size(), 71U);
  EXPECT_EQ(input.uncorrected, std::vector<build::Id>{id});
}

TEST(Survey, MarkingStartsWithTheWidestPlaneDown) {
  const auto demo = demo::mill_engine();
  const auto input = casting::piece_input(demo.build, demo.pieces[0].piece);
  const auto marking = casting::marking_or_start(demo.build, demo.pieces[0].piece, input);
  EXPECT_EQ(marking.up, Vec3(0, 0, 1));
  EXPECT_EQ(demo.build.find<build::PartSurface>(marking.reference)->name, "foot");
}
