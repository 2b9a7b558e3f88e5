#include "app/bench/bench_picture.h"

#include "app/theme.h"
#include "sheets/fonts.h"
#include "sheets/scene_paint.h"
#include "sheets/solid_picture.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using sheets::View;

namespace {

constexpr double along_it = 0.7; // cosine: nearer to this axis than to another

/// Row of the machine's axes. Of a lathe Z lies along the spindle, to the right, and X away.
std::size_t axis_number(const QString& axis, bool lathe) {
  if (lathe) return axis == "Z" ? 0 : 1;
  return axis == "X" ? 0 : axis == "Y" ? 1 : 2;
}

void paint_arrow(QPainter& p, const QPointF& from, const QPointF& to, double head) {
  p.drawLine(from, to);
  const double angle = std::atan2(to.y() - from.y(), to.x() - from.x());
  for (const double side : {-0.4, 0.4})
    p.drawLine(to, to - head * QPointF(std::cos(angle + side), std::sin(angle + side)));
}

/// One view alone, filling `area`.
void fill_with(sheets::ThreeViews& views, View view, const sheets::Scene& scene,
               const sheets::PixelRect& area, double margin) {
  const auto v = static_cast<std::size_t>(view);
  const Vec2 size = (scene.high - scene.low).cwiseMax(1.0);
  views.frame[v].scale =
      std::max(0.01, std::min((area.width - 2 * margin) / size.x(), (area.height - 2 * margin) / size.y()));
  views.frame[v].middle_mm = (scene.low + scene.high) / 2;
  views.frame[v].middle_px = {area.left + area.width / 2, area.top + area.height / 2};
  views.cell[v] = area;
}

} // namespace

std::optional<View> view_of_step(const route::AsHeld& held, const QString& axis, const Vec3& direction,
                                 bool round) {
  if (held.lathe && !axis.isEmpty()) return View::front;
  if (axis == "X" || axis == "Y") return View::plan;
  if (axis == "Z") return View::front;
  if (direction.norm() < 0.5) return std::nullopt;
  if (held.lathe) return View::front;
  const Vec3 looks = route::machine_axes(held) * direction.normalized();
  const bool up = std::abs(looks.z()) > along_it;
  if (round) return up ? View::plan : View::front;
  return up || std::abs(looks.x()) > along_it ? View::front : View::end;
}

/// One view on the picture.
struct BenchPicture::Placed {
  const sheets::ViewAxes& axes;
  const sheets::ViewFrame& frame;
  const sheets::PixelRect& cell;
  QPointF low, high; ///< of the part: left below, right above
  QPointF at(const Vec3& place) const { return sheets::point(frame.to_px(axes.on_paper(place))); }
};

BenchPicture::BenchPicture(QWidget* parent) : QWidget(parent) {
  setAccessibleName("The part as it lies in the machine");
}

void BenchPicture::show_step(Shown shown) {
  shown_ = std::move(shown);
  setAccessibleDescription(
      shown_.datum.isEmpty() ? QString() : QString("%1 is counted from %2").arg(shown_.axis, shown_.datum));
  update();
}

BenchPicture::Drawn BenchPicture::wanted() const {
  Drawn drawn;
  drawn.of_part = shown_.of_part;
  drawn.as_of = shown_.as_of;
  drawn.solid = shown_.part.solid.get();
  drawn.way = {shown_.held.way.x(), shown_.held.way.y(), shown_.held.way.z()};
  drawn.lathe = shown_.held.lathe;
  drawn.third_angle = shown_.third_angle;
  drawn.view = shown_.view;
  drawn.lit = shown_.lit;
  drawn.with_place = shown_.at.has_value();
  drawn.size = size();
  drawn.pixels = devicePixelRatioF();
  return drawn;
}

void BenchPicture::paintEvent(QPaintEvent*) {
  // A step further the part mostly looks the same: only what is painted over it moves.
  if (const auto now = wanted(); drawn_ != now) {
    drawn_ = now;
    draw_part();
  }
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.drawPixmap(0, 0, picture_);
  if (shown_.part.empty() || !shown_.at || !shown_.view) return;
  const auto v = static_cast<std::size_t>(*shown_.view);
  const Placed placed{views_.axes[v], views_.frame[v], views_.cell[v],
                      sheets::point(views_.frame[v].to_px(low_)),
                      sheets::point(views_.frame[v].to_px(high_))};
  if (shown_.touched.norm() > 0.5)
    paint_touch(p, placed);
  else
    paint_way(p, placed);
}

void BenchPicture::draw_part() {
  picture_ = QPixmap(size() * devicePixelRatioF());
  picture_.setDevicePixelRatio(devicePixelRatioF());
  picture_.fill(Qt::transparent);
  QPainter p(&picture_);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(Qt::NoPen);
  p.setBrush(theme().blue.plate);
  p.drawRoundedRect(rect(), 4, 4);
  if (shown_.part.empty()) return;
  const sheets::PixelRect area{0, 0, double(width()), double(height())};
  views_ = sheets::lay_out_held(sheets::bounds(shown_.part), shown_.held, area, shown_.third_angle,
                                theme().picture_px(48), theme().picture_px(44));
  const auto seen = [&](View view) {
    return sheets::make_scene(shown_.part, views_.axes[static_cast<std::size_t>(view)]);
  };
  if (!shown_.view) {
    for (const auto view : sheets::all_views) draw_view(p, view, seen(view));
    return;
  }
  const auto scene = seen(*shown_.view);
  fill_with(views_, *shown_.view, scene, area,
            shown_.at ? std::min(theme().picture_px(66), area.width / 5) : theme().picture_px(40));
  low_ = scene.low;
  high_ = scene.high;
  draw_view(p, *shown_.view, scene);
}

void BenchPicture::draw_view(QPainter& p, View view, const sheets::Scene& scene) {
  const auto& ink = theme().blue;
  const auto v = static_cast<std::size_t>(view);
  sheets::SceneStyle style;
  style.ink = ink;
  style.ink.plate = ink.ground;
  style.pen = shown_.view ? 1.8 : 1.4;
  style.show_touches = false;
  style.lit_surfaces = shown_.lit;
  sheets::paint_scene(p, scene, views_.frame[v], style);
  p.setPen(ink.label);
  p.setFont(sheets::font(std::min(theme().px(shown_.view ? 13 : 11.5), 18.0))); // beside the drawing
  p.drawText(QPointF(views_.cell[v].left + 12, views_.cell[v].top + theme().px(20)),
             sheets::held_view_name(view, shown_.held));
}

/// The finder against the face, and the way it came.
void BenchPicture::paint_touch(QPainter& p, const Placed& placed) {
  const auto& ink = theme().blue;
  const Vec3 out = shown_.touched.normalized();
  const double radius = std::max(shown_.finder / 2 * placed.frame.scale, 5.0);
  const QPointF face = placed.at(*shown_.at);
  const QPointF outwards = placed.at(*shown_.at + out) - face;
  const double length = std::hypot(outwards.x(), outwards.y());
  if (length < 1e-6) return; // looks at one
  const QPointF away = outwards / length;
  p.setPen(QPen(ink.brass, 2.5));
  p.setBrush(Qt::NoBrush);
  p.drawEllipse(face + radius * away, radius, radius);
  paint_arrow(p, face + (2 * radius + 40) * away, face + (2 * radius + 6) * away, 14);
  p.setFont(sheets::font(std::min(theme().px(17), 24.0), true));
  const auto words = shown_.axis.isEmpty() ? shown_.datum : shown_.axis + ": " + shown_.datum;
  const double wide = p.fontMetrics().horizontalAdvance(words);
  const double x = std::clamp(face.x() - wide / 2, 8.0, std::max(8.0, width() - wide - 8));
  p.drawText(QPointF(x, placed.high.y() - theme().picture_px(22)), words); // above the part
}

/// From the datum to the place, along the axis, beside the part; where it is 0 and what it reads there.
void BenchPicture::paint_way(QPainter& p, const Placed& placed) {
  const auto& ink = theme().blue;
  const QPointF to = placed.at(*shown_.at);
  p.setPen(QPen(ink.brass, 2.5));
  p.setBrush(Qt::NoBrush);
  const double r = theme().picture_px(9);
  p.drawEllipse(to, r, r);
  p.drawLine(to - QPointF(1.8 * r, 0), to + QPointF(1.8 * r, 0));
  p.drawLine(to - QPointF(0, 1.8 * r), to + QPointF(0, 1.8 * r));
  if (!shown_.from || shown_.axis.isEmpty()) return;
  const Mat3 turn = route::machine_axes(shown_.held);
  const Vec3 along =
      turn.row(static_cast<Eigen::Index>(axis_number(shown_.axis, shown_.held.lathe))).transpose();
  const QPointF from = placed.at(*shown_.at - along * along.dot(*shown_.at - *shown_.from));
  if (std::hypot(to.x() - from.x(), to.y() - from.y()) < 3) return; // seen end on, or no way at all
  const bool flat = std::abs(to.x() - from.x()) > std::abs(to.y() - from.y());
  // Above the part, or to its left.
  const double aside =
      flat ? placed.high.y() - theme().picture_px(30) : placed.low.x() - theme().picture_px(30);
  const QPointF start = flat ? QPointF(from.x(), aside) : QPointF(aside, from.y());
  const QPointF end = flat ? QPointF(to.x(), aside) : QPointF(aside, to.y());
  p.setPen(QPen(ink.brass, 1, Qt::DotLine));
  p.drawLine(from, start);
  p.drawLine(to, end);
  p.setPen(QPen(ink.brass, 2.5));
  paint_arrow(p, start, end, 14);
  p.drawEllipse(from, 5, 5);
  p.setFont(sheets::font(std::min(theme().px(17), 24.0), true));
  // Outside the part, away from where it goes.
  const auto metrics = p.fontMetrics();
  const auto zero = shown_.axis + "0";
  const QPointF outside =
      flat ? QPointF(end.x() > start.x() ? -metrics.horizontalAdvance(zero) - 8 : 8, -8)
           : QPointF(-metrics.horizontalAdvance(zero) / 2.0, end.y() < start.y() ? 24 : -12);
  p.drawText(from + outside, zero);
  const double wide = metrics.horizontalAdvance(shown_.figure);
  if (flat) {
    const double x = std::clamp((start.x() + end.x() - wide) / 2, 8.0, std::max(8.0, width() - wide - 8));
    p.drawText(QPointF(x, aside - 10), shown_.figure);
  } else {
    // Read from the right of the sheet, as dimensions are.
    p.save();
    p.translate(aside - 10, (start.y() + end.y()) / 2);
    p.rotate(-90);
    p.drawText(QPointF(-wide / 2, 0), shown_.figure);
    p.restore();
  }
}

} // namespace datrin::app
