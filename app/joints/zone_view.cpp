#include "app/joints/zone_view.h"

#include "app/marks/empty_view.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

namespace {

constexpr double coldest = -20, hottest = 200; ///< of the temperature rule

/// What stands beside the zones grows less than other text: the figures stand large in the room column.
QFont beside_font(bool bold) {
  const auto& t = theme();
  return sheets::font(t.large() ? t.px(8.6) : t.px(bold ? 13 : 11.5), bold);
}

} // namespace

ZoneView::ZoneView(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(240);
  setAccessibleName("Tolerance zones of the joint");
}

void ZoneView::set_empty_text(const QString& title, const QString& words) {
  title_ = title;
  words_ = words;
  update();
}

void ZoneView::show_picture(const ZonePicture& picture, Unit unit) {
  picture_ = picture;
  unit_ = unit;
  scale();
  if (picture.known)
    setAccessibleDescription(
        QString("%1: clearance %2 %3, wanted %4 to %5")
            .arg(picture.title, fine_figure(picture.hole.value() - picture.shaft.value(), unit),
                 sheets::fine_unit(unit), fine_figure(picture.least, unit), fine_figure(picture.most, unit)));
  update();
}

void ZoneView::scale() {
  low_ = 0;
  high_ = 0;
  for (const auto* side : {&picture_.hole, &picture_.shaft}) {
    if (!side->there) continue;
    for (const double v :
         {side->drawn.lower, side->drawn.upper, side->value() - side->uncertainty,
          side->value() + side->uncertainty, side->value() + side->grows,
          side->make ? *side->make - side->hold : 0.0, side->make ? *side->make + side->hold : 0.0}) {
      low_ = std::min(low_, v);
      high_ = std::max(high_, v);
    }
  }
  const double air = std::max(0.002, 0.14 * (high_ - low_));
  low_ -= air;
  high_ += air;
}

double ZoneView::level_px(double mm) const {
  const auto& t = theme();
  const double top = t.px(66), bottom = height() - t.px(62);
  return bottom - (mm - low_) / std::max(1e-9, high_ - low_) * (bottom - top);
}

double ZoneView::temperature_px(double celsius) const {
  const auto& t = theme();
  const double left = t.px(64), right = width() - t.px(150);
  return left + (celsius - coldest) / (hottest - coldest) * (right - left);
}

void ZoneView::paint_side(QPainter& p, const ZoneSide& side, double left, double width, bool hole) const {
  const auto& t = theme();
  const double top = level_px(side.drawn.upper), bottom = level_px(side.drawn.lower);
  const QRectF zone(left, top, width, std::max(1.0, bottom - top));
  p.setFont(t.large() ? beside_font(false) : t.text());
  p.setPen(t.blue.label);
  const double names = left - t.px(20);
  const double name_width =
      std::min(width + t.px(150), (this->width() - t.px(58)) * (t.large() ? 0.41 : 0.46));
  p.drawText(QRectF(names, t.px(36), name_width, t.px(20)), Qt::AlignLeft | Qt::AlignVCenter,
             p.fontMetrics().elidedText(side.name, Qt::ElideRight, static_cast<int>(name_width)));
  // The zone as drawn: hatched for the hole, whose metal is outside it; dashed once a number stands against
  // it.
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(t.blue.dim, 1, side.make && !hole ? Qt::DashLine : Qt::SolidLine));
  p.drawRect(zone);
  if (hole) {
    p.save();
    p.setClipRect(zone);
    p.setPen(QPen(t.blue.dim, 0.7));
    for (double x = zone.left() - zone.height(); x < zone.right(); x += t.px(9))
      p.drawLine(QPointF(x, zone.bottom()), QPointF(x + zone.height(), zone.top()));
    p.restore();
  }
  p.setFont(t.small());
  p.setPen(t.blue.label);
  const double beside = zone.right() + t.px(10);
  // Labels beside the zone keep out of each other's way.
  std::vector<double> taken;
  const auto label = [&](double level, const QString& words, const QColor& colour, bool bold) {
    double y = level_px(level);
    for (int round = 0; round < 4; ++round)
      for (const double other : taken)
        if (std::abs(y - other) < t.px(16)) y = other + (y >= other ? t.px(16) : -t.px(16));
    taken.push_back(y);
    p.setFont(beside_font(bold));
    p.setPen(colour);
    p.drawText(QRectF(beside, y - t.px(10), this->width() - beside - 4, t.px(20)),
               Qt::AlignLeft | Qt::AlignVCenter, words);
  };
  if (side.make && !side.measured) {
    const double up = level_px(*side.make + std::max(0.0, side.hold)),
                 down = level_px(*side.make - std::max(0.0, side.hold));
    p.fillRect(QRectF(left, up, width, std::max(1.0, down - up)), QColor(70, 116, 170, 170));
    p.setPen(QPen(t.blue.line, 1));
    p.drawRect(QRectF(left, up, width, std::max(1.0, down - up)));
    p.setPen(QPen(t.blue.line, 2.4));
    p.drawLine(QPointF(left - t.px(8), level_px(*side.make)),
               QPointF(left + width + t.px(8), level_px(*side.make)));
    label(*side.make, "make " + fit_figure(picture_.nominal + *side.make, unit_), t.blue.line, true);
    label(*side.make - 1e-6,
          side.hold > 0 ? QString("hold \u00B1%1").arg(fit_figure(side.hold, unit_))
                        : QString("cannot be held"),
          t.blue.label, false);
    if (side.departs != 0)
      label(*side.make - 2e-6,
            QString("%1 %2 %3 the drawing")
                .arg(fine_figure(std::abs(side.departs), unit_), sheets::fine_unit(unit_),
                     side.departs > 0 ? "over" : "under"),
            t.blue.brass, false);
  }
  if (side.measured) {
    const double y = level_px(*side.measured);
    const double u = std::max(0.0, level_px(*side.measured - side.uncertainty) - y);
    p.fillRect(QRectF(left, y - u, width, 2 * u), QColor(233, 200, 119, 46));
    p.setPen(QPen(t.blue.brass, 2.4));
    p.drawLine(QPointF(left - t.px(8), y), QPointF(left + width + t.px(8), y));
    p.setPen(QPen(t.blue.brass, 1.4));
    p.drawLine(QPointF(left + width / 2, y - std::max(u, t.px(5))),
               QPointF(left + width / 2, y + std::max(u, t.px(5))));
    label(*side.measured,
          QString("made %1 \u00B1%2")
              .arg(fine_figure(*side.measured, unit_, true), fine_figure(side.uncertainty, unit_)),
          t.blue.brass, true);
  }
  label((side.drawn.lower + side.drawn.upper) / 2, side.limits, t.blue.label, false);
  if (picture_.temperature_known && std::abs(picture_.temperature - 20) > 0.5) {
    const double y = level_px(side.value() + side.grows);
    p.setPen(QPen(t.blue.brass, 1.2, Qt::DotLine));
    p.drawLine(QPointF(left - t.px(8), y), QPointF(left + width + t.px(8), y));
  }
}

void ZoneView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  p.fillRect(rect(), t.blue.ground);
  if (!picture_.known) {
    paint_empty(p, rect(), {title_, words_});
    return;
  }
  p.setFont(t.text(true));
  p.setPen(t.blue.line);
  const double right_words = t.px(180);
  p.drawText(QRectF(t.px(14), t.px(8), width() - right_words - t.px(28), t.px(22)),
             Qt::AlignLeft | Qt::AlignVCenter,
             p.fontMetrics().elidedText(picture_.title, Qt::ElideRight,
                                        static_cast<int>(width() - right_words - t.px(28))));
  p.setFont(t.small());
  p.setPen(t.blue.label);
  p.drawText(QRectF(width() - right_words - t.px(14), t.px(8), right_words, t.px(22)),
             Qt::AlignRight | Qt::AlignVCenter,
             QString("%1 from %2").arg(sheets::fine_unit(unit_), fit_figure(picture_.nominal, unit_)));
  // The scale: a level every so much, in round figures of the person's unit.
  const double fine = unit_ == Unit::mm ? 0.001 : mm_per_thou / 10;
  double step = fine;
  for (const double s : {1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0, 1000.0, 2000.0, 5000.0}) {
    step = s * fine;
    if (level_px(0) - level_px(step) >= t.px(26)) break;
  }
  const double left = t.px(58);
  for (int k = static_cast<int>(std::ceil(low_ / step)); k * step <= high_; ++k) {
    const double y = level_px(k * step);
    p.setPen(QPen(k == 0 ? t.blue.line : t.blue.dim, k == 0 ? 1.3 : 0.4));
    p.drawLine(QPointF(left, y), QPointF(width() - t.px(14), y));
    p.setPen(t.blue.label);
    p.drawText(QRectF(2, y - t.px(9), left - t.px(10), t.px(18)), Qt::AlignRight | Qt::AlignVCenter,
               k == 0 ? QString("0") : fine_figure(k * step, unit_, true));
  }
  const double column = std::min(t.px(112), (width() - left) * 0.17);
  const double first = left + (width() - left) * 0.07,
               second = left + (width() - left) * (t.large() ? 0.5 : 0.57);
  paint_side(p, picture_.hole, first, column, true);
  if (picture_.shaft.there) {
    paint_side(p, picture_.shaft, second, column, false);
    // The clearance that results, between the two.
    const double hole = picture_.hole.value(), shaft = picture_.shaft.value();
    const double x = second - t.px(t.large() ? 14 : 46), a = level_px(hole), b = level_px(shaft);
    p.setPen(QPen(t.blue.brass, 1.8));
    p.drawLine(QPointF(x, a), QPointF(x, b));
    const double head = std::min(t.px(6), std::abs(a - b) / 2), way = b > a ? 1 : -1;
    for (const auto& [y, sign] : {std::pair{a, way}, {b, -way}}) {
      p.drawLine(QPointF(x, y), QPointF(x - t.px(5), y + sign * head));
      p.drawLine(QPointF(x, y), QPointF(x + t.px(5), y + sign * head));
    }
    p.setFont(t.title());
    p.setPen(t.blue.brass);
    p.drawText(QRectF(x - t.px(70), (a + b) / 2 - t.px(12), t.px(60), t.px(24)),
               Qt::AlignRight | Qt::AlignVCenter, fine_figure(hole - shaft, unit_, hole < shaft));
  }
  // The temperature, on a rule of its own.
  const double base = height() - t.px(34);
  p.setPen(QPen(picture_.temperature_known ? t.blue.label : t.blue.dim, 1));
  p.drawLine(QPointF(temperature_px(coldest), base), QPointF(temperature_px(hottest), base));
  p.setFont(t.small());
  for (int c = static_cast<int>(coldest); c <= static_cast<int>(hottest); c += 20) {
    const bool long_mark = c == 20 || c % 100 == 0;
    p.drawLine(QPointF(temperature_px(c), base), QPointF(temperature_px(c), base - t.px(long_mark ? 9 : 5)));
    if (long_mark && (c != 0 || temperature_px(20) - temperature_px(0) > t.px(24)))
      p.drawText(QRectF(temperature_px(c) - t.px(30), base + t.px(14), t.px(60), t.px(16)), Qt::AlignHCenter,
                 QString::number(c));
  }
  if (picture_.temperature_known) {
    const double x = temperature_px(picture_.temperature);
    p.setPen(hasFocus() ? QPen(t.blue.line, 1.5) : QPen(Qt::NoPen));
    p.setBrush(t.blue.brass);
    p.drawPolygon(QPolygonF({QPointF(x, base + 1), QPointF(x - t.px(7), base + t.px(13)),
                             QPointF(x + t.px(7), base + t.px(13))}));
    p.setPen(t.blue.line);
    p.setFont(t.text());
    const double hot =
        picture_.hole.value() + picture_.hole.grows - picture_.shaft.value() - picture_.shaft.grows;
    const QString words = std::abs(picture_.temperature - 20) < 0.5
                              ? QString("at 20\u202F\u00B0C")
                              : QString("%1 at %2\u202F\u00B0C")
                                    .arg(fine_figure(hot, unit_), qt(number_text(picture_.temperature, 0)));
    p.drawText(QRectF(width() - t.px(140), base - t.px(14), t.px(126), t.px(20)),
               Qt::AlignRight | Qt::AlignVCenter, words);
  }
}

void ZoneView::drag(double x) {
  const double left = temperature_px(coldest), right = temperature_px(hottest);
  const double celsius =
      std::clamp(coldest + (x - left) / (right - left) * (hottest - coldest), coldest, hottest);
  emit temperature_dragged(std::round(celsius));
}

void ZoneView::mousePressEvent(QMouseEvent* event) {
  dragging_ =
      picture_.known && picture_.temperature_known && event->position().y() > height() - theme().px(54);
  if (dragging_) drag(event->position().x());
}

void ZoneView::mouseMoveEvent(QMouseEvent* event) {
  if (dragging_) drag(event->position().x());
}

void ZoneView::mouseReleaseEvent(QMouseEvent*) {
  if (dragging_) emit temperature_let_go(picture_.temperature);
  dragging_ = false;
}

void ZoneView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_F1 && !picture_.why.lines.empty()) {
    show_why(this, picture_.why, unit_);
    return;
  }
  const double by = event->modifiers() & Qt::ShiftModifier ? 20 : 5;
  const double way = event->key() == Qt::Key_Right ? by : event->key() == Qt::Key_Left ? -by : 0;
  if (way == 0 || !picture_.temperature_known) {
    QWidget::keyPressEvent(event);
    return;
  }
  emit temperature_let_go(std::clamp(picture_.temperature + way, coldest, hottest));
}

} // namespace datrin::app
