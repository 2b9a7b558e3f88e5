#include "sheets/pattern_sheet.h"

#include "sheets/figures.h"
#include "sheets/fonts.h"
#include "sheets/page_file.h"
#include "sheets/scene_paint.h"
#include "sheets/three_views.h"

#include <algorithm>

namespace datrin::sheets {

void paint_pattern(QPainter& p, const PatternSheet& in) {
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(Qt::black);
  page_words(p, page_left, 190, 78, true, in.part + ", pattern", false, 1300);
  page_words(p, page_right, 190, 40, false, in.build, true, 600);
  page_words(p, page_left, 260, 40, false, QString("%1; %2").arg(in.metal, in.process));
  page_words(
      p, page_left, 316, 36, false,
      QString("Sizes hold %1 % for shrinkage, and the machining allowance; draft of %2\u00B0 is to be added.")
          .arg(qt(number_text(100 * (in.pattern.scale - 1), 2)), qt(number_text(degrees(in.draft), 1))));

  SceneInput scene;
  for (const auto& s : in.pattern.surfaces) {
    if (s.solid) continue; // left out of the pattern
    scene.surfaces.push_back(
        {s.shape.name, s.shape.shape(), s.shape.width, s.shape.height, s.shape.machined});
  }
  scene = with_extents(std::move(scene));
  const PixelRect area{page_left, 360, page_right - page_left, 1180};
  const auto views = lay_out(bounds(scene), area, in.third_angle, 40, 70);
  SceneStyle style;
  style.ink = paper_print();
  style.pen = 3;
  style.show_touches = false;
  for (const auto view : all_views) {
    const auto v = static_cast<std::size_t>(view);
    paint_scene(p, make_scene(scene, views.axes[v]), views.frame[v], style);
    p.setPen(Qt::black);
    page_words(p, views.cell[v].left + 10, views.cell[v].top + 40, 34, false, view_names[v]);
  }

  double y = 1600;
  page_rule(p, y);
  p.setPen(Qt::black);
  page_words(p, page_left, y + 50, 38, true, "Surface");
  page_words(p, 1010, y + 50, 38, true, qt(unit_name(in.unit)), true);
  page_words(p, 1260, y + 50, 38, true, qt(unit_name(other(in.unit))), true);
  page_words(p, 1310, y + 50, 38, true, "Draft adds; core");
  y += 70;
  const double step =
      std::min(64.0, (2820 - y) / std::max<double>(1, static_cast<double>(in.pattern.surfaces.size())));
  for (const auto& s : in.pattern.surfaces) {
    y += step;
    const double size = std::min(44.0, 0.72 * step);
    const bool round = s.shape.round();
    page_words(p, page_left, y, size, false,
               QString("%1%2").arg(round ? "\u2300 " : "", name_words(s.shape.name)), false, 560);
    if (s.size > 0) {
      page_words(p, 1010, y, size, true, figure(s.size, in.unit), true);
      page_words(p, 1260, y, size, false, figure(s.size, other(in.unit)), true);
    } else {
      page_words(p, 1010, y, size, false, "\u2013", true);
    }
    QString note = qt(s.note);
    if (s.draft_adds > 0)
      note = QString("%1 a side%2%3")
                 .arg(figure_with_unit(s.draft_adds, in.unit), note.isEmpty() ? "" : "; ", note);
    if (s.shape.machined && note.isEmpty()) note = "to be machined";
    page_words(p, 1310, y, size, false, note, false, page_right - 1310);
  }
  page_rule(p, 2850);
  p.setPen(Qt::black);
  page_words(p, page_left, 2900, 34, false,
             "Faces: size to the face opposite. Round all inside corners. Molten metal: follow the foundry's "
             "rules.");
  p.restore();
}

QString write_pattern_pdf(const QString& path, const PatternSheet& input) {
  return write_page_pdf(path, input.part + ", pattern",
                        [&](QPainter& painter) { paint_pattern(painter, input); });
}

} // namespace datrin::sheets
