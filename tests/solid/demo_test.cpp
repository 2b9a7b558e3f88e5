// The demo engine as solids: every part closed, in one piece, of a known metal.

#include "demo/mill_engine.h"
#include "demo/small_work.h"
#include "fits/solids.h"
#include "solid/rough.h"
#include "solid/solid.h"
#include "stock/part_stock.h"

#include <gtest/gtest.h>

namespace datrin::solid_test {
namespace {

constexpr double pi = 3.14159265358979323846;

TEST(DemoSolids, EveryPartIsClosedAndInOnePiece) {
  const auto demo = demo::mill_engine();
  for (const auto& [id, part] : demo.build.parts()) {
    const auto solid = solid::make_solid(solid::place_bodies(demo.build, id), {.mesh = false});
    EXPECT_EQ(solid.status, solid::SolidStatus::made) << part.name;
    EXPECT_EQ(solid.message, "") << part.name;
    EXPECT_TRUE(solid.closed) << part.name;
    EXPECT_EQ(solid.bodies, 1) << part.name;
    EXPECT_NE(fits::find_solid(part.material).solid, nullptr) << part.name;
    EXPECT_GT(solid.volume, 1) << part.name;
    // Surfaces of it lie where the solid has a face, but for the few that stand for something else.
    int loose = 0;
    for (const auto& [surface_id, surface] : demo.build.surfaces_of(id)) loose += surface.body == 0 ? 1 : 0;
    EXPECT_LE(loose, 4) << part.name;
  }
}

TEST(DemoSolids, SmallWorkIsClosedAndFitsItsStock) {
  const auto demo = demo::small_work();
  ASSERT_EQ(demo.build.parts().size(), 2U);
  for (const auto& [id, part] : demo.build.parts()) {
    const auto solid = solid::make_solid(solid::place_bodies(demo.build, id), {.mesh = false});
    EXPECT_EQ(solid.message, "") << part.name;
    EXPECT_EQ(solid.bodies, 1) << part.name;
    EXPECT_FALSE(stock::needs_touches(demo.build, id)) << part.name;
    EXPECT_NE(fits::find_solid(part.material).solid, nullptr) << part.material;
    const auto piece = demo.build.pieces_of(id).front().first;
    for (const auto& [surface, s] : demo.build.surfaces_of(id))
      if (const auto metal = stock::raw_metal(demo.build, piece, surface)) {
        EXPECT_GE(metal->least, -1e-9) << part.name << " " << s.name;
      }
  }
  // 44 x 48 x 30, two slots 18 x 48 x 3, a bore of 20 through; the oil hole of 2.5 with a flat end of 118
  // degrees, 17 deep.
  const auto box =
      solid::make_solid(solid::place_bodies(demo.build, demo.build.parts().front().first), {.mesh = false});
  const double drilled = pi / 4 * 2.5 * 2.5 * 17; // it ends in the bore: somewhat less is cut
  EXPECT_NEAR(box.volume, 44 * 48 * 30 - 2 * 18 * 48 * 3 - pi * 100 * 30 - drilled, drilled * 0.1);
}

TEST(DemoSolids, SizesThatWereDimensionsAreTheBodies) {
  const auto demo = demo::mill_engine();
  int linked = 0;
  for (const auto& [id, part] : demo.build.parts())
    for (const auto& [body_id, body] : demo.build.bodies_of(id))
      for (const auto& size : body.sizes)
        if (const auto* dimension = demo.build.find<build::Dimension>(size.dimension)) {
          EXPECT_EQ(dimension->nominal, size.value) << part.name << " " << dimension->name;
          ++linked;
        }
  EXPECT_GT(linked, 50);
}

TEST(DemoSolids, TheRoughPedestalWeighsMoreThanTheFinishedOne) {
  const auto demo = demo::mill_engine();
  const auto pedestal = demo.build.parts().front().first;
  const auto finished = solid::make_solid(solid::place_bodies(demo.build, pedestal), {.mesh = false});
  const auto rough = solid::make_solid(solid::rough_bodies(demo.build, pedestal), {.mesh = false});
  ASSERT_TRUE(rough.usable()) << rough.message;
  EXPECT_GT(rough.volume, finished.volume * 1.03);
  EXPECT_LT(rough.volume, finished.volume * 1.3);
}

} // namespace
} // namespace datrin::solid_test
