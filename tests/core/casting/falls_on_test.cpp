// A touch without a surface finds its own: the demo's surveys say which each was on.

#include "casting/falls_on.h"

#include "casting/seat.h"
#include "demo/mill_engine.h"

#include <gtest/gtest.h>

using namespace datrin;

TEST(FallsOn, AtTheSeatNearlyEveryTouchOfTheDemoFindsItsSurface) {
  const auto demo = demo::mill_engine();
  int right = 0, doubtful = 0, all = 0;
  for (const auto& made : demo.pieces) {
    const auto input = casting::piece_input(demo.build, made.piece);
    casting::SeatOptions options;
    options.start = casting::seat_or_start(demo.build, made.piece, input);
    const auto seat = casting::seat(input.seat, options);
    const auto part = demo.build.find<build::Piece>(made.piece)->part;
    for (const auto& [id, touch] : demo.build.touches_of(made.piece)) {
      const auto found = casting::falls_on(demo.build, part, seat.pose, touch.centre, Vec3::Zero());
      ++all;
      if (found.surface == touch.surface)
        ++right;
      else if (found.next == touch.surface)
        ++doubtful;
    }
  }
  EXPECT_GE(right + doubtful, all * 97 / 100) << right << " and " << doubtful << " of " << all;
  EXPECT_GE(right, all * 93 / 100);
}

TEST(FallsOn, TheWayTheTipWentDecidesAtAnEdge) {
  build::Build build;
  build.load(2, build::Part{"Block", "steel", 1, 0});
  build::PartSurface top, side;
  top.part = side.part = 2;
  top.name = "top";
  top.width = top.height = 40;
  side.name = "side";
  side.point = {20, 0, -20};
  side.direction = Vec3::UnitX();
  side.width = side.height = 40;
  build.load(3, top);
  build.load(4, side);
  const Vec3 edge(20.6, 0, 0.5);
  EXPECT_EQ(casting::falls_on(build, 2, {}, edge, -Vec3::UnitZ()).surface, 3);
  EXPECT_EQ(casting::falls_on(build, 2, {}, edge, -Vec3::UnitX()).surface, 4);
  const auto either = casting::falls_on(build, 2, {}, edge, Vec3::Zero());
  EXPECT_NE(either.next, 0);
  EXPECT_EQ(casting::falls_on(build, 2, {}, {0, 0, 30}, Vec3::Zero()).words,
            "no surface is near that place: say which it is on");
}
