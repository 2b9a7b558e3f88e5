#include "sheets/scene_paint.h"

#include <algorithm>

#include "sheets/fonts.h"

#include <QPainterPath>
#include <QPixmap>

#include <cmath>

namespace datrin::sheets {

Vec2 PaperMotion::apply(const Vec2& at) const {
  const Vec2 e = at - about;
  const double c = std::cos(turn), s = std::sin(turn);
  return about + Vec2(c * e.x() - s * e.y(), s * e.x() + c * e.y()) + move;
}

QPointF point(const Vec2& px) {
  return {px.x(), px.y()};
}

namespace {

QPainterPath path_of(const ScenePath& path, const ViewFrame& frame, const PaperMotion& motion) {
  QPainterPath out;
  out.setFillRule(path.overlap ? Qt::WindingFill : Qt::OddEvenFill);
  for (const auto& loop : path.loops) {
    bool first = true;
    for (const auto& at : loop) {
      const auto px = point(frame.to_px(motion.apply(at)));
      if (first)
        out.moveTo(px);
      else
        out.lineTo(px);
      first = false;
    }
    if (path.closed) out.closeSubpath();
  }
  return out;
}

/// Hatching at 45°, so many pixels apart, clipped to the path.
void hatch(QPainter& painter, const QPainterPath& path, const QColor& colour, double pen, double step) {
  painter.save();
  painter.setClipPath(path, Qt::IntersectClip);
  painter.setPen(QPen(colour, pen));
  const auto box = path.boundingRect();
  const double start = std::floor((box.left() - box.bottom()) / step) * step;
  QVector<QLineF> lines;
  for (double c = start; c < box.right() - box.top() + step; c += step)
    lines.append(
        QLineF(c + box.top() + box.height() * 1.0 + 0.0, box.top() + box.height(), c + box.top(), box.top()));
  painter.drawLines(lines);
  painter.restore();
}

/// The same for the screen: a tile, which fills much faster than lines under a clip.
QBrush hatch_brush(const QColor& colour) {
  constexpr int step = 6;
  QPixmap tile(step, step);
  tile.fill(Qt::transparent);
  QPainter painter(&tile);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(colour, 0.9));
  for (const int shift : {-step, 0, step}) painter.drawLine(QPointF(shift, 0), QPointF(shift + step, step));
  painter.end();
  return QBrush(tile);
}

QPixmap pip_picture(const QColor& colour, double radius, double ratio) {
  const int side = static_cast<int>(std::ceil(2 * radius)) + 2;
  QPixmap picture(QSize(side, side) * ratio);
  picture.setDevicePixelRatio(ratio);
  picture.fill(Qt::transparent);
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(colour);
  painter.drawEllipse(QPointF(side / 2.0, side / 2.0), radius, radius);
  return picture;
}

} // namespace

void paint_scene(QPainter& painter, const Scene& scene, const ViewFrame& frame, const SceneStyle& style,
                 const PaperMotion& motion) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& ink = style.ink;
  for (const auto& path : scene.paths) {
    const auto shape = path_of(path, frame, motion);
    const bool lit = path.surface >= 0 && (path.surface == style.lit_surface ||
                                           std::find(style.lit_surfaces.begin(), style.lit_surfaces.end(),
                                                     path.surface) != style.lit_surfaces.end());
    painter.setBrush(Qt::NoBrush);
    switch (path.role) {
    case Role::plate:
      painter.setRenderHint(QPainter::Antialiasing, !path.overlap); // else the seams between triangles show
      painter.fillPath(shape, ink.plate);
      painter.setRenderHint(QPainter::Antialiasing);
      break;
    case Role::raw: {
      auto colour = ink.dim;
      colour.setAlphaF(ink.print ? 0.9F : 0.75F);
      if (ink.print)
        hatch(painter, shape, colour, 0.8 * style.pen, 6 * style.pen);
      else
        painter.fillPath(shape, hatch_brush(colour));
      break;
    }
    case Role::rough:
      painter.strokePath(shape, QPen(ink.dim, style.pen));
      break;
    case Role::finished:
      painter.strokePath(shape, QPen(lit ? ink.brass : ink.line, (lit ? 2.4 : 1.7) * style.pen));
      break;
    case Role::cast:
      painter.strokePath(shape, QPen(lit ? ink.brass : ink.line, (lit ? 2.2 : 1.0) * style.pen));
      break;
    case Role::smooth:
      painter.strokePath(shape, QPen(ink.dim, 0.7 * style.pen));
      break;
    case Role::hidden: {
      QPen pen(lit ? ink.brass : path.surface < 0 ? ink.dim : ink.line, (lit ? 2.0 : 1.2) * style.pen);
      pen.setDashPattern({5, 3.5});
      painter.strokePath(shape, pen);
      break;
    }
    case Role::centre: {
      QPen pen(ink.dim, style.pen);
      pen.setDashPattern({10, 3, 2, 3});
      painter.strokePath(shape, pen);
      break;
    }
    }
  }
  if (style.show_touches) {
    // Fewer, lighter pips when there are thousands: the eye needs the cloud, not each.
    const double radius = scene.pips.size() > 3000 ? 0.6 * style.pip : style.pip;
    if (scene.pips.size() > 200) { // painted once, then laid down: a thousand ellipses would hold up a drag
      const auto pip = pip_picture(ink.brass, radius, painter.device()->devicePixelRatioF());
      const QPointF half(pip.deviceIndependentSize().width() / 2, pip.deviceIndependentSize().height() / 2);
      for (const auto& at : scene.pips)
        painter.drawPixmap(point(frame.to_px(motion.apply(at.at))) - half, pip);
    } else {
      painter.setPen(Qt::NoPen);
      painter.setBrush(ink.brass);
      for (const auto& pip : scene.pips)
        painter.drawEllipse(point(frame.to_px(motion.apply(pip.at))), radius, radius);
    }
  }
  painter.restore();
}

void paint_ring(QPainter& painter, const Vec2& at, int number, const Ink& ink, double radius) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(ink.print ? ink.line : ink.brass, std::max(1.8, 0.16 * radius)));
  painter.drawEllipse(point(at), radius, radius);
  painter.setFont(font(1.7 * radius, true));
  painter.drawText(QRectF(at.x() + radius + 1, at.y() - 2.4 * radius, 40, 2.4 * radius),
                   Qt::AlignLeft | Qt::AlignVCenter, QString::number(number));
  painter.restore();
}

} // namespace datrin::sheets
