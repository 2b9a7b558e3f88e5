#include "app/joints/clearance_view.h"

#include "app/theme.h"
#include "sheets/figures.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using sheets::fine_figure;

ClearanceView::ClearanceView(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(120);
  setAccessibleName("Clearance that results");
}

void ClearanceView::show_picture(const ClearancePicture& picture, Unit unit) {
  picture_ = picture;
  unit_ = unit;
  setAccessibleDescription(picture.lines.join(". "));
  update();
}

void ClearanceView::paintEvent(QPaintEvent*) {
  if (!picture_.known) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const auto& c = picture_;
  const auto text = [&](double mm) {
    return c.fine ? fine_figure(mm, unit_) : sheets::fit_figure(mm, unit_);
  };
  p.setFont(t.text(true));
  p.setPen(t.ink);
  p.drawText(QRectF(4, 2, width() * 0.6, t.px(20)), Qt::AlignLeft | Qt::AlignVCenter, c.title);
  p.setFont(t.small());
  p.setPen(t.muted);
  p.drawText(QRectF(width() * 0.5, 2, width() * 0.5 - 4, t.px(20)), Qt::AlignRight | Qt::AlignVCenter,
             QString("wanted %1 to %2 %3")
                 .arg(text(c.least), text(c.most),
                      c.fine ? sheets::fine_unit(unit_) : sheets::qt(unit_name(unit_))));
  const double lines = static_cast<double>(c.lines.size()) * t.px(18);
  const double top = t.px(30), base = height() - lines - t.px(26), left = t.px(44),
               right = width() - t.px(30);
  if (base - top < t.px(20)) return;
  const double sigma = std::max(c.sigma, 1e-5);
  double low = std::min({c.least, c.expected - 4 * sigma, c.expected + c.hot_by - 4 * sigma});
  double high = std::max({c.most, c.expected + 4 * sigma, c.expected + c.hot_by + 4 * sigma});
  if (c.worst_low < c.worst_high) {
    low = std::min(low, c.worst_low);
    high = std::max(high, c.worst_high);
  }
  const double air = 0.06 * (high - low);
  low -= air;
  high += air;
  const auto at = [&](double mm) { return left + (mm - low) / (high - low) * (right - left); };
  p.fillRect(QRectF(at(c.least), top, at(c.most) - at(c.least), base - top), t.track);
  p.setPen(QPen(t.brass, 1.4, Qt::DashLine));
  for (const double limit : {c.least, c.most}) p.drawLine(QPointF(at(limit), top), QPointF(at(limit), base));
  const auto bell = [&](double middle, Qt::PenStyle style) {
    QPainterPath path;
    for (int k = 0; k <= 160; ++k) {
      const double z = -4 + 8.0 * k / 160;
      const QPointF point(at(middle + z * sigma), base - (base - top) * 0.9 * std::exp(-z * z / 2));
      if (k == 0)
        path.moveTo(point);
      else
        path.lineTo(point);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, style == Qt::SolidLine ? 2 : 1.4, style));
    p.drawPath(path);
  };
  if (!c.histogram.empty()) {
    const double most = *std::max_element(c.histogram.begin(), c.histogram.end());
    p.setPen(Qt::NoPen);
    for (std::size_t b = 0; b < c.histogram.size(); ++b) {
      const double from = c.histogram_low + c.histogram_width * static_cast<double>(b);
      const double high_px = (base - top) * 0.9 * c.histogram[b] / std::max(1.0, most);
      const double middle = from + c.histogram_width / 2;
      p.setBrush(middle < c.least || middle > c.most ? t.gone : t.ink);
      p.drawRect(QRectF(at(from), base - high_px, std::max(1.0, at(from + c.histogram_width) - at(from) - 1),
                        high_px));
    }
  } else {
    bell(c.expected, Qt::SolidLine);
  }
  if (std::abs(c.hot_by) > 1e-5) bell(c.expected + c.hot_by, Qt::DashLine);
  if (c.worst_low < c.worst_high) { // the worst case as a bracket above the curve
    p.setPen(QPen(t.muted, 1.2));
    const double y = top + t.px(7);
    p.drawLine(QPointF(at(c.worst_low), y), QPointF(at(c.worst_high), y));
    for (const double end : {c.worst_low, c.worst_high})
      p.drawLine(QPointF(at(end), y - t.px(4)), QPointF(at(end), y + t.px(4)));
  }
  p.setPen(QPen(t.muted, 1));
  p.drawLine(QPointF(left, base), QPointF(right, base));
  const double fine = unit_ == Unit::mm ? 0.001 : mm_per_thou / 10;
  double step = fine;
  for (const double s :
       {1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0, 1000.0, 2000.0, 5000.0, 10000.0}) {
    step = s * fine;
    if (at(step) - at(0) >= t.px(56)) break;
  }
  p.setFont(t.small());
  p.setPen(t.muted);
  for (double v = std::ceil(low / step) * step; v <= high; v += step)
    p.drawText(QRectF(at(v) - t.px(40), base + t.px(3), t.px(80), t.px(16)), Qt::AlignHCenter, text(v));
  for (int k = 0; k < c.lines.size(); ++k)
    p.drawText(QRectF(4, base + t.px(22 + 18 * k), width() - 8, t.px(18)), Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(c.lines[k], Qt::ElideRight, width() - 8));
}

} // namespace datrin::app
