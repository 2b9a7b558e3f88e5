#include "app/batch/run_view.h"

#include "app/marks/empty_view.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using sheets::fit_figure;

RunView::RunView(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(theme().ipx(150));
  setAccessibleName("Sizes, piece by piece");
}

void RunView::show_picture(RunPicture picture, Unit unit) {
  picture_ = std::move(picture);
  unit_ = unit;
  const auto out =
      std::count_if(picture_.points.begin(), picture_.points.end(), [](const auto& p) { return p.out; });
  setAccessibleDescription(filled("%1: %2 of %3 pieces read, %4 out of limits", picture_.title,
                                  picture_.points.size(), picture_.pieces, out));
  update();
}

void RunView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const auto& blue = t.blue;
  const auto& run = picture_;
  p.fillRect(rect(), blue.ground);
  if (run.points.empty()) {
    paint_empty(p, rect(),
                {"Sizes, piece by piece", "What is read stands here between its limits, in the order of the "
                                          "pieces: a tool that wears shows as a slope."});
    return;
  }
  double low = run.points[0].value, high = low;
  const auto span = [&](std::optional<double> v) {
    if (!v) return;
    low = std::min(low, *v);
    high = std::max(high, *v);
  };
  for (const auto& point : run.points) span(point.value);
  for (const auto& v : {run.lower, run.upper, run.wanted}) span(v);
  const double air = std::max(0.0005, 0.12 * (high - low));
  low -= air;
  high += air;
  const double top = t.px(34), bottom = height() - t.px(26), left = t.px(74), right = width() - t.px(16);
  if (bottom - top < t.px(30)) return;
  const auto y = [&](double mm) { return bottom - (mm - low) / (high - low) * (bottom - top); };
  const auto x = [&](int number) { return left + (number - 0.5) / std::max(1, run.pieces) * (right - left); };
  p.setFont(t.text(true));
  p.setPen(blue.line);
  p.drawText(QRectF(t.px(14), t.px(6), width() * 0.7, t.px(22)), Qt::AlignLeft | Qt::AlignVCenter, run.title);
  p.setFont(t.small());
  p.setPen(blue.label);
  p.drawText(QRectF(width() * 0.5, t.px(6), width() * 0.5 - t.px(14), t.px(22)),
             Qt::AlignRight | Qt::AlignVCenter, sheets::qt(unit_name(unit_)));
  for (const auto& group : run.groups) { // what one setting serves
    auto band = blue.plate;
    const double up = y(group.most), down = std::max(y(group.least), up + 2);
    p.fillRect(QRectF(left, up - 2, right - left, down - up + 4), band);
  }
  const auto level = [&](std::optional<double> v, Qt::PenStyle style, const QColor& colour) {
    if (!v) return;
    p.setPen(QPen(colour, 1.3, style));
    p.drawLine(QPointF(left, y(*v)), QPointF(right, y(*v)));
    p.setPen(blue.label);
    p.drawText(QRectF(0, y(*v) - t.px(9), left - t.px(8), t.px(18)), Qt::AlignRight | Qt::AlignVCenter,
               fit_figure(*v, unit_));
  };
  level(run.lower, Qt::SolidLine, blue.dim);
  level(run.upper, Qt::SolidLine, blue.dim);
  level(run.wanted, Qt::DashLine, blue.brass);
  if (!run.lower && !run.upper && !run.wanted)
    for (const double v : {low + air, high - air}) level(v, Qt::DotLine, blue.dim);
  p.setPen(QPen(blue.dim, 1));
  for (std::size_t k = 1; k < run.points.size(); ++k)
    p.drawLine(QPointF(x(run.points[k - 1].number), y(run.points[k - 1].value)),
               QPointF(x(run.points[k].number), y(run.points[k].value)));
  const double arm = t.px(4);
  for (const auto& point : run.points) { // scribed crosses; what is out in brass, larger
    p.setPen(QPen(point.out ? blue.brass : blue.line, point.out ? 2.2 : 1.6));
    const QPointF at(x(point.number), y(point.value));
    const double a = point.out ? 1.6 * arm : arm;
    p.drawLine(at - QPointF(a, 0), at + QPointF(a, 0));
    p.drawLine(at - QPointF(0, a), at + QPointF(0, a));
  }
  p.setPen(blue.label);
  int step = 1;
  while (run.pieces / step > 14) step = step == 1 ? 5 : step * 2;
  for (int n = 1; n <= run.pieces; n += n == 1 && step > 1 ? step - 1 : step)
    p.drawText(QRectF(x(n) - t.px(20), bottom + t.px(5), t.px(40), t.px(16)), Qt::AlignHCenter,
               QString::number(n));
}

} // namespace datrin::app
