// The part as it lies in a machine: the tool above, or at the right.
#include "sheets/as_held.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::sheets;

TEST(AsHeldViews, TheToolIsAboveAndTheFrameStaysRightHanded) {
  for (const Vec3& way : {Vec3(0, 0, 1), Vec3(0, 0, -1), Vec3(1, 0, 0), Vec3(0, -1, 0), Vec3(0.6, 0, 0.8)})
    for (const bool lathe : {false, true}) {
      const Mat3 axes = route::machine_axes({way, lathe});
      EXPECT_NEAR(axes.determinant(), 1, 1e-12);
      EXPECT_TRUE((axes * axes.transpose()).isApprox(Mat3::Identity(), 1e-12));
      const Vec3 tool = axes * way.normalized();
      EXPECT_NEAR(lathe ? tool.x() : tool.z(), 1, 1e-12);
    }
  EXPECT_TRUE(route::machine_axes({}).isApprox(Mat3::Identity()));
}

TEST(AsHeldViews, TurnedOverTheFrontViewHasTheFootOnTop) {
  Box box;
  box.take({0, 0, 0});
  box.take({60, 20, 40});
  const auto views = lay_out_held(box, {-Vec3::UnitZ(), false}, {0, 0, 400, 300}, false, 10, 10);
  const auto& front = views.axes[static_cast<std::size_t>(View::front)];
  EXPECT_GT(front.on_paper({0, 0, 0}).y(), front.on_paper({0, 0, 40}).y()); // the foot is up
  const auto& plan = views.axes[static_cast<std::size_t>(View::plan)];
  EXPECT_TRUE(plan.toward.isApprox(-Vec3::UnitZ(), 1e-12)); // seen from the tool
  EXPECT_STREQ(held_view_name(View::plan, {-Vec3::UnitZ(), false}), "From the tool");
  EXPECT_STREQ(held_view_name(View::end, {Vec3::UnitX(), true}), "Along the spindle");
  EXPECT_STREQ(held_view_name(View::front, {}), "Front");
}
