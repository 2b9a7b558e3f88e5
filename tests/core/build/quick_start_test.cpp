#include "build/quick_start.h"

#include "build/references.h"
#include "casting/survey.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

namespace {

std::vector<double> usual(const QuickStart& start) {
  std::vector<double> sizes;
  for (const auto& size : start.sizes) sizes.push_back(size.mm);
  return sizes;
}

} // namespace

TEST(QuickStart, EveryShapeGivesADrawingThatStands) {
  ASSERT_EQ(quick_starts().size(), 9U);
  for (const auto& start : quick_starts()) {
    const auto drawing = quick_drawing(start.shape, usual(start));
    EXPECT_EQ(drawing.message, "") << start.name;
    EXPECT_GE(drawing.surfaces.size(), 4U) << start.name;
    Build build;
    ASSERT_TRUE(build.apply(add_quick_part(build, start.name, drawing).edit));
    EXPECT_EQ(first_dangling(build), "");
    const auto part = build.parts().front().first;
    EXPECT_EQ(build.surfaces_of(part).size(), drawing.surfaces.size());
    EXPECT_EQ(build.walls_of(part).size(), drawing.walls.size());
    EXPECT_EQ(build.pieces_of(part).size(), 1U);
    // Every face looks out of the metal: from inside the part it is ahead.
    Vec3 middle = Vec3::Zero();
    for (const auto& s : drawing.surfaces) middle += s.point / static_cast<double>(drawing.surfaces.size());
    for (const auto& s : drawing.surfaces)
      if (!s.round() && s.machined) {
        EXPECT_GT(s.direction.dot(s.point - middle), -1e-9) << start.name << " " << s.name;
      }
    for (const auto& wall : drawing.walls) {
      const double drawn = (drawing.surfaces[wall.from].diameter - drawing.surfaces[wall.to].diameter) / 2;
      EXPECT_GT(wall.least, 0);
      EXPECT_LT(wall.least, drawn);
    }
  }
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
