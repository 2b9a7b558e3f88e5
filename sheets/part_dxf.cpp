#include "sheets/part_dxf.h"

#include "sheets/dxf_file.h"
#include "sheets/three_views.h"

namespace datrin::sheets {

std::string views_dxf(const SceneInput& part, bool third_angle) {
  if (!part.solid) return {};
  DxfFile dxf({"VISIBLE", "SMOOTH", "HIDDEN", "CENTRE"});
  constexpr double between = 20; // mm
  const Vec3 size = part.solid->solid.box.size(),
             middle = (part.solid->solid.box.low + part.solid->solid.box.high) / 2;
  for (const auto view : all_views) {
    const auto axes = view_axes(view, third_angle);
    Vec2 to = Vec2::Zero(); // the front view's middle stands at the origin
    const double sign = third_angle ? 1 : -1;
    if (view == View::plan) to = {0, sign * (size.z() / 2 + between + size.y() / 2)};
    if (view == View::end) to = {size.x() / 2 + between + size.y() / 2, 0};
    const Vec2 shift = to - axes.on_paper(middle);
    for (const auto& path : make_scene(part, axes).paths) {
      const char* layer = path.role == Role::finished || path.role == Role::cast ? "VISIBLE"
                          : path.role == Role::smooth                            ? "SMOOTH"
                          : path.role == Role::hidden                            ? "HIDDEN"
                          : path.role == Role::centre                            ? "CENTRE"
                                                                                 : nullptr;
      if (!layer) continue;
      for (auto loop : path.loops) {
        for (auto& at : loop) at += shift;
        dxf.path(layer, loop, path.closed);
      }
    }
  }
  return dxf.finish();
}

std::string outline_dxf(const solid::FlatOutline& outline) {
  if (!outline.message.empty()) return {};
  DxfFile dxf({"OUTLINE"});
  for (const auto& curve : outline.curves) switch (curve.kind) {
    case solid::FlatCurve::Kind::path:
      dxf.path("OUTLINE", curve.at);
      break;
    case solid::FlatCurve::Kind::circle:
      dxf.circle("OUTLINE", curve.centre, curve.radius);
      break;
    case solid::FlatCurve::Kind::arc:
      dxf.arc("OUTLINE", curve.centre, curve.radius, curve.from, curve.to);
      break;
    }
  return dxf.finish();
}

} // namespace datrin::sheets
