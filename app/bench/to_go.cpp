#include "app/bench/to_go.h"

#include "app/theme.h"
#include "quantity/length_text.h"
#include "sheets/figures.h"
#include "sheets/fonts.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace datrin::app {

namespace {

double sized(double pixels) {
  return pixels * std::min(theme().text_scale, 1.5);
}

/// Between two long marks of the scale, so that what is to go fills a good part of it: 1, 2 or 5 times a
/// power of ten of the unit.
double long_mark(double to_go, Unit unit) {
  const double wanted = std::max(std::abs(from_mm(to_go, unit)), unit == Unit::mm ? 0.1 : 0.005) / 2;
  const double power = std::pow(10, std::floor(std::log10(wanted)));
  for (const double step : {1.0, 2.0, 5.0})
    if (step * power >= wanted) return step * power;
  return 10 * power;
}

} // namespace

ToGo::ToGo(QWidget* parent) : QWidget(parent) {
  setAccessibleName("To go");
}

QSize ToGo::sizeHint() const {
  return {300, static_cast<int>(sized(116))};
}

bool ToGo::is_there() const {
  return !shown_.old && shown_.target && shown_.now &&
         std::abs(*shown_.target - *shown_.now) <= shown_.within + 1e-9;
}

QString ToGo::text() const {
  if (!shown_.trouble.isEmpty()) return shown_.trouble;
  if (!shown_.now) return "no reading yet";
  const auto figure = [&](double mm) {
    return sheets::qt(length_text(mm, shown_.unit, {.decimals_mm = 3, .decimals_inch = 4}));
  };
  if (shown_.old)
    return QString("old: %1 read %2; it has sent nothing since")
        .arg(shown_.axis, figure(*shown_.now))
        .trimmed();
  if (!shown_.target) return QString("%1 reads %2").arg(shown_.axis, figure(*shown_.now));
  return is_there() ? QString("\u2713 there: %1").arg(figure(*shown_.now))
                    : QString("to go %1").arg(figure(*shown_.target - *shown_.now));
}

void ToGo::show_way(Shown shown) {
  shown_ = std::move(shown);
  setAccessibleDescription(text());
  update();
}

void ToGo::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& ink = theme().blue;
  const bool plain = !shown_.trouble.isEmpty() || !shown_.now || shown_.old;
  p.setFont(sheets::font(sized(plain ? 15 : 40), !plain));
  p.setPen(shown_.old ? ink.brass : plain ? ink.label : is_there() ? theme().reached : ink.brass);
  const QRectF words(0, 0, width(), sized(plain ? 60 : 52));
  p.drawText(words, Qt::AlignLeft | Qt::AlignVCenter | (plain ? Qt::TextWordWrap : 0), text());
  if (plain || !shown_.target) return;
  paint_scale(p, QRectF(1, sized(58), width() - 2, sized(24)));
}

/// The target in the middle of the right half, the metal to its left.
void ToGo::paint_scale(QPainter& p, const QRectF& area) {
  const auto& ink = theme().blue;
  const double mark = long_mark(*shown_.target - *shown_.now, shown_.unit);
  const double unit_px = area.width() / (6 * mark); // six long marks
  const double middle = area.left() + area.width() / 2;
  p.setPen(QPen(ink.label, 1.4));
  p.drawLine(QPointF(area.left(), area.bottom()), QPointF(area.right(), area.bottom()));
  for (int k = -30; k <= 30; ++k) {
    const double x = middle + k * mark / 10 * unit_px;
    if (x < area.left() - 0.5 || x > area.right() + 0.5) continue;
    const double high = k % 10 == 0 ? 22 : k % 5 == 0 ? 14 : 8;
    p.drawLine(QPointF(x, area.bottom()), QPointF(x, area.bottom() - sized(high)));
  }
  const auto pointer = [&](double at, const QColor& colour, bool hollow) {
    const double x = std::clamp(at, area.left() + 6, area.right() - 6), y = area.bottom() + sized(4);
    const double wide = sized(10), high = sized(17);
    p.setPen(QPen(colour, 1.6));
    p.setBrush(hollow ? QBrush(Qt::NoBrush) : QBrush(colour));
    p.drawPolygon(QPolygonF{{x, y}, {x - wide, y + high}, {x + wide, y + high}});
  };
  const double off = from_mm(*shown_.now - *shown_.target, shown_.unit);
  pointer(middle, Qt::white, true);
  pointer(middle + off * unit_px, is_there() ? theme().reached : ink.brass, false);
}

} // namespace datrin::app
