#include "sheets/as_held.h"

#include <cmath>

namespace datrin::sheets {

ThreeViews lay_out_held(const Box& box, const AsHeld& held, const PixelRect& area, bool third_angle,
                        double margin, double gap) {
  const Mat3 turn = route::machine_axes(held);
  Box turned;
  for (int k = 0; k < 8; ++k)
    turned.take(turn * Vec3(k & 1 ? box.high.x() : box.low.x(), k & 2 ? box.high.y() : box.low.y(),
                            k & 4 ? box.high.z() : box.low.z()));
  auto views = lay_out(turned, area, third_angle, margin, gap);
  for (auto& axes : views.axes)
    axes = {turn.transpose() * axes.right, turn.transpose() * axes.up, turn.transpose() * axes.toward};
  return views;
}

const char* held_view_name(View view, const AsHeld& held) {
  if (held.way.norm() < 1e-9) return view_names[static_cast<std::size_t>(view)];
  switch (view) {
  case View::front:
    return "From the front";
  case View::plan:
    return held.lathe ? "From above" : "From the tool";
  case View::end:
    break;
  }
  return held.lathe ? "Along the spindle" : "From the side";
}

} // namespace datrin::sheets
