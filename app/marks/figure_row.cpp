#include "app/marks/figure_row.h"

#include "app/marks/why.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QKeyEvent>
#include <QPainter>

#include <algorithm>

namespace datrin::app {

FigureRow::FigureRow(const QString& mark, const QString& name, double mm, Unit unit, Reckoning why,
                     QWidget* parent)
    : QWidget(parent), mark_(mark), name_(name), mm_(mm), unit_(unit), why_(std::move(why)) {
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  show_figure(mm, unit, std::move(why_));
}

void FigureRow::show_figure(double mm, Unit unit, Reckoning why, const QString& more) {
  mm_ = mm;
  unit_ = unit;
  why_ = std::move(why);
  setAccessibleName(QString("%1 %2: %3, %4")
                        .arg(mark_, name_, sheets::figure_with_unit(mm, unit),
                             sheets::figure_with_unit(mm, sheets::other(unit))));
  setToolTip(accessibleName() + " \u00B7 why: F1" + (more.isEmpty() ? QString() : "\n" + more));
  update();
}

FigureRow::FigureRow(const QString& name, const QString& words, Unit unit, Reckoning why, QWidget* parent)
    : QWidget(parent), name_(name), words_(words), unit_(unit), why_(std::move(why)) {
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  show_words(words, std::move(why_));
}

void FigureRow::show_words(const QString& words, Reckoning why) {
  words_ = words;
  why_ = std::move(why);
  setAccessibleName(name_ + ": " + words);
  setToolTip(accessibleName() + " \u00B7 why: F1");
  update();
}

QSize FigureRow::sizeHint() const {
  return {theme().ipx(180), theme().ipx(24)};
}

void FigureRow::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const double w = width(), h = height();
  if (hasFocus()) {
    painter.setPen(QPen(t.brass, 1));
    painter.drawRoundedRect(QRectF(0.5, 0.5, w - 1, h - 1), 3, 3);
  }
  if (!words_.isEmpty()) {
    painter.setFont(t.text(true));
    painter.setPen(t.ink);
    const double wide = painter.fontMetrics().horizontalAdvance(words_);
    painter.drawText(QRectF(0, 0, w - 4, h), Qt::AlignVCenter | Qt::AlignRight,
                     painter.fontMetrics().elidedText(words_, Qt::ElideRight, static_cast<int>(w - 8)));
    painter.setFont(t.text());
    const double left = w - wide - 14;
    painter.drawText(
        QRectF(3, 0, left, h), Qt::AlignVCenter | Qt::AlignLeft,
        painter.fontMetrics().elidedText(name_, Qt::ElideRight, static_cast<int>(std::max(0.0, left))));
    return;
  }
  const bool narrow = fine_ || w < t.px(200); // the other unit is then in the tool tip alone
  const double other_width = narrow ? 0 : t.px(58), figure_width = t.px(62),
               mark_width = mark_.isEmpty() ? 2 : t.px(20);
  painter.setFont(t.text(true));
  painter.setPen(t.brass);
  painter.drawText(QRectF(3, 0, mark_width, h), Qt::AlignVCenter | Qt::AlignLeft, mark_);
  painter.setFont(t.text());
  painter.setPen(t.ink);
  const double name_width = w - mark_width - other_width - figure_width - 8;
  painter.drawText(QRectF(3 + mark_width, 0, name_width, h), Qt::AlignVCenter | Qt::AlignLeft,
                   painter.fontMetrics().elidedText(name_, Qt::ElideRight, static_cast<int>(name_width)));
  painter.setFont(t.text(true));
  painter.drawText(QRectF(w - other_width - figure_width - 4, 0, figure_width, h),
                   Qt::AlignVCenter | Qt::AlignRight,
                   fine_ ? sheets::fit_figure(mm_, unit_) : sheets::figure(mm_, unit_));
  if (narrow) return;
  painter.setFont(t.small());
  painter.setPen(t.muted);
  painter.drawText(QRectF(w - other_width - 4, 0, other_width, h), Qt::AlignVCenter | Qt::AlignRight,
                   sheets::figure(mm_, sheets::other(unit_)));
}

void FigureRow::keyPressEvent(QKeyEvent* event) {
  if ((event->key() == Qt::Key_F1 || event->key() == Qt::Key_Return) && !why_.lines.empty())
    show_why(this, why_, unit_);
  else
    QWidget::keyPressEvent(event);
}

void FigureRow::mouseDoubleClickEvent(QMouseEvent*) {
  if (!why_.lines.empty()) show_why(this, why_, unit_);
}

} // namespace datrin::app
