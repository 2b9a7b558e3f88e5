#include "app/marks/part_canvas.h"

#include "app/theme.h"
#include "sheets/figures.h"
#include "sheets/fonts.h"
#include "sheets/solid_picture.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainterPath>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using sheets::point;
using sheets::qt;

PartCanvas::PartCanvas(QWidget* parent) : QWidget(parent), turning_view_(new TurningView(this)) {
  setMinimumSize(320, 200);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  setAccessibleName("Part in three views");
  turning_view_->set_face_clicked([this](int face) { emit face_clicked(face); });
}

void PartCanvas::set_scene(sheets::SceneInput input, bool third_angle) {
  input_ = std::move(input);
  third_angle_ = third_angle;
  if (solid_source_) input_.solid = solid_source_();
  box_ = sheets::bounds(input_);
  lay_out();
  make_scenes();
  turning_view_->set_scene(input_, unit_);
  update();
}

void PartCanvas::draw_again() {
  if (!solid_source_) return;
  const auto now = solid_source_();
  if (now != input_.solid) set_scene(std::move(input_), third_angle_);
}

void PartCanvas::set_rings(std::vector<Ring> rings) {
  rings_ = std::move(rings);
  update();
}

void PartCanvas::set_lit_surface(int surface) {
  lit_ = surface;
  update();
}

void PartCanvas::set_empty_text(const QString& title, const QString& words) {
  empty_title_ = title;
  empty_words_ = words;
  update();
}

void PartCanvas::set_shown(const Pose& pose) {
  shown_ = pose;
  update();
}

void PartCanvas::set_grabbable(bool on) {
  grabbable_ = on;
  setFocusPolicy(on ? Qt::StrongFocus : Qt::NoFocus);
  setCursor(on ? Qt::OpenHandCursor : Qt::ArrowCursor);
}

void PartCanvas::set_active_view(sheets::View view) {
  active_ = view;
  update();
}

void PartCanvas::lay_out() {
  const double margin = std::min(theme().px(36), 48.0);
  views_ = sheets::lay_out(box_, {0, theme().px(8), static_cast<double>(width()), height() - theme().px(8)},
                           third_angle_, margin, margin);
  // The quarter beside the plan is free in both angles.
  const auto &plan = views_.cell[1], &end = views_.cell[2];
  const QRect free(static_cast<int>(end.left), static_cast<int>(plan.top),
                   static_cast<int>(width() - end.left), static_cast<int>(plan.height));
  turning_view_->setGeometry(free.adjusted(0, third_angle_ ? theme().ipx(26) : 0, -2, -2));
  turning_view_->setVisible(!input_.empty() && free.width() > theme().px(120) &&
                            free.height() > theme().px(100));
}

void PartCanvas::make_scenes() {
  for (std::size_t k = 0; k < 3; ++k) scenes_[k] = sheets::make_scene(input_, views_.axes[k]);
}

void PartCanvas::resizeEvent(QResizeEvent*) {
  lay_out();
}

/// The motion of the part as one view sees it. Turns out of the paper are small and not seen; the margins
/// beside the picture are worked out in full.
sheets::PaperMotion PartCanvas::motion_in(std::size_t k) const {
  const auto& axes = views_.axes[k];
  const Vec3 middle = (box_.low + box_.high) / 2;
  return {axes.on_paper(middle), axes.on_paper(shown_.apply(middle) - middle),
          vector_from_rotation(shown_.rotation).dot(axes.toward)};
}

int PartCanvas::place_of(int touch) const {
  const auto& touches = input_.touches;
  if (touches.empty() || touches.back().number < 0)
    return touch < static_cast<int>(touches.size()) ? touch : -1;
  const auto found =
      std::lower_bound(touches.begin(), touches.end(), touch,
                       [](const sheets::SceneTouch& t, int number) { return t.number < number; });
  return found != touches.end() && found->number == touch ? static_cast<int>(found - touches.begin()) : -1;
}

Vec2 PartCanvas::touch_px(int survey_touch, sheets::View view) const {
  const int touch = std::max(0, place_of(survey_touch));
  const auto k = static_cast<std::size_t>(view);
  return views_.frame[k].to_px(
      motion_in(k).apply(views_.axes[k].on_paper(input_.touches[static_cast<std::size_t>(touch)].at)));
}

QRectF PartCanvas::angle_label() const {
  return {width() - theme().px(130), theme().px(14), theme().px(114), theme().px(22)};
}

void PartCanvas::paint_empty(QPainter& painter) {
  const auto& t = theme();
  painter.setPen(t.blue.line);
  painter.setFont(t.title());
  const QRectF box(width() * 0.5 - t.px(230), height() * 0.5 - t.px(50), t.px(460), t.px(120));
  painter.drawText(box, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, empty_title_);
  painter.setFont(t.text());
  painter.setPen(t.blue.label);
  painter.drawText(box.adjusted(0, t.px(30), 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                   empty_words_);
}

/// Draft, flash, pores and the like: a small square with the first letter of what it is, where it is.
void PartCanvas::paint_spots(QPainter& painter) {
  const auto& t = theme();
  painter.save();
  painter.setFont(sheets::font(t.picture_px(11.5), true));
  // Points of a scan that belong to no surface for certain: small crosses.
  painter.setPen(QPen(t.blue.dim, 1));
  for (const auto& stray : input_.strays)
    for (std::size_t k = 0; k < 3; ++k) {
      const auto at = point(views_.frame[k].to_px(motion_in(k).apply(views_.axes[k].on_paper(stray))));
      painter.drawLine(at - QPointF(2, 2), at + QPointF(2, 2));
      painter.drawLine(at - QPointF(2, -2), at + QPointF(2, -2));
    }
  for (const auto& spot : input_.spots)
    for (std::size_t k = 0; k < 3; ++k) {
      const Vec2 at = views_.frame[k].to_px(motion_in(k).apply(views_.axes[k].on_paper(spot.at)));
      const QRectF box(at.x() - t.picture_px(7), at.y() - t.picture_px(7), t.picture_px(14),
                       t.picture_px(14));
      painter.setPen(QPen(t.blue.line, 1));
      painter.setBrush(t.blue.ground);
      painter.drawRect(box);
      painter.drawText(box, Qt::AlignCenter, qt(spot.letter));
    }
  painter.restore();
}

void PartCanvas::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  QPainterPath ground;
  ground.addRoundedRect(rect(), 4, 4);
  painter.fillPath(ground, t.blue.ground);
  painter.setClipPath(ground);
  if (input_.empty()) {
    paint_empty(painter);
    return;
  }
  sheets::SceneStyle style;
  style.ink = t.blue;
  style.lit_surface = lit_;
  for (std::size_t k = 0; k < 3; ++k) {
    const auto& cell = views_.cell[k];
    painter.save();
    painter.setClipRect(QRectF(cell.left, cell.top, cell.width, cell.height), Qt::IntersectClip);
    sheets::paint_scene(painter, scenes_[k], views_.frame[k], style, motion_in(k));
    painter.restore();
    const bool active = grabbable_ && hasFocus() && static_cast<std::size_t>(active_) == k;
    painter.setFont(t.text(active));
    painter.setPen(active ? t.blue.brass : t.blue.label);
    // A narrow view at the right has its name below the angle of the drawing, not under it.
    const bool meets = cell.top < t.px(40) &&
                       cell.left + t.px(16) + painter.fontMetrics().horizontalAdvance(sheets::view_names[k]) >
                           angle_label().left();
    painter.drawText(QPointF(cell.left + t.px(16), cell.top + t.px(meets ? 44 : 22)),
                     active && !t.large() ? QString(sheets::view_names[k]) + " \u00B7 arrows"
                                          : QString(sheets::view_names[k]));
  }
  painter.setFont(t.text());
  painter.setPen(t.blue.label);
  painter.drawText(angle_label(), Qt::AlignRight | Qt::AlignVCenter,
                   third_angle_ ? "third angle" : "first angle");
  paint_spots(painter);
  for (const auto& ring : rings_) {
    if (place_of(ring.touch) < 0) continue;
    for (std::size_t k = 0; k < 3; ++k)
      sheets::paint_ring(painter, touch_px(ring.touch, static_cast<sheets::View>(k)), ring.number, t.blue,
                         t.picture_px(6.5));
  }
  if (hasFocus()) {
    painter.setClipping(false);
    painter.setPen(QPen(t.blue.brass, 1.5));
    painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 4, 4);
  }
}

void PartCanvas::mousePressEvent(QMouseEvent* event) {
  if (angle_label().contains(event->position())) {
    emit angle_clicked();
    return;
  }
  if (event->button() != Qt::LeftButton) return;
  if (!grabbable_ && input_.solid) {
    const Vec2 here(event->position().x(), event->position().y());
    for (std::size_t k = 0; k < 3; ++k)
      if (views_.cell[k].contains(here))
        emit face_clicked(
            sheets::face_seen(input_.solid->solid, views_.axes[k], views_.frame[k].to_mm(here)));
  }
  if (!grabbable_) return;
  setFocus();
  const Vec2 at(event->position().x(), event->position().y());
  for (std::size_t k = 0; k < 3; ++k)
    if (views_.cell[k].contains(at)) {
      grabbed_view_ = k;
      active_ = static_cast<sheets::View>(k);
      grabbing_ = true;
      turning_ = event->modifiers().testFlag(Qt::AltModifier);
      grabbed_at_ = views_.frame[k].to_mm(at);
      grabbed_centre_ = motion_in(k).apply(views_.axes[k].on_paper((box_.low + box_.high) / 2));
      setCursor(Qt::ClosedHandCursor);
      emit view_chosen();
      emit grabbed();
      return;
    }
}

void PartCanvas::mouseMoveEvent(QMouseEvent* event) {
  if (!grabbing_) return;
  const auto& axes = views_.axes[grabbed_view_];
  const Vec2 now = views_.frame[grabbed_view_].to_mm({event->position().x(), event->position().y()});
  if (turning_) {
    const Vec2 a = grabbed_at_ - grabbed_centre_, b = now - grabbed_centre_;
    const double angle = std::atan2(a.x() * b.y() - a.y() * b.x(), a.dot(b));
    emit dragged(Vec3::Zero(), axes.toward * angle);
  } else {
    const Vec2 move = now - grabbed_at_;
    emit dragged(axes.right * move.x() + axes.up * move.y(), Vec3::Zero());
  }
}

void PartCanvas::mouseReleaseEvent(QMouseEvent*) {
  if (!grabbing_) return;
  grabbing_ = false;
  setCursor(Qt::OpenHandCursor);
  emit released();
}

bool PartCanvas::event(QEvent* event) {
  if (event->type() == QEvent::FocusIn || event->type() == QEvent::FocusOut) update();
  if (event->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(event);
    int nearest = -1;
    double best = 9;
    for (int i = 0; i < static_cast<int>(input_.touches.size()) && input_.touches.size() < 5000; ++i)
      for (const auto view : sheets::all_views) {
        const int number = input_.touches[static_cast<std::size_t>(i)].number;
        const double distance =
            (touch_px(number < 0 ? i : number, view) - Vec2(help->pos().x(), help->pos().y())).norm();
        if (distance < best) {
          best = distance;
          nearest = i;
        }
      }
    if (nearest >= 0) {
      const auto& touch = input_.touches[static_cast<std::size_t>(nearest)];
      QToolTip::showText(help->globalPos(),
                         filled("touch %1 on %2", (touch.number < 0 ? nearest : touch.number) + 1,
                                name_words(input_.surfaces[static_cast<std::size_t>(touch.surface)].name)),
                         this);
    } else {
      QToolTip::hideText();
    }
    return true;
  }
  return QWidget::event(event);
}

} // namespace datrin::app
