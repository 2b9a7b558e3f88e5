#include "app/chains/chain_view.h"

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

using sheets::fit_figure;
using sheets::qt;

ChainView::ChainView(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(220);
  setAccessibleName("Dimensions of the chain, head to tail");
}

void ChainView::set_empty_text(const QString& title, const QString& words) {
  empty_title_ = title;
  empty_words_ = words;
  update();
}

void ChainView::show_chain(const QString& title, const std::vector<ChainRow>& rows, double least, double most,
                           bool fits, Unit unit, Reckoning why) {
  why_ = std::move(why);
  title_ = title;
  rows_ = rows;
  least_ = least;
  most_ = most;
  fits_ = fits;
  unit_ = unit;
  if (chosen_ >= static_cast<int>(rows_.size())) chosen_ = -1;
  setAccessibleDescription(
      rows.empty() ? QString() : QString("%1: gap %2").arg(title, sheets::fit_with_unit(gap(), unit)));
  update();
}

void ChainView::set_chosen(int row) {
  chosen_ = row;
  update();
}

double ChainView::gap() const {
  double sum = 0;
  for (const auto& row : rows_) sum += row.length;
  return sum;
}

double ChainView::row_height() const {
  const auto& t = theme();
  const double room = height() - t.px(46) - t.px(52);
  return std::min(t.px(60), room / std::max<double>(1, static_cast<double>(rows_.size())));
}

void ChainView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  p.fillRect(rect(), t.blue.ground);
  if (rows_.empty()) {
    paint_empty(p, rect(), {title_.isEmpty() ? empty_title_ : title_, empty_words_});
    return;
  }
  p.setFont(t.text(true));
  p.setPen(t.blue.line);
  p.drawText(QRectF(t.px(14), t.px(8), width() - t.px(28), t.px(22)), Qt::AlignLeft | Qt::AlignVCenter,
             title_);
  double low = 0, high = 0, at = 0;
  for (const auto& row : rows_) {
    at += row.length;
    low = std::min(low, at);
    high = std::max(high, at);
  }
  const double names = std::min(width() * 0.42, t.px(270)), left = names + t.px(20),
               right = width() - t.px(30);
  const auto x = [&](double mm) { return left + (mm - low) / std::max(1e-9, high - low) * (right - left); };
  const double step = row_height(), top = t.px(46);
  at = 0;
  for (std::size_t k = 0; k < rows_.size(); ++k) {
    const auto& row = rows_[k];
    const double y = top + step * (static_cast<double>(k) + 0.5);
    const double from = x(at), to = x(at + row.length);
    if (static_cast<int>(k) == chosen_) {
      p.setPen(QPen(t.blue.brass, hasFocus() ? 1.6 : 1));
      p.setBrush(Qt::NoBrush);
      p.drawRoundedRect(QRectF(t.px(6), y - step / 2 + 1, width() - t.px(12), step - 2), 4, 4);
    }
    p.setFont(t.text(row.improve));
    p.setPen(row.measured ? t.blue.brass : t.blue.line);
    p.drawText(QRectF(t.px(14), y - t.px(10), names - t.px(84), t.px(20)), Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(row.name, Qt::ElideRight, static_cast<int>(names - t.px(84))));
    p.setFont(t.small());
    p.setPen(t.blue.label);
    const auto factor =
        std::abs(std::abs(row.coefficient) - 1) > 1e-9
            ? QString("%1\u00D7 ")
                  .arg(
                      qt(number_text(std::abs(row.coefficient),
                                     std::abs(row.coefficient - std::round(row.coefficient)) < 1e-9 ? 0 : 3)))
            : QString();
    p.drawText(QRectF(names - t.px(70), y - t.px(10), t.px(76), t.px(20)), Qt::AlignRight | Qt::AlignVCenter,
               factor +
                   fit_figure(row.length / (row.coefficient == 0 ? 1 : std::abs(row.coefficient)), unit_));
    // The arrow: scribed; brass when it was measured.
    const QColor ink = row.measured ? t.blue.brass : t.blue.line;
    p.setPen(QPen(ink, 2));
    p.drawLine(QPointF(from, y), QPointF(to, y));
    const double way = to >= from ? 1 : -1, head = std::min(t.px(8), std::abs(to - from));
    p.setBrush(ink);
    p.setPen(Qt::NoPen);
    p.drawPolygon(QPolygonF(
        {QPointF(to, y), QPointF(to - way * head, y - t.px(4)), QPointF(to - way * head, y + t.px(4))}));
    // A thread down to where the next begins.
    p.setPen(QPen(t.blue.dim, 0.8, Qt::DotLine));
    p.drawLine(QPointF(to, y), QPointF(to, y + step));
    // Its share of the spread, a bar under the arrow.
    if (row.share > 0) {
      p.setPen(Qt::NoPen);
      p.setBrush(row.improve ? t.blue.brass : t.blue.dim);
      p.drawRect(QRectF(left, y + std::min(t.px(9), step * 0.3), row.share * (right - left) * 0.5, t.px(3)));
    }
    at += row.length;
  }
  // The gap that is left, from where the chain ends back to where it began.
  const double y = top + step * static_cast<double>(rows_.size()) + t.px(12);
  const double a = x(0), b = x(at);
  p.setPen(QPen(t.blue.brass, 1));
  p.drawLine(QPointF(a, top + step * 0.2), QPointF(a, y + t.px(8)));
  p.drawLine(QPointF(b, y - t.px(8)), QPointF(b, y + t.px(8)));
  p.setPen(QPen(t.blue.brass, 3));
  p.drawLine(QPointF(a, y), QPointF(std::abs(b - a) < 2 ? a + 2 : b, y));
  p.setFont(t.title());
  p.setPen(t.blue.brass);
  const auto words = QString("gap %1").arg(sheets::fit_with_unit(at, unit_));
  p.drawText(QRectF(t.px(14), y - t.px(13), names, t.px(26)), Qt::AlignLeft | Qt::AlignVCenter, words);
  p.setFont(t.small());
  p.setPen(t.blue.label);
  p.drawText(QRectF(t.px(14), y + t.px(11), names, t.px(18)), Qt::AlignLeft | Qt::AlignVCenter,
             QString("wanted %1 to %2%3")
                 .arg(fit_figure(least_, unit_), sheets::fit_with_unit(most_, unit_), fits_ ? "" : ": gone"));
}

void ChainView::mousePressEvent(QMouseEvent* event) {
  const int row = static_cast<int>((event->position().y() - theme().px(46)) / row_height());
  if (row >= 0 && row < static_cast<int>(rows_.size())) {
    set_chosen(row);
    emit row_chosen(row);
  }
}

void ChainView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_F1 && !why_.lines.empty()) {
    show_why(this, why_, unit_);
    return;
  }
  const int by = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
  if (by == 0 || rows_.empty()) {
    QWidget::keyPressEvent(event);
    return;
  }
  set_chosen(std::clamp(chosen_ + by, 0, static_cast<int>(rows_.size()) - 1));
  emit row_chosen(chosen_);
}

} // namespace datrin::app
