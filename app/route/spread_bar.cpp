#include "app/route/spread_bar.h"

#include "app/theme.h"
#include "sheets/figures.h"

#include <QPainter>

#include <algorithm>

namespace datrin::app {

SpreadBar::SpreadBar(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize SpreadBar::sizeHint() const {
  return {220, theme().ipx(56)};
}

void SpreadBar::clear() {
  shares_.clear();
  hide();
}

void SpreadBar::show_spread(const route::DimensionSpread& spread, const QStringList& setups) {
  shares_.clear();
  expected_ = spread.expected();
  allowed_ = spread.allowed;
  QStringList spoken;
  const auto add = [&](double part, bool cutting, const QString& name) {
    constexpr double seen = 0.005;
    if (part < seen) return;
    shares_.push_back({part, cutting, name});
    spoken << filled("%1 % %2", QString::number(100 * part, 'f', 0), name);
  };
  for (std::size_t k = 0; k < spread.shares.size(); ++k) {
    const auto name = setups.value(static_cast<qsizetype>(k));
    add(spread.shares[k].locating, false, "locating, " + name);
    add(spread.shares[k].cutting, true, "cutting, " + name);
  }
  add(spread.raw, false, "left raw");
  setAccessibleName("Where the spread comes from: " + spoken.join("; "));
  setToolTip(spoken.join("\n"));
  setVisible(!shares_.empty());
  update();
}

void SpreadBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const double right = width() - 1, top = t.px(16), high = t.px(18);
  const double most = std::max(expected_, allowed_);
  if (most <= 0) return;
  const double scale = right / (1.06 * most);
  double x = 0;
  int k = 0;
  for (const auto& share : shares_) {
    const double wide = share.part * expected_ * scale;
    QColor colour = allowed_ > 0 && expected_ > allowed_ ? t.gone : t.brass;
    colour.setAlphaF(k % 2 == 0 ? 0.85 : 0.5);
    const QRectF box(x, top, wide, high);
    p.fillRect(box, colour);
    if (share.cutting) p.fillRect(box, QBrush(t.paper, Qt::BDiagPattern));
    p.setPen(QPen(t.paper, 1.5));
    p.drawLine(QPointF(x + wide, top), QPointF(x + wide, top + high));
    x += wide;
    ++k;
  }
  p.setFont(t.small());
  p.setPen(t.muted);
  const QFontMetricsF metrics(p.font());
  if (allowed_ > 0) { // a scribed line where the limits are
    const double at = allowed_ * scale;
    p.setPen(QPen(t.ink, 1.6));
    p.drawLine(QPointF(at, top - t.px(6)), QPointF(at, top + high + t.px(6)));
    p.setPen(t.muted);
    const QString words = "limits";
    const double w = metrics.horizontalAdvance(words);
    p.drawText(QPointF(std::clamp(at - w / 2, 0.0, right - w), top - t.px(7)), words);
  }
  p.drawText(QPointF(0, top + high + metrics.ascent() + t.px(3)), "solid locating, hatched cutting");
}

} // namespace datrin::app
