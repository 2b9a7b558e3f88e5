#include "app/marks/why.h"

#include "app/theme.h"
#include "sheets/figures.h"

#include <QApplication>
#include <QClipboard>
#include <QKeyEvent>
#include <QPainter>
#include <QScreen>

#include <algorithm>

namespace datrin::app {

using sheets::qt;

namespace {

constexpr double pad = 14, row_high = 22;

} // namespace

WhyCard::WhyCard(Reckoning reckoning, Unit unit, QWidget* parent)
    : QFrame(parent, Qt::Popup), reckoning_(std::move(reckoning)), unit_(unit) {
  setAttribute(Qt::WA_DeleteOnClose);
  setAccessibleName(QString("Why"));
  setAccessibleDescription(qt(reckoning_text(reckoning_, unit)));
  const auto& t = theme();
  const double rows = static_cast<double>(reckoning_.lines.size()) + 2.6;
  double text = 0;
  const QFontMetricsF metrics(t.text());
  for (const auto& line : reckoning_.lines)
    text = std::max(text, metrics.horizontalAdvance(qt(line.label)) +
                              metrics.horizontalAdvance(qt(line.source)) + 20);
  text = std::max(text, QFontMetricsF(t.text(true)).horizontalAdvance(qt(reckoning_.title)));
  resize(static_cast<int>(text + t.px(200) + 2 * pad), static_cast<int>(t.px(rows * row_high) + 2 * pad));
}

void WhyCard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  painter.fillRect(rect(), t.raised);
  painter.setPen(QPen(t.brass, 1.5));
  painter.drawRect(QRectF(rect()).adjusted(0.75, 0.75, -0.75, -0.75));
  const double w = width(), line_height = t.px(row_high), second = w - pad, first = w - pad - t.px(96);
  double y = pad;
  const auto put = [&](double right, const QString& words, const QColor& colour, bool bold) {
    painter.setFont(t.text(bold));
    painter.setPen(colour);
    painter.drawText(QRectF(0, y, right, line_height), Qt::AlignRight | Qt::AlignVCenter, words);
  };
  const auto label = [&](const QString& words, const QString& source, bool bold) {
    painter.setFont(t.text(bold));
    painter.setPen(t.ink);
    QRectF used;
    painter.drawText(QRectF(pad, y, w, line_height), Qt::AlignLeft | Qt::AlignVCenter, words, &used);
    painter.setFont(t.small());
    painter.setPen(t.muted);
    painter.drawText(QRectF(used.right() + 8, y, w, line_height), Qt::AlignLeft | Qt::AlignVCenter, source);
  };
  painter.setFont(t.heading());
  painter.setPen(t.muted);
  painter.drawText(QRectF(pad, y, w, line_height), Qt::AlignLeft | Qt::AlignVCenter, "Why");
  if (reckoning_.answer.empty()) {
    put(first, qt(unit_name(unit_)), t.muted, false);
    put(second, qt(unit_name(sheets::other(unit_))), t.muted, false);
  }
  y += line_height;
  const auto own = column_of(reckoning_, unit_), other = column_of(reckoning_, sheets::other(unit_));
  for (std::size_t k = 0; k < reckoning_.lines.size(); ++k) {
    const auto& line = reckoning_.lines[k];
    label(qt(line.label), qt(line.source), false);
    if (line.figure.empty()) {
      put(first, qt(own.figures[k]), t.ink, false);
      put(second, qt(other.figures[k]), t.muted, false);
    } else {
      put(second, qt(line.figure), t.ink, false);
    }
    y += line_height;
  }
  painter.setPen(QPen(t.ink, 1));
  painter.drawLine(QPointF(first - t.px(74), y + 2), QPointF(second, y + 2));
  y += 4;
  label(qt(reckoning_.title), {}, true);
  if (!reckoning_.answer.empty()) {
    put(second, qt(reckoning_.answer), t.ink, true);
    return;
  }
  put(first, qt(own.total), t.ink, true);
  put(second, qt(other.total), t.muted, true);
}

void WhyCard::keyPressEvent(QKeyEvent* event) {
  if (event->matches(QKeySequence::Copy))
    QApplication::clipboard()->setText(whole(reckoning_text(reckoning_, unit_)));
  else
    close();
}

WhyCard* show_why(QWidget* origin, const Reckoning& reckoning, Unit unit) {
  auto* card = new WhyCard(reckoning, unit, origin);
  const auto screen = origin->screen()->availableGeometry();
  QPoint at = origin->mapToGlobal(QPoint(0, origin->height() + 4));
  at.setX(
      std::clamp(at.x(), screen.left() + 4, std::max(screen.left() + 4, screen.right() - card->width() - 4)));
  if (at.y() + card->height() > screen.bottom())
    at.setY(origin->mapToGlobal(QPoint(0, 0)).y() - card->height() - 4);
  card->move(at);
  card->show();
  card->setFocus();
  return card;
}

} // namespace datrin::app
