// Drawings from a few sizes: closed solids whose sizes are dimensions, in millimetres and in inches.

#include "solid/quick_start.h"

#include "build/references.h"
#include "solid/body_edits.h"
#include "solid/solid.h"

#include <gtest/gtest.h>

#include <numbers>
#include <set>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::solid;

namespace {

std::vector<double> usual(const QuickStart& start, Unit unit = Unit::mm) {
  std::vector<double> sizes;
  for (const auto& size : start.sizes) sizes.push_back(size.begins(unit));
  return sizes;
}

struct Drawn {
  Build build;
  Id part = 0;
};

Drawn drawn(const QuickStart& start, Unit unit = Unit::mm) {
  Drawn d;
  const auto drawing = quick_drawing(start.shape, usual(start, unit));
  EXPECT_EQ(drawing.message, "") << start.name;
  const auto made = add_quick_part(d.build, start.name, drawing);
  EXPECT_TRUE(d.build.apply(made.edit));
  d.part = made.id;
  return d;
}

class QuickStarts : public testing::TestWithParam<QuickStart> {};

} // namespace

TEST_P(QuickStarts, IsAClosedSolidInBothUnits) {
  for (const auto unit : {Unit::mm, Unit::inch}) {
    const auto d = drawn(GetParam(), unit);
    EXPECT_EQ(first_dangling(d.build), "");
    const auto solid = make_solid(place_bodies(d.build, d.part), {.mesh = false});
    EXPECT_EQ(solid.status, SolidStatus::made);
    EXPECT_EQ(solid.message, "");
    EXPECT_EQ(solid.bodies, 1);
    EXPECT_TRUE(solid.closed);
    EXPECT_GT(solid.volume, 100);
    // Every surface is a face of the solid, where the record says it is.
    for (const auto& [id, surface] : d.build.surfaces_of(d.part)) {
      bool found = false;
      for (const auto& face : solid.faces)
        found = found ||
                (face.known() && face.shape.kind == surface.kind &&
                 std::abs(face.shape.diameter - surface.diameter) < 1e-6 &&
                 std::abs(stock_at(surface.shape(),
                                   surface.round() ? Vec3(face.shape.point + across(face.shape.direction) *
                                                                                 face.shape.diameter / 2)
                                                   : face.shape.point)) < 1e-6);
      EXPECT_TRUE(found) << surface.name;
    }
  }
}

TEST_P(QuickStarts, EverySizeIsADimensionOnce) {
  const auto d = drawn(GetParam());
  std::set<std::string> names;
  for (const auto& [id, dimension] : d.build.dimensions_of(d.part))
    EXPECT_TRUE(names.insert(dimension.name).second) << dimension.name;
  for (const auto& [id, body] : d.build.bodies_of(d.part))
    for (const auto& size : body.sizes) {
      if (size.value == 0) continue;
      const auto* dimension = d.build.find<Dimension>(size.dimension);
      ASSERT_TRUE(dimension) << body.name << " " << role_words(body, size.role);
      EXPECT_EQ(dimension->nominal, size.value);
    }
  // In millimetres they are round to a tenth.
  for (const auto& size : GetParam().sizes) EXPECT_NEAR(size.mm * 10, std::round(size.mm * 10), 1e-9);
  // In inches round to a sixty-fourth.
  for (const auto& size : GetParam().sizes)
    EXPECT_NEAR(size.begins(Unit::inch) / 25.4 * 64, std::round(size.begins(Unit::inch) / 25.4 * 64), 1e-9);
}

INSTANTIATE_TEST_SUITE_P(QuickStart, QuickStarts, testing::ValuesIn(quick_starts()),
                         [](const auto& instance) {
                           std::string name = instance.param.name;
                           std::replace(name.begin(), name.end(), ' ', '_');
                           return name;
                         });

TEST(QuickStart, WallsAreLessThanDrawn) {
  for (const auto& start : quick_starts()) {
    const auto d = drawn(start);
    for (const auto& [id, wall] : d.build.walls_of(d.part)) {
      const double there =
          (d.build.find<PartSurface>(wall.from)->diameter - d.build.find<PartSurface>(wall.to)->diameter) / 2;
      EXPECT_GT(wall.least, 0);
      EXPECT_LT(wall.least, there);
    }
  }
}

TEST(QuickStart, APlugsHexagonHasTheHandbooksVolume) {
  const auto d = drawn(quick_starts()[static_cast<std::size_t>(QuickShape::plug)]);
  const auto solid = make_solid(place_bodies(d.build, d.part), {.mesh = false});
  EXPECT_NEAR(solid.volume, std::sqrt(3) / 2 * 14 * 14 * 6 + std::numbers::pi * 25 * 12, 1e-6);
}

TEST(QuickStart, SizesThatDoNotFitAreNamed) {
  auto sizes = usual(quick_starts()[0]);
  sizes[5] = 15; // the boss
  EXPECT_EQ(quick_drawing(QuickShape::pedestal, sizes).message, "the boss must be wider than the bore");
  sizes[5] = 0;
  EXPECT_EQ(quick_drawing(QuickShape::pedestal, sizes).message, "boss must be above 0");
  EXPECT_EQ(add_quick_part(Build{}, "x", quick_drawing(QuickShape::pedestal, sizes)).wrong,
            "boss must be above 0");
  EXPECT_EQ(quick_drawing(QuickShape::cover, {50}).message, "thickness must be above 0");
}
