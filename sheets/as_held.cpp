#include "sheets/as_held.h"

#include <cmath>

namespace datrin::sheets {

Mat3 machine_axes(const AsHeld& held) {
  Mat3 axes = Mat3::Identity();
  if (held.way.norm() < 1e-9) return axes;
  const Vec3 way = held.way.normalized();
  // What is seen beside it: the drawing's own right (of a lathe its up), made square to the way.
  Vec3 beside = held.lathe ? Vec3::UnitZ() : Vec3::UnitX();
  if (std::abs(beside.dot(way)) > 0.9) beside = Vec3::UnitY();
  beside = (beside - beside.dot(way) * way).normalized();
  if (held.lathe) {
    axes.row(0) = way;
    axes.row(2) = beside;
    axes.row(1) = beside.cross(way);
  } else {
    axes.row(0) = beside;
    axes.row(2) = way;
    axes.row(1) = way.cross(beside);
  }
  return axes;
}

ThreeViews lay_out_held(const Box& box, const AsHeld& held, const PixelRect& area, bool third_angle,
                        double margin, double gap) {
  const Mat3 turn = machine_axes(held);
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
