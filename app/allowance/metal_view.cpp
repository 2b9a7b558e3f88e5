#include "app/allowance/metal_view.h"

#include "app/marks/empty_view.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using allowance::SurfaceState;
using sheets::figure;
using sheets::qt;

MetalView::MetalView(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(220);
  setAccessibleName("Metal over each surface");
}

void MetalView::set_plans(const std::vector<allowance::SurfacePlan>& plans, Unit unit) {
  plans_ = plans;
  unit_ = unit;
  if (chosen_ >= static_cast<int>(plans_.size())) chosen_ = -1;
  lay_out();
  set_chosen(chosen_);
}

void MetalView::set_empty_text(const QString& title, const QString& words) {
  title_ = title;
  words_ = words;
  update();
}

void MetalView::set_chosen(int k) {
  chosen_ = k;
  if (k >= 0 && k < static_cast<int>(plans_.size())) {
    const auto& p = plans_[static_cast<std::size_t>(k)];
    setAccessibleDescription(QString("%1: %2 at the highest, %3 at the lowest place, %4")
                                 .arg(name_words(p.drawn.name), sheets::figure_with_unit(p.most, unit_),
                                      sheets::figure_with_unit(p.least, unit_), allowance::state_name(p)));
  }
  update();
}

void MetalView::lay_out() {
  double most = 0.5, under = 0; // mm over and under size
  for (const auto& p : plans_) {
    most = std::max({most, p.most, p.now});
    under = std::max({under, -p.least, -p.now});
  }
  const auto& t = theme();
  const double bottom = height() - t.px(50);
  scale_ = (bottom - t.px(46)) / (most * 1.06 + under + 0.08 * most);
  base_ = bottom - (under + 0.04 * most) * scale_;
  left_ = t.px(unit_ == Unit::mm ? 52 : 64);
  const double n = std::max<double>(1, static_cast<double>(plans_.size()));
  wide_ = std::min(t.px(128), (width() - left_ - t.px(12)) / n);
  update();
}

QRectF MetalView::column(int k) const {
  return {left_ + k * wide_, theme().px(30), wide_, base_ - theme().px(30)};
}

double MetalView::level_px(double mm) const {
  return base_ - mm * scale_;
}

void MetalView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  p.fillRect(rect(), t.blue.ground);
  if (plans_.empty()) {
    paint_empty(p, rect(), {title_, words_});
    return;
  }
  // The scale at the left, in the person's unit: a level every so much.
  const double step_units[] = {0.1, 0.2, 0.5, 1, 2, 5}, step_thou[] = {5, 10, 20, 50, 100, 200};
  double step = unit_ == Unit::mm ? 5 : 200 * mm_per_thou;
  for (std::size_t k = 0; k < 6; ++k) {
    const double s = unit_ == Unit::mm ? step_units[k] : step_thou[k] * mm_per_thou;
    if (s * scale_ >= t.px(30)) {
      step = s;
      break;
    }
  }
  p.setFont(t.small());
  for (int k = 0; level_px(k * step) > t.px(30); ++k) {
    const double y = level_px(k * step);
    p.setPen(
        QPen(k == 0 ? t.blue.line : t.blue.dim, k == 0 ? 1.6 : 0.5, k == 0 ? Qt::SolidLine : Qt::DotLine));
    p.drawLine(QPointF(left_ - 6, y), QPointF(left_ + wide_ * static_cast<double>(plans_.size()), y));
    p.setPen(t.blue.label);
    p.drawText(QRectF(2, y - t.px(9), left_ - 12, t.px(18)), Qt::AlignRight | Qt::AlignVCenter,
               k == 0 ? QString("size") : figure(k * step, unit_));
  }
  for (int k = 0; k < static_cast<int>(plans_.size()); ++k) paint_column(p, k);
  p.setPen(t.blue.label);
  p.setFont(t.small());
  p.drawText(QRectF(left_, 6, width() - left_ - 12, t.px(18)), Qt::AlignLeft | Qt::AlignVCenter,
             QString("Metal a side, %1 \u00B7 hatched: raw, still to come off \u00B7 brass: where it is now")
                 .arg(qt(unit_name(unit_))));
}

void MetalView::paint_column(QPainter& p, int k) const {
  const auto& t = theme();
  const auto& plan = plans_[static_cast<std::size_t>(k)];
  const auto area = column(k);
  const bool here = k == chosen_;
  const QRectF body(area.left() + 0.14 * wide_, area.top(), 0.72 * wide_, area.height());
  p.save();
  if (plan.source != allowance::StockSource::none) {
    const bool finished = plan.state == SurfaceState::finished || plan.state == SurfaceState::spoilt;
    // The raw surface: the touches side by side, a ragged top; without touches a band of what to expect.
    QPolygonF top;
    if (plan.stocks.size() >= 2) {
      // Rising to the highest in the middle and falling again: lows and high are seen at a glance.
      const auto n = plan.stocks.size();
      for (std::size_t i = 0; i < n; ++i) {
        const double stock = plan.stocks[2 * i < n ? 2 * i : 2 * (n - 1 - i) + 1];
        top << QPointF(body.left() + body.width() * static_cast<double>(i) / static_cast<double>(n - 1),
                       level_px(stock));
      }
    } else {
      top << QPointF(body.left(), level_px(plan.most)) << QPointF(body.right(), level_px(plan.most));
    }
    const double now_y = level_px(plan.cuts.empty() ? plan.most : std::max(0.0, plan.now));
    QPolygonF raw = top;
    raw << QPointF(body.right(), base_) << QPointF(body.left(), base_);
    QPainterPath metal;
    metal.addPolygon(raw);
    metal.closeSubpath();
    QPainterPath still;
    still.addRect(QRectF(body.left(), now_y, body.width(), base_ - now_y));
    p.fillPath(plan.cuts.empty() ? metal : metal.intersected(still), t.blue.plate);
    // Hatched: what is still to come off.
    p.setClipPath(plan.cuts.empty() ? metal : metal.intersected(still));
    p.setPen(QPen(t.blue.dim, 0.7));
    if (!finished)
      for (double x = body.left() - area.height(); x < body.right(); x += t.px(8))
        p.drawLine(QPointF(x, base_), QPointF(x + area.height(), base_ - area.height()));
    // The skin, a second hatch the other way, from the raw surface down.
    if (plan.allowance.skin > 0 && plan.cuts.empty()) {
      p.setClipPath(metal.subtracted(metal.translated(0, plan.allowance.skin * scale_)), Qt::IntersectClip);
      p.setPen(QPen(t.blue.line, 0.6));
      for (double x = body.left(); x < body.right() + area.height(); x += t.px(8))
        p.drawLine(QPointF(x, base_), QPointF(x - area.height(), base_ - area.height()));
    }
    p.setClipping(false);
    p.setPen(QPen(t.blue.dim, 1));
    if (plan.stocks.size() >= 2) {
      p.drawPolyline(top);
    } else {
      p.setPen(QPen(t.blue.dim, 1, Qt::DashLine));
      p.drawLine(top[0], top[1]);
      p.drawLine(QPointF(body.left(), level_px(plan.least)), QPointF(body.right(), level_px(plan.least)));
    }
    // Levels the cuts go down to.
    const auto& passes = plan.cuts.empty() ? plan.plan.passes : plan.rest.passes;
    for (const auto& pass : passes) {
      p.setPen(QPen(pass.kind == allowance::PassKind::rough ? t.blue.dim : t.blue.line,
                    pass.kind == allowance::PassKind::rough ? 1 : 1.2));
      const double y = level_px(pass.left);
      p.drawLine(QPointF(body.left(), y), QPointF(body.right(), y));
    }
    if (!plan.cuts.empty()) {
      p.setPen(QPen(t.blue.brass, 2.2));
      const double y = level_px(plan.now);
      p.drawLine(QPointF(body.left() - 4, y), QPointF(body.right() + 4, y));
    }
    // Short at the lowest place: ringed.
    if (plan.cuts.empty() && !plan.plan.cleans_up && plan.stocks.size() >= 2) {
      p.setPen(QPen(t.blue.brass, 1.8));
      p.drawEllipse(QPointF(body.left(), level_px(plan.least)), t.px(5), t.px(5));
    }
  }
  p.setPen(QPen(t.blue.line, 2));
  p.drawLine(QPointF(body.left(), base_), QPointF(body.right(), base_));
  if (here) {
    p.setPen(QPen(t.blue.brass, hasFocus() ? 2 : 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(
        QRectF(area.left() + 2, area.top() - t.px(4), wide_ - 4, height() - area.top() - t.px(2)), 4, 4);
  }
  p.setFont(t.text(here));
  p.setPen(here ? t.blue.brass : t.blue.line);
  const double names = height() - t.px(48);
  p.drawText(
      QRectF(area.left() + 4, names, wide_ - 8, t.px(18)), Qt::AlignHCenter | Qt::AlignVCenter,
      p.fontMetrics().elidedText(name_words(plan.drawn.name), Qt::ElideRight, static_cast<int>(wide_ - 8)));
  p.setFont(t.small());
  p.setPen(t.blue.label);
  QString state = plan.source == allowance::StockSource::none
                      ? QString(plan.of_casting ? "not touched" : "not known")
                  : plan.source == allowance::StockSource::expected && plan.cuts.empty()
                      ? QString("expected")
                      : QString(allowance::state_name(plan));
  const bool of_raw =
      plan.source == allowance::StockSource::touches || plan.source == allowance::StockSource::sizes;
  if (of_raw && plan.cuts.empty() && !plan.plan.cleans_up)
    state = "short " + figure(plan.plan.short_by, unit_);
  p.drawText(QRectF(area.left() + 2, names + t.px(19), wide_ - 4, t.px(18)),
             Qt::AlignHCenter | Qt::AlignVCenter,
             p.fontMetrics().elidedText(state, Qt::ElideRight, static_cast<int>(wide_ - 4)));
  p.restore();
}

void MetalView::mousePressEvent(QMouseEvent* event) {
  const int k = static_cast<int>(std::floor((event->position().x() - left_) / wide_));
  if (k >= 0 && k < static_cast<int>(plans_.size())) emit picked(k);
}

void MetalView::keyPressEvent(QKeyEvent* event) {
  const int n = static_cast<int>(plans_.size());
  if (n > 0 && (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right))
    emit picked(std::clamp(chosen_ + (event->key() == Qt::Key_Left ? -1 : 1), 0, n - 1));
  else
    QWidget::keyPressEvent(event);
}

} // namespace datrin::app
