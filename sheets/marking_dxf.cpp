#include "sheets/marking_dxf.h"

#include "sheets/dxf_file.h"

#include <fmt/format.h>

namespace datrin::sheets {

std::string marking_dxf(const MarkingPicture& picture) {
  DxfFile dxf({"PLATE", "PART", "LINES", "JACKS"});
  const Vec3 eye = std::abs(picture.up.y()) < 0.9 ? Vec3(-Vec3::UnitY()) : Vec3(Vec3::UnitX());
  const auto view = elevation(picture.up, eye);
  const auto scene = make_scene(picture.part, view);
  const Vec2 zero(0, picture.marking.height_zero);
  for (const auto& path : scene.paths) {
    if (path.role != Role::finished && path.role != Role::cast && path.role != Role::rough) continue;
    for (auto loop : path.loops) {
      for (auto& at : loop) at += zero;
      dxf.path("PART", loop, path.closed);
    }
  }
  const double left = scene.low.x() - 15, right = scene.high.x() + 15;
  dxf.line("PLATE", {left, 0}, {right, 0});
  for (const auto& mark : picture.marking.lines) {
    dxf.line("LINES", {left, mark.height}, {right, mark.height});
    dxf.text("LINES", {right + 1, mark.height}, 2.5, fmt::format("{:.2f}", mark.height));
  }
  for (const auto& jack : picture.marking.jacks)
    dxf.point("JACKS", {view.on_paper(jack.at).x(), jack.height});
  return dxf.finish();
}

} // namespace datrin::sheets
