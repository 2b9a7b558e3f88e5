#include "sheets/three_views.h"

#include <algorithm>

namespace datrin::sheets {

ViewAxes view_axes(View view, bool third_angle) {
  const Vec3 x = Vec3::UnitX(), y = Vec3::UnitY(), z = Vec3::UnitZ();
  switch (view) {
  case View::front:
    return {x, z, -y};
  case View::plan:
    return {x, y, z};
  case View::end:
    return third_angle ? ViewAxes{y, z, x} : ViewAxes{-y, z, -x};
  }
  return {x, z, -y};
}

ThreeViews lay_out(const Box& box, const PixelRect& area, bool third_angle, double margin, double gap) {
  ThreeViews views;
  const Vec3 size = (box.high - box.low).cwiseMax(1.0), middle = (box.low + box.high) / 2;
  const double wide = area.width - 2 * margin - gap, high = area.height - 2 * margin - gap;
  const double scale = std::max(0.01, std::min(wide / (size.x() + size.y()), high / (size.z() + size.y())));
  const double x = size.x() * scale, y = size.y() * scale, z = size.z() * scale;
  // What is left over goes evenly around and between.
  const double spare_x = std::max(0.0, wide - x - y) / 3, spare_y = std::max(0.0, high - z - y) / 3;
  const double left = area.left + margin + spare_x;
  const double end_left = left + x + gap + spare_x;
  const double top = area.top + margin + spare_y;
  const double first_height = third_angle ? y : z;
  const double second_top = top + first_height + gap + spare_y;
  const double front_top = third_angle ? second_top : top;
  const double plan_top = third_angle ? top : second_top;
  const double across = (left + x + end_left) / 2, down = (top + first_height + second_top) / 2;
  const double bottom = area.top + area.height, right = area.left + area.width;

  const auto set = [&](View view, double mx, double my, const PixelRect& cell) {
    const auto k = static_cast<std::size_t>(view);
    views.axes[k] = view_axes(view, third_angle);
    views.frame[k] = {views.axes[k].on_paper(middle), {mx, my}, scale};
    views.cell[k] = cell;
  };
  const PixelRect upper_left{area.left, area.top, across - area.left, down - area.top};
  const PixelRect lower_left{area.left, down, across - area.left, bottom - down};
  const PixelRect beside = third_angle ? PixelRect{across, down, right - across, bottom - down}
                                       : PixelRect{across, area.top, right - across, down - area.top};
  set(View::front, left + x / 2, front_top + z / 2, third_angle ? lower_left : upper_left);
  set(View::plan, left + x / 2, plan_top + y / 2, third_angle ? upper_left : lower_left);
  set(View::end, end_left + y / 2, front_top + z / 2, beside);
  return views;
}

} // namespace datrin::sheets
