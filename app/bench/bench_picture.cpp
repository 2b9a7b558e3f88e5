#include "app/bench/bench_picture.h"

#include "app/theme.h"
#include "sheets/as_held.h"
#include "sheets/fonts.h"
#include "sheets/scene_paint.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace datrin::app {

BenchPicture::BenchPicture(QWidget* parent) : QWidget(parent) {
  setAccessibleName("The part as it lies in the machine");
}

void BenchPicture::show_step(Shown shown) {
  shown_ = std::move(shown);
  setAccessibleDescription(shown_.datum.isEmpty() ? QString()
                                                  : QString("%1 is 0 at %2").arg(shown_.axis, shown_.datum));
  update();
}

void BenchPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& ink = theme().blue;
  p.setPen(Qt::NoPen);
  p.setBrush(ink.plate);
  p.drawRoundedRect(rect(), 4, 4);
  if (shown_.part.empty()) return;
  const sheets::PixelRect area{0, 0, double(width()), double(height())};
  const auto views = sheets::lay_out_held(sheets::bounds(shown_.part), shown_.held, area, shown_.third_angle,
                                          theme().picture_px(48), theme().picture_px(44));
  sheets::SceneStyle style;
  style.ink = ink;
  style.ink.plate = ink.ground;
  style.pen = 1.4;
  style.show_touches = false;
  style.lit_surfaces = shown_.lit;
  for (const auto view : sheets::all_views) {
    const auto v = static_cast<std::size_t>(view);
    sheets::paint_scene(p, sheets::make_scene(shown_.part, views.axes[v]), views.frame[v], style);
    p.setPen(ink.label);
    p.setFont(sheets::font(std::min(theme().px(11.5), 15.0))); // beside the drawing, whatever the text
    p.drawText(QPointF(views.cell[v].left + 12, views.cell[v].top + theme().px(20)),
               sheets::held_view_name(view, shown_.held));
    if (!shown_.at) continue;
    const auto place = [&](const Vec3& at) {
      return sheets::point(views.frame[v].to_px(views.axes[v].on_paper(at)));
    };
    const QPointF to = place(*shown_.at);
    p.setPen(QPen(ink.brass, 2.5));
    p.setBrush(Qt::NoBrush);
    const double r = theme().picture_px(7);
    p.drawEllipse(to, r, r);
    if (!shown_.from || shown_.axis.isEmpty()) continue;
    // Along the axis of the machine, as far as it is seen in this view.
    const Mat3 turn = route::machine_axes(shown_.held);
    const int k = shown_.axis == "X" ? 0 : shown_.axis == "Y" ? 1 : 2;
    const Vec3 along = turn.row(k).transpose();
    const Vec3 corner = *shown_.at - along * along.dot(*shown_.at - *shown_.from);
    const QPointF from = place(corner);
    if (std::hypot(to.x() - from.x(), to.y() - from.y()) < 8) continue; // seen end on
    p.drawLine(from, to);
    const double angle = std::atan2(to.y() - from.y(), to.x() - from.x());
    for (const double side : {-0.4, 0.4})
      p.drawLine(to, to - 14 * QPointF(std::cos(angle + side), std::sin(angle + side)));
    p.drawEllipse(from, 4, 4);
    p.setFont(theme().text(true));
    p.drawText(from + QPointF(8, -8), shown_.axis + "0");
  }
}

} // namespace datrin::app
