#include "app/casting/hold_list.h"

#include "app/theme.h"
#include "sheets/shown.h"

#include <QPainter>

#include <algorithm>

namespace datrin::app {

void HoldList::set_rows(std::vector<HoldRow> rows) {
  rows_ = std::move(rows);
  QString words;
  for (const auto& row : rows_)
    words += filled("%1 %2%3. ", row.number, row.name,
                    row.share < 0 ? QString() : QString(", %1 per cent").arg(100 * row.share, 0, 'f', 0));
  setAccessibleName("What holds it");
  setAccessibleDescription(words);
  setFixedHeight(theme().ipx(23) * static_cast<int>(rows_.size()));
  update();
}

QSize HoldList::sizeHint() const {
  return {theme().ipx(200), theme().ipx(23) * static_cast<int>(rows_.size())};
}

void HoldList::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const double h = t.px(23), w = width(), r = t.px(8);
  const double bar = t.px(52), per_cent = t.px(38);
  double most = 0.01;
  for (const auto& row : rows_) most = std::max(most, row.share);
  double y = 0;
  for (const auto& row : rows_) {
    painter.setPen(QPen(t.brass, 1.5));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(QPointF(r + 1, y + h / 2), r, r);
    painter.setFont(t.small(true));
    painter.drawText(QRectF(1, y, 2 * r, h), Qt::AlignCenter, QString::number(row.number));
    painter.setFont(t.text());
    painter.setPen(t.ink);
    const double left = 2 * r + 9, name_width = w - left - bar - per_cent - 8;
    painter.drawText(
        QRectF(left, y, name_width, h), Qt::AlignVCenter | Qt::AlignLeft,
        painter.fontMetrics().elidedText(row.name, Qt::ElideRight, static_cast<int>(name_width)));
    if (row.share >= 0) {
      painter.fillRect(QRectF(w - per_cent - bar, y + h / 2 - 2, bar * row.share / most, 4), t.brass);
      painter.drawText(QRectF(w - per_cent, y, per_cent - 1, h), Qt::AlignVCenter | Qt::AlignRight,
                       QString("%1\u202F%").arg(100 * row.share, 0, 'f', 0));
    }
    y += h;
  }
}

} // namespace datrin::app
