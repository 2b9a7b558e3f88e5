#include "app/bench/crank_picture.h"

#include "app/theme.h"
#include "sheets/fonts.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using build::CrankMove;

namespace {

/// Where the parts stand, pixels: the webs upright beside each other, the pin above.
struct Drawn {
  double web_left, web_right, thick, axis, pin, end_left, end_right, half_shaft;
};

Drawn drawn_in(const QRectF& area) {
  Drawn d;
  const double middle = area.center().x(), unit = std::min(area.width() / 10, area.height() / 8);
  d.thick = unit;
  d.web_left = middle - 1.6 * unit;
  d.web_right = middle + 0.6 * unit;
  d.axis = area.center().y() + 1.2 * unit;
  d.pin = area.center().y() - 1.3 * unit;
  d.end_left = area.left() + 0.4 * unit;
  d.end_right = area.right() - 0.4 * unit;
  d.half_shaft = 0.35 * unit;
  return d;
}

void arrow(QPainter& p, const QPointF& from, const QPointF& to) {
  p.drawLine(from, to);
  const double angle = std::atan2(to.y() - from.y(), to.x() - from.x());
  for (const double side : {-0.45, 0.45})
    p.drawLine(to, to - 12 * QPointF(std::cos(angle + side), std::sin(angle + side)));
}

} // namespace

CrankPicture::CrankPicture(QWidget* parent) : QWidget(parent) {
  setAccessibleName("The crank as it was read");
  setMinimumSize(180, 120);
}

void CrankPicture::show_log(const truing::CrankLog& log) {
  log_ = log;
  setAccessibleDescription(log.any() ? "the shafts out of line, as read" : "not read yet");
  update();
}

void CrankPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& ink = theme().blue;
  p.setPen(Qt::NoPen);
  p.setBrush(ink.ground);
  p.drawRoundedRect(rect(), 4, 4);
  const auto d = drawn_in(QRectF(rect()).adjusted(12, 24, -12, -12));
  p.setFont(sheets::font(theme().px(11.5)));
  p.setPen(ink.label);
  p.drawText(QPointF(12, theme().px(20)),
             log_.any() ? "In the plane of the crank, out of line 100 times"
                        : "Turned on its ends, read beside both webs; 0\u00B0 is the pin");
  // What is read, in the plane: towards the pin is up.
  const double by = d.thick / 0.12; // 0.12 mm as much as a web is thick
  const auto up = [&](double mm) { return std::clamp(-mm * by, -2.2 * d.thick, 2.2 * d.thick); };
  const double left = log_.any() ? up(log_.input.now.left.x()) : 0,
               right = log_.any() ? up(log_.input.now.right.x()) : 0;
  p.setPen(QPen(ink.dim, 1.2, Qt::DashDotLine));
  p.drawLine(QPointF(d.end_left - 10, d.axis), QPointF(d.end_right + 10, d.axis));
  p.setBrush(ink.plate);
  p.setPen(QPen(ink.line, 1.8));
  // Shafts: true at their outer ends, displaced beside the webs.
  const auto shaft = [&](double end, double web, double off) {
    p.drawPolygon(QPolygonF{{end, d.axis - d.half_shaft},
                            {web, d.axis + off - d.half_shaft},
                            {web, d.axis + off + d.half_shaft},
                            {end, d.axis + d.half_shaft}});
  };
  shaft(d.end_left, d.web_left, left);
  shaft(d.end_right, d.web_right + d.thick, right);
  // Webs lean as their shafts do, about the pin.
  const auto web = [&](double x, double lean) {
    const double top = d.pin - 0.7 * d.thick, bottom = d.axis + 0.9 * d.thick;
    p.drawPolygon(QPolygonF{{x - lean * 0.15, top},
                            {x + d.thick - lean * 0.15, top},
                            {x + d.thick + lean, bottom},
                            {x + lean, bottom}});
  };
  const double lean_left = -left * 0.35, lean_right = right * 0.35; // square to their shafts
  web(d.web_left, lean_left);
  web(d.web_right, lean_right);
  p.drawRect(
      QRectF(d.web_left + d.thick, d.pin - 0.3 * d.thick, d.web_right - d.web_left - d.thick, 0.6 * d.thick));
  if (!log_.advice.ok) return;
  p.setPen(QPen(ink.brass, 2.6));
  p.setBrush(Qt::NoBrush);
  const double below = d.axis + 1.6 * d.thick, gap = (d.web_left + d.thick + d.web_right) / 2;
  switch (log_.advice.move) {
  case CrankMove::open: // a wedge between them
    p.drawPolygon(QPolygonF{
        {gap, below - 1.4 * d.thick}, {gap - 0.25 * d.thick, below}, {gap + 0.25 * d.thick, below}});
    arrow(p, {gap, below + 1.1 * d.thick}, {gap, below + 6});
    break;
  case CrankMove::close:
    arrow(p, {d.web_left - 1.6 * d.thick, below - d.thick}, {d.web_left - 4, below - d.thick});
    arrow(p, {d.web_right + 2.6 * d.thick, below - d.thick}, {d.web_right + d.thick + 4, below - d.thick});
    break;
  case CrankMove::twist_right: {
    const QPointF at(d.web_right + d.thick / 2, below + 0.2 * d.thick);
    p.drawEllipse(at, 0.45 * d.thick, 0.45 * d.thick);
    if (log_.input.now.right.y() > log_.input.now.left.y()) { // from before the paper, or from behind it
      p.drawLine(at - QPointF(6, 6), at + QPointF(6, 6));
      p.drawLine(at - QPointF(6, -6), at + QPointF(6, -6));
    } else {
      p.setBrush(ink.brass);
      p.drawEllipse(at, 4, 4);
    }
    break;
  }
  default:
    break;
  }
}

} // namespace datrin::app
