#include "app/marks/room_mark.h"

#include "app/marks/why.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace datrin::app {

RoomState room_state(double margin, bool limiting, double comfortable) {
  if (!std::isfinite(margin)) return RoomState::unknown;
  if (margin < 0) return RoomState::gone;
  return limiting || margin < comfortable ? RoomState::tight : RoomState::comfortable;
}

QString room_state_name(RoomState state) {
  switch (state) {
  case RoomState::comfortable:
    return "comfortable";
  case RoomState::tight:
    return "tight";
  case RoomState::gone:
    return "gone";
  case RoomState::unknown:
    return "not known";
  }
  return {};
}

void paint_room(QPainter& painter, const QRectF& area, double margin, double full, RoomState state) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const double y = area.center().y(), zero = area.left() + 1, thick = 0.32 * area.height();
  painter.setPen(Qt::NoPen);
  painter.setBrush(t.track);
  painter.drawRect(QRectF(zero, y - thick / 2, area.right() - zero, thick));
  const double end = zero + std::clamp(std::max(0.0, margin) / full, 0.0, 1.0) * (area.right() - zero - 6);
  const double r = 0.38 * area.height();
  if (state == RoomState::comfortable) {
    painter.setBrush(t.ink);
    painter.drawRect(QRectF(zero, y - thick / 2, end - zero, thick));
    painter.drawEllipse(QPointF(end, y), r, r);
  } else if (state == RoomState::tight) {
    painter.setBrush(t.brass);
    painter.drawRect(QRectF(zero, y - thick / 2, std::max(0.0, end - zero - r * 0.5), thick));
    painter.drawPolygon(QPolygonF(
        {QPointF(end - r * 0.6, y - 1.25 * r), QPointF(end + r, y), QPointF(end - r * 0.6, y + 1.25 * r)}));
  } else if (state == RoomState::gone) {
    painter.setPen(QPen(t.gone, 2));
    painter.drawLine(QPointF(zero - r * 0 + 1, y - r), QPointF(zero + 2 * r + 1, y + r));
    painter.drawLine(QPointF(zero + 1, y + r), QPointF(zero + 2 * r + 1, y - r));
  }
  painter.setPen(QPen(t.ink, 1.4));
  painter.drawLine(QPointF(zero, area.top()), QPointF(zero, area.bottom()));
  painter.restore();
}

RoomRow::RoomRow(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize RoomRow::sizeHint() const {
  return {theme().ipx(200), theme().ipx(25)};
}

void RoomRow::show_room(const QString& name, double margin, bool limiting, double full, Unit unit,
                        Reckoning why) {
  name_ = name;
  margin_ = margin;
  full_ = std::max(1e-6, full);
  unit_ = unit;
  why_ = std::move(why);
  figure_ = sheets::figure(margin, unit, true);
  state_ = room_state(margin, limiting, 0.25);
  const auto figure = sheets::figure_with_unit(margin, unit, true);
  setAccessibleName(
      QString("%1: room %2, %3%4").arg(name, figure, room_state_name(state_), limiting ? ", limits" : ""));
  setToolTip(state_ == RoomState::unknown ? QString("%1 has not been touched").arg(name)
                                          : QString("%1 \u00B7 why: F1").arg(accessibleName()));
  update();
}

void RoomRow::show_ratio(const QString& name, double room, bool limiting, double full, Reckoning why) {
  name_ = name;
  margin_ = room;
  full_ = std::max(1e-6, full);
  why_ = std::move(why);
  ratio_ = true;
  figure_ = sheets::qt(number_text(room, 1, true));
  state_ = room_state(room, limiting, 1);
  setAccessibleName(QString("%1: room %2, %3").arg(name, figure_, room_state_name(state_)));
  setToolTip(accessibleName());
  update();
}

QString RoomRow::spoken_value() const {
  return QString("%1, %2").arg(ratio_ ? figure_ : sheets::figure_with_unit(margin_, unit_, true),
                               room_state_name(state_));
}

void RoomRow::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const auto& t = theme();
  const double w = width(), h = height();
  if (hasFocus()) {
    painter.setPen(QPen(t.brass, 1));
    painter.drawRoundedRect(QRectF(0.5, 0.5, w - 1, h - 1), 3, 3);
  }
  const double name_width = ratio_ ? 0.56 * w : std::min(0.46 * w, t.px(112)),
               figure_width = t.px(ratio_ ? 40 : 62);
  painter.setFont(t.text());
  painter.setPen(t.ink);
  painter.drawText(QRectF(2, 0, name_width - 6, h), Qt::AlignVCenter | Qt::AlignLeft,
                   painter.fontMetrics().elidedText(name_, Qt::ElideRight, static_cast<int>(name_width - 6)));
  const double mark_height = t.px(13);
  paint_room(painter,
             QRectF(name_width, (h - mark_height) / 2, w - name_width - figure_width - 6, mark_height),
             margin_, full_, state_);
  if (state_ == RoomState::gone) painter.setPen(t.gone);
  painter.drawText(QRectF(w - figure_width, 0, figure_width - 2, h), Qt::AlignVCenter | Qt::AlignRight,
                   state_ == RoomState::unknown ? QString("\u2013") : figure_);
}

void RoomRow::mousePressEvent(QMouseEvent* event) {
  QWidget::mousePressEvent(event);
  setFocus();
  emit asked();
}

void RoomRow::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_F1 && !why_.lines.empty())
    show_why(this, why_, unit_);
  else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
    emit asked();
  else
    QWidget::keyPressEvent(event);
}

} // namespace datrin::app
