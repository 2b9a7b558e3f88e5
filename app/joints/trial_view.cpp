#include "app/joints/trial_view.h"

#include "app/theme.h"
#include "sheets/figures.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace datrin::app {

using sheets::fine_figure;
using sheets::qt;

TrialView::TrialView(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(120);
  setAccessibleName("Hole and shaft along their depth");
}

void TrialView::show_picture(const TrialPicture& picture) {
  picture_ = picture;
  setAccessibleDescription(qt(picture.result.words));
  update();
}

void TrialView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  p.setFont(t.text(true));
  p.setPen(t.ink);
  p.drawText(QRectF(4, 2, width() * 0.6, t.px(20)), Qt::AlignLeft | Qt::AlignVCenter,
             "Sizes along the depth");
  const auto& in = picture_.input;
  p.setFont(t.small());
  p.setPen(t.muted);
  if (!picture_.result.usable() || in.hole.empty() || in.shaft.empty()) {
    p.drawText(rect().adjusted(4, t.ipx(30), -4, 0), Qt::AlignLeft | Qt::TextWordWrap,
               "Once both were read, and tried in each other, it is drawn here where they touch. Several "
               "readings of "
               "one bore, at its mouth, middle and end, are entered under Pairs.");
    return;
  }
  const auto hole = fits::along(in.hole, true), shaft = fits::along(in.shaft, false);
  const auto& r = picture_.result;
  const double length = r.length, reach = r.length > 0 ? r.reach : 0;
  const double span = length > 0 ? length : 1; // of sizes without any depth
  const auto [hole_low, hole_high] = std::minmax_element(hole.size.begin(), hole.size.end());
  const auto [shaft_low, shaft_high] = std::minmax_element(shaft.size.begin(), shaft.size.end());
  double low = std::min(*hole_low, *shaft_low), high = std::max(*hole_high, *shaft_high);
  constexpr double least_height = 0.004; // mm: a difference of a micrometre is not drawn as a step
  const double air = std::max(least_height, 0.2 * (high - low));
  low -= air;
  high += air;
  const double out = span - reach; // of the shaft: before the mouth
  const double left = t.px(96), right = width() - t.px(96), top = t.px(30), base = height() - t.px(44);
  if (base - top < t.px(20)) return;
  const auto x_of = [&](double depth) { return left + (depth + out) / (span + out) * (right - left); };
  const auto y_of = [&](double size) { return base - (size - low) / (high - low) * (base - top); };
  const auto line = [&](const fits::Along& of, double from, double to, auto depth_of) {
    QPainterPath path;
    constexpr int steps = 160;
    for (int k = 0; k <= steps; ++k) {
      const double x = from + (to - from) * k / steps;
      const QPointF point(x_of(x), y_of(of.at(depth_of(x))));
      k == 0 ? path.moveTo(point) : path.lineTo(point);
    }
    return path;
  };
  if (r.off > 0) { // the stretch that metal comes off
    const double from = in.cut_hole ? r.from : reach - r.to, to = in.cut_hole ? r.to : reach - r.from;
    const QRectF stretch(QPointF(x_of(from), top), QPointF(x_of(to), base));
    p.fillRect(stretch, t.track);
    p.setPen(t.brass);
    p.drawText(stretch.adjusted(-t.px(120), t.px(2), t.px(120), 0), Qt::AlignHCenter | Qt::AlignTop,
               QString("%1 %2 off").arg(fine_figure(r.off, in.unit), sheets::fine_unit(in.unit)));
  }
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(t.ink, 2));
  p.drawPath(line(hole, 0, span, [](double x) { return x; }));
  p.setPen(QPen(t.brass, 2));
  p.drawPath(line(shaft, -out, reach, [reach](double x) { return reach - x; }));
  p.setPen(QPen(t.muted, 1.2, Qt::DashLine));
  p.drawLine(QPointF(x_of(0), top), QPointF(x_of(0), base));
  p.setPen(QPen(t.brass, 1.2, Qt::DashLine));
  p.drawLine(QPointF(x_of(reach), y_of(shaft.at(0))), QPointF(x_of(reach), base));
  p.setPen(Qt::NoPen);
  const auto dots = [&](const fits::Along& of, const QColor& colour, auto x) {
    p.setBrush(colour);
    for (std::size_t k = 0; k < of.depth.size(); ++k)
      p.drawEllipse(QPointF(x_of(x(of.depth[k])), y_of(of.size[k])), t.px(3), t.px(3));
  };
  dots(hole, t.ink, [](double depth) { return depth; });
  dots(shaft, t.brass, [reach](double depth) { return reach - depth; });
  p.setPen(QPen(t.muted, 1));
  p.drawLine(QPointF(left, base), QPointF(right, base));
  const auto label = [&](double y, Qt::Alignment side, const QString& words, const QColor& colour) {
    p.setPen(colour);
    const double x = side == Qt::AlignRight ? 0 : right + t.px(6);
    p.drawText(QRectF(x, y - t.px(9), left - t.px(6), t.px(18)), side | Qt::AlignVCenter, words);
  };
  label(y_of(shaft.at(span)), Qt::AlignRight, "shaft " + sheets::fit_figure(shaft.at(span), in.unit),
        t.brass);
  label(y_of(hole.at(span)), Qt::AlignLeft, "hole " + sheets::fit_figure(hole.at(span), in.unit), t.ink);
  p.setPen(t.muted);
  const auto depth = [&](double mm, double y) {
    p.drawText(QRectF(x_of(mm) - t.px(60), y, t.px(120), t.px(16)), Qt::AlignHCenter,
               qt(length_text(mm, in.unit, {.decimals_mm = 1, .decimals_inch = 2, .show_unit = true})));
  };
  p.drawText(QRectF(x_of(0) - t.px(60), base + t.px(3), t.px(120), t.px(16)), Qt::AlignHCenter, "mouth");
  if (length > 0) depth(span, base + t.px(3));
  if (reach > 0 && reach < span) depth(reach, base + t.px(20));
}

} // namespace datrin::app
