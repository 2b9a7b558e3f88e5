#pragma once
// Where the three views of a part lie on a picture, first or third angle, one scale for all.
//
// Frame of the drawing: x to the right and z up in the front view, which is seen from −y. First angle: the
// plan lies below the front view and the end view, seen from −x, to its right. Third angle: the plan lies
// above, the end view to the right is seen from +x.

#include "sheets/scene.h"

#include <array>

namespace datrin::sheets {

enum class View { front, plan, end };
inline constexpr std::array<View, 3> all_views{View::front, View::plan, View::end};
inline constexpr std::array<const char*, 3> view_names{"Front", "Plan", "End"};

ViewAxes view_axes(View view, bool third_angle);

/// Maps a view's paper (mm, up positive) to pixels (down positive).
struct ViewFrame {
  Vec2 middle_mm = Vec2::Zero();
  Vec2 middle_px = Vec2::Zero();
  double scale = 1; ///< pixels a mm

  Vec2 to_px(const Vec2& mm) const {
    return {middle_px.x() + (mm.x() - middle_mm.x()) * scale,
            middle_px.y() - (mm.y() - middle_mm.y()) * scale};
  }
  Vec2 to_mm(const Vec2& px) const {
    return {middle_mm.x() + (px.x() - middle_px.x()) / scale,
            middle_mm.y() - (px.y() - middle_px.y()) / scale};
  }
};

struct PixelRect {
  double left = 0, top = 0, width = 0, height = 0;
  bool contains(const Vec2& p) const {
    return p.x() >= left && p.x() < left + width && p.y() >= top && p.y() < top + height;
  }
};

struct ThreeViews {
  std::array<ViewAxes, 3> axes; ///< by View
  std::array<ViewFrame, 3> frame;
  std::array<PixelRect, 3>
      cell; ///< the ground each view may use, for labels and for telling where the mouse is
};

/// Lays the views of a part that fills `box` into `area`, leaving `margin` pixels around and `gap` between.
ThreeViews lay_out(const Box& box, const PixelRect& area, bool third_angle, double margin, double gap);

} // namespace datrin::sheets
