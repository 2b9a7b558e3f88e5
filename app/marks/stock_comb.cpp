#include "app/marks/stock_comb.h"

#include "app/theme.h"
#include "casting/explain.h"
#include "sheets/figures.h"

#include <QPainter>

#include <algorithm>

namespace datrin::app {

using sheets::figure;

std::vector<Comb> make_combs(const casting::SeatInput& input, const Pose& pose,
                             const casting::SeatMargins& margins) {
  constexpr std::size_t most_teeth = 24;
  std::vector<Comb> combs;
  for (const auto& group : margins.groups) {
    if (group.touches == 0) continue;
    Comb comb;
    comb.name = sheets::qt(casting::group_name(input, group));
    comb.required = group.required;
    comb.least = group.stock_least;
    comb.most = group.stock_most;
    comb.limiting = group.limiting;
    comb.gone = group.margin < 0;
    comb.wall = group.wall >= 0;
    const double sign = group.wall < 0 ? 1 : -1;
    const int target = group.wall < 0 ? group.surface : input.walls[static_cast<std::size_t>(group.wall)].to;
    const auto& shape = input.surfaces[static_cast<std::size_t>(target)].shape;
    // Of a scan a few thousand say as much; the least and the most are those of all.
    const std::size_t stride = std::max<std::size_t>(1, input.points.size() / 20000);
    for (std::size_t i = 0; i < input.points.size(); i += stride)
      if (const auto& point = input.points[i]; point.surface == group.surface)
        comb.metal.push_back(sign * stock_at(shape, pose.apply(point.xyz)));
    if (stride > 1) comb.metal.insert(comb.metal.end(), {group.stock_least, group.stock_most});
    std::sort(comb.metal.begin(), comb.metal.end());
    if (comb.metal.size() > most_teeth) { // evenly through the order, lowest and highest kept
      std::vector<double> teeth;
      for (std::size_t k = 0; k < most_teeth; ++k)
        teeth.push_back(comb.metal[k * (comb.metal.size() - 1) / (most_teeth - 1)]);
      comb.metal = std::move(teeth);
    }
    combs.push_back(std::move(comb));
  }
  return combs;
}

StockComb::StockComb(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setAccessibleName("Metal at each touch, against what is needed");
}

QSize StockComb::sizeHint() const {
  return {600, theme().large() ? theme().ipx(108) : theme().ipx(196)};
}

void StockComb::set_combs(std::vector<Comb> combs, Unit unit) {
  combs_ = std::move(combs);
  unit_ = unit;
  QString words;
  for (const auto& comb : combs_)
    words += QString("%1: %2 to %3, %4 needed%5. ")
                 .arg(comb.name, figure(comb.least, unit), sheets::figure_with_unit(comb.most, unit),
                      sheets::figure_with_unit(comb.required, unit), comb.limiting ? ", limits" : "");
  setAccessibleDescription(words);
  update();
}

void StockComb::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  painter.setFont(t.text(true));
  painter.setPen(t.ink);
  const QRectF head(0, 0, width(), t.px(22));
  painter.drawText(head, Qt::AlignLeft | Qt::AlignVCenter, "Metal at each touch, against what is needed");
  painter.setFont(t.text());
  painter.setPen(t.muted);
  painter.drawText(head, Qt::AlignRight | Qt::AlignVCenter, sheets::qt(unit_name(unit_)));
  if (combs_.empty()) {
    painter.drawText(QRectF(0, t.px(30), width(), t.px(22)), Qt::AlignLeft,
                     "Touch the casting and the metal over each face stands here.");
    return;
  }
  const double gap = t.px(14), names = t.px(t.large() ? 21 : 40);
  const double top = t.px(t.large() ? 30 : 40), bottom = height() - names;
  double tallest = 0.1;
  for (const auto& comb : combs_)
    if (!comb.wall) tallest = std::max(tallest, comb.most);
  const double wide =
      (width() - gap * (static_cast<double>(combs_.size()) - 1)) / static_cast<double>(combs_.size());
  double x = 0;
  for (const auto& comb : combs_) {
    const double scale = (bottom - top) / (comb.wall ? 1.15 * std::max(comb.most, 0.1) : tallest);
    const double needed = comb.required * scale;
    painter.fillRect(QRectF(x, bottom - needed, wide, needed), t.track);
    const double step = wide / static_cast<double>(comb.metal.size());
    const double tooth = std::clamp(0.42 * step, 1.0, 5.0);
    bool first = true;
    for (std::size_t k = 0; k < comb.metal.size(); ++k) {
      const double high = std::clamp(comb.metal[k] * scale, -t.px(4), bottom - top + t.px(6));
      const double centre = x + step * (static_cast<double>(k) + 0.5);
      const bool low = comb.metal[k] <= comb.least + 1e-4 && (comb.limiting || comb.gone);
      const bool gone = comb.gone && (low || comb.metal[k] < comb.required);
      const auto colour = gone ? t.gone : low ? t.brass : t.ink;
      painter.fillRect(QRectF(centre - tooth / 2, bottom - high, tooth, high), colour);
      if (low && first) {
        painter.setPen(QPen(colour, 1.6));
        painter.setBrush(Qt::NoBrush);
        const QPointF at(centre, bottom - std::max(high, 0.0) - t.px(7));
        if (comb.gone) {
          const double r = t.px(3.5);
          painter.drawLine(at + QPointF(-r, -r), at + QPointF(r, r));
          painter.drawLine(at + QPointF(-r, r), at + QPointF(r, -r));
        } else {
          painter.drawEllipse(at, t.px(4), t.px(4));
        }
        first = false;
      }
    }
    QPen dash(t.brass, 1);
    dash.setDashPattern({4, 3});
    painter.setPen(dash);
    painter.drawLine(QPointF(x, bottom - needed), QPointF(x + wide, bottom - needed));
    painter.setPen(QPen(t.muted, 1));
    painter.drawLine(QPointF(x, bottom), QPointF(x + wide, bottom));
    painter.setFont(t.small());
    painter.setPen(t.ink);
    painter.drawText(QRectF(x, bottom + t.px(3), wide, t.px(18)), Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(comb.name, Qt::ElideRight, static_cast<int>(wide)));
    painter.setPen(t.muted);
    if (t.large()) { // the ranges are in the rows beside
      x += wide + gap;
      continue;
    }
    const auto range = QString("%1 to %2").arg(figure(comb.least, unit_), figure(comb.most, unit_));
    painter.drawText(QRectF(x, bottom + t.px(20), wide, t.px(18)), Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(range, Qt::ElideRight, static_cast<int>(wide)));
    x += wide + gap;
  }
}

} // namespace datrin::app
