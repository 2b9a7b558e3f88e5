// Where things are drawn, checked without looking: plain geometry between millimetres and pixels.

#include "sheets/scene.h"
#include "sheets/three_views.h"

#include <Eigen/Geometry>
#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::sheets;

namespace {

SceneInput block() {
  SceneInput input;
  const auto plane = [&](const char* name, Vec3 at, Vec3 n) {
    input.surfaces.push_back({name, {SurfaceKind::plane, at, n, 0}, 0, 0, true});
  };
  plane("foot", {0, 0, 0}, -Vec3::UnitZ());
  plane("top", {0, 0, 30}, Vec3::UnitZ());
  plane("left", {-40, 0, 15}, -Vec3::UnitX());
  plane("right", {40, 0, 15}, Vec3::UnitX());
  plane("front", {0, -10, 15}, -Vec3::UnitY());
  plane("back", {0, 10, 15}, Vec3::UnitY());
  input.surfaces.push_back({"bore", {SurfaceKind::bore, {0, 0, 15}, Vec3::UnitY(), 12}, 0, 0, true});
  return input;
}

int count(const Scene& scene, Role role) {
  return static_cast<int>(std::count_if(scene.paths.begin(), scene.paths.end(),
                                        [&](const ScenePath& p) { return p.role == role; }));
}

} // namespace

TEST(Scene, ExtentsReachToTheNeighbours) {
  const auto input = with_extents(block());
  EXPECT_DOUBLE_EQ(input.surfaces[0].width, 80);  // foot: along x
  EXPECT_DOUBLE_EQ(input.surfaces[0].height, 20); // and y
  EXPECT_DOUBLE_EQ(input.surfaces[2].height, 30);
  EXPECT_DOUBLE_EQ(input.surfaces[6].height, 20); // the bore's length
  const auto box = bounds(input);
  EXPECT_EQ(box.low, Vec3(-40, -10, 0));
  EXPECT_EQ(box.high, Vec3(40, 10, 30));
}

TEST(Scene, FrontViewShowsOutlineCircleAndCentreLines) {
  const auto scene = make_scene(with_extents(block()), view_axes(View::front, false));
  EXPECT_EQ(count(scene, Role::finished), 5); // four edges and the bore
  EXPECT_EQ(count(scene, Role::centre), 2);
  EXPECT_EQ(count(scene, Role::hidden), 0);
  const auto side = make_scene(with_extents(block()), view_axes(View::end, false));
  EXPECT_EQ(count(side, Role::hidden), 2); // the bore behind metal
  EXPECT_EQ(count(side, Role::centre), 1);
}

TEST(Scene, RawMetalIsDrawnBetweenFinishedAndTouched) {
  auto input = with_extents(block());
  for (const double x : {-30.0, 0.0, 30.0}) input.touches.push_back({0, {x, 0, -2}});
  const auto scene = make_scene(input, view_axes(View::front, false));
  ASSERT_EQ(count(scene, Role::raw), 1);
  for (const auto& path : scene.paths)
    if (path.role == Role::rough) {
      EXPECT_NEAR(path.loops[0][0].y(), -2, 1e-9);
      EXPECT_NEAR(path.loops[0][1].y(), -2, 1e-9);
    }
  EXPECT_EQ(scene.pips.size(), 3U);
}

TEST(ThreeViews, ProjectionsLieWhereTheAngleSays) {
  const Box box{{-40, -10, 0}, {40, 10, 30}};
  const auto first = lay_out(box, {0, 0, 800, 480}, false, 30, 30),
             third = lay_out(box, {0, 0, 800, 480}, true, 30, 30);
  const auto y = [](const ThreeViews& v, View view) {
    return v.frame[static_cast<std::size_t>(view)].middle_px.y();
  };
  EXPECT_GT(y(first, View::plan), y(first, View::front)); // first angle: the plan below
  EXPECT_LT(y(third, View::plan), y(third, View::front)); // third angle: above
  for (const auto& v : {first, third}) {
    EXPECT_DOUBLE_EQ(v.frame[0].middle_px.x(), v.frame[1].middle_px.x()); // front and plan in line
    EXPECT_DOUBLE_EQ(v.frame[0].middle_px.y(), v.frame[2].middle_px.y()); // front and end in line
    EXPECT_DOUBLE_EQ(v.frame[0].scale, v.frame[2].scale);
    for (const auto& axes : v.axes) EXPECT_NEAR((axes.right.cross(axes.up) - axes.toward).norm(), 0, 1e-12);
  }
  // ISO 128-30, first angle: the view from the left stands to the right, so the rear of the part is next to
  // the front view.
  EXPECT_EQ(first.axes[2].toward, Vec3(-1, 0, 0));
  EXPECT_EQ(third.axes[2].toward, Vec3(1, 0, 0));
}

TEST(ThreeViews, PixelsAndMillimetresComeBack) {
  const ViewFrame frame{{3, 4}, {200, 100}, 2.5};
  const Vec2 at(-7, 11);
  EXPECT_NEAR((frame.to_mm(frame.to_px(at)) - at).norm(), 0, 1e-12);
  EXPECT_LT(frame.to_px({3, 5}).y(), 100); // up on paper is up on screen
}
