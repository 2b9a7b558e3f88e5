#include "app/shell/path_ruler.h"

#include "sheets/shown.h"

#include "app/theme.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace datrin::app {

PathRuler::PathRuler(QWidget* parent) : QWidget(parent), steps_(steps_of(true)) {
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::PointingHandCursor);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  set_step(Step::drawing);
}

QSize PathRuler::sizeHint() const {
  return {theme().ipx(552), theme().ipx(44)};
}

void PathRuler::set_step(Step step) {
  const auto found =
      std::find_if(steps_.begin(), steps_.end(), [&](const auto& row) { return row.step == step; });
  at_ = found == steps_.end() ? -1 : static_cast<int>(found - steps_.begin());
  setAccessibleName(at_ < 0 ? QString("Steps of the part")
                            : filled("Step %1 of %2: %3", at_ + 1, steps_.size(), found->name));
  update();
}

QString PathRuler::spoken_value() const {
  return at_ < 0 ? QString() : steps_[static_cast<std::size_t>(at_)].name;
}

QStringList PathRuler::spoken_actions() const {
  QStringList names;
  for (const auto& row : steps_) names << row.name;
  return names;
}

void PathRuler::do_spoken(const QString& step) {
  for (const auto& row : steps_)
    if (row.name == step) emit chosen(row.step);
}

void PathRuler::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const double base = height() - t.px(10), wide = (width() - 2) / static_cast<double>(steps_.size());
  painter.setPen(QPen(t.muted, 1));
  painter.drawLine(QPointF(1, base), QPointF(width() - 1, base));
  const int fine = 6;
  for (int k = 0; k <= static_cast<int>(steps_.size()) * fine; ++k) {
    const double x = 1 + wide * k / fine;
    const bool here = k / fine == at_ && k < static_cast<int>(steps_.size()) * fine;
    const double high = k % fine == 0 ? t.px(11) : k % 3 == 0 ? t.px(6) : t.px(4);
    painter.setPen(QPen(here ? t.brass : t.muted, k % fine == 0 ? 1.3 : 1));
    painter.drawLine(QPointF(x, base), QPointF(x, base - high));
  }
  for (int k = 0; k < static_cast<int>(steps_.size()); ++k) {
    painter.setFont(sheets::font(t.px(t.large() ? 10.5 : 13), k == at_));
    painter.setPen(k == at_ ? t.brass : t.ink);
    painter.drawText(QRectF(1 + wide * k + t.px(5), 0, wide, base - t.px(11)),
                     Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(steps_[static_cast<std::size_t>(k)].name,
                                                      Qt::ElideRight, static_cast<int>(wide - t.px(6))));
  }
  if (at_ >= 0) {
    const double x = 1 + wide * (at_ + 0.5);
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.brass);
    painter.drawPolygon(QPolygonF(
        {QPointF(x, base + 1), QPointF(x - t.px(6), base + t.px(8)), QPointF(x + t.px(6), base + t.px(8))}));
  }
  if (hasFocus()) {
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.brass, 1));
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
  }
}

void PathRuler::mousePressEvent(QMouseEvent* event) {
  const int step = static_cast<int>(event->position().x() * static_cast<double>(steps_.size()) / width());
  emit chosen(
      steps_[static_cast<std::size_t>(std::clamp(step, 0, static_cast<int>(steps_.size()) - 1))].step);
}

void PathRuler::keyPressEvent(QKeyEvent* event) {
  const int next = event->key() == Qt::Key_Left ? at_ - 1 : event->key() == Qt::Key_Right ? at_ + 1 : -1;
  if (at_ >= 0 && next >= 0 && next < static_cast<int>(steps_.size()))
    emit chosen(steps_[static_cast<std::size_t>(next)].step);
  else
    QWidget::keyPressEvent(event);
}

} // namespace datrin::app
