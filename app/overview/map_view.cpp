#include "app/overview/map_view.h"

#include "app/marks/empty_view.h"
#include "app/marks/room_mark.h"
#include "app/theme.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "sheets/figures.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::app {

using sheets::qt;

MapView::MapView(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(240);
  setAccessibleName("Map of the parts that mate");
}

void MapView::set_empty_text(const QString& title, const QString& words) {
  title_ = title;
  words_ = words;
  update();
}

void MapView::show_map(std::vector<MapPart> parts, std::vector<MapJoint> joints) {
  const bool same = parts.size() == parts_.size() && joints.size() == joints_.size() && !parts.empty() &&
                    std::equal(parts.begin(), parts.end(), parts_.begin(),
                               [](const auto& a, const auto& b) { return a.part == b.part; }) &&
                    std::equal(joints.begin(), joints.end(), joints_.begin(),
                               [](const auto& a, const auto& b) { return a.a == b.a && a.b == b.b; });
  parts_ = std::move(parts);
  joints_ = std::move(joints);
  stand_side_by_side();
  if (!same) {
    std::vector<MapLink> links;
    for (const auto& j : joints_) links.push_back({j.a, j.b});
    places_ = lay_out_map(static_cast<int>(parts_.size()), links);
    moved_ = false;
    fit();
  }
  setAccessibleDescription(
      qt(counted(parts_.size(), "part", "parts") + ", " + counted(joints_.size(), "joint", "joints")));
  update();
}

/// Several joints between the same two parts have their marks one after the other.
void MapView::stand_side_by_side() {
  std::map<std::pair<int, int>, std::vector<std::size_t>> between;
  for (std::size_t k = 0; k < joints_.size(); ++k)
    between[std::minmax(joints_[k].a, joints_[k].b)].push_back(k);
  along_.assign(joints_.size(), 0.5);
  for (const auto& [ends, list] : between)
    for (std::size_t k = 0; k < list.size(); ++k)
      along_[list[k]] = (static_cast<double>(k) + 1) / (static_cast<double>(list.size()) + 1);
}

void MapView::set_chosen(build::Id part) {
  chosen_ = part;
  update();
}

void MapView::fit() {
  if (places_.empty() || width() < 20 || height() < 20) return;
  double right = 0, bottom = 0;
  for (const auto& p : places_) {
    right = std::max(right, p.x + plate_wide / 2);
    bottom = std::max(bottom, p.y + plate_high / 2);
  }
  const double edge = 22, head = theme().px(34);
  zoom_ = std::clamp(std::min((width() - 2 * edge) / right, (height() - edge - head) / bottom), 0.15, 1.25);
  shift_ = {(width() - right * zoom_) / 2, head + (height() - edge - head - bottom * zoom_) / 2};
  update();
}

QPointF MapView::place_px(int part) const {
  const auto& p = places_[static_cast<std::size_t>(part)];
  return {shift_.x() + p.x * zoom_, shift_.y() + p.y * zoom_};
}

QPointF MapView::joint_px(int joint) const {
  const auto& j = joints_[static_cast<std::size_t>(joint)];
  // Along what is seen of the line between the two plates.
  const QPointF a = place_px(j.a), b = place_px(j.b), way = b - a;
  const double hidden = std::min(std::abs(way.x()) > 1e-9 ? plate_wide * zoom_ / 2 / std::abs(way.x()) : 1.0,
                                 std::abs(way.y()) > 1e-9 ? plate_high * zoom_ / 2 / std::abs(way.y()) : 1.0);
  const double first = std::min(0.45, hidden), last = 1 - first;
  return a + way * (first + (last - first) * along_[static_cast<std::size_t>(joint)]);
}

QRectF MapView::plate(int part) const {
  const double wide = plate_wide * zoom_, high = plate_high * zoom_;
  const auto middle = place_px(part);
  return {middle.x() - wide / 2, middle.y() - high / 2, wide, high};
}

void MapView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  p.fillRect(rect(), t.blue.ground);
  if (parts_.empty()) {
    paint_empty(p, rect(), {title_, words_});
    return;
  }
  for (int k = 0; k < static_cast<int>(joints_.size()); ++k) {
    const auto& j = joints_[static_cast<std::size_t>(k)];
    const auto state = j.known ? room_state(j.room, j.limiting, 1) : RoomState::unknown;
    const QColor ink = state == RoomState::comfortable ? t.blue.dim
                       : state == RoomState::unknown   ? t.blue.plate
                                                       : t.blue.brass;
    p.setPen(QPen(ink, state == RoomState::comfortable ? 1.1 : 1.6,
                  state == RoomState::unknown ? Qt::DashLine : Qt::SolidLine));
    p.drawLine(place_px(j.a), place_px(j.b));
  }
  for (int k = 0; k < static_cast<int>(parts_.size()); ++k) {
    const auto& part = parts_[static_cast<std::size_t>(k)];
    const auto area = plate(k);
    if (!area.intersects(QRectF(rect()))) continue;
    const bool here = part.part == chosen_;
    p.setBrush(t.blue.plate);
    p.setPen(QPen(here        ? t.blue.brass
                  : part.next ? t.blue.line
                              : t.blue.dim,
                  here ? (hasFocus() ? 2.2 : 1.6) : 1));
    p.drawRoundedRect(area, 4, 4);
    if (area.width() < 40) continue;
    // How much of it is made: a bar along its foot, filled from the left.
    p.setPen(Qt::NoPen);
    p.setBrush(t.blue.brass);
    if (part.done > 0)
      p.drawRect(QRectF(area.left() + 4, area.bottom() - 4, (area.width() - 8) * part.done, 2.5));
    const double size = std::clamp(13 * zoom_, 9.5, 14.0) * (t.large() ? 1.3 : 1);
    p.setFont(sheets::font(size, here));
    p.setPen(part.done >= 1 ? t.blue.brass : t.blue.line);
    const bool two = area.height() > size * 2.7;
    const QRectF text = area.adjusted(6, two ? area.height() * 0.1 : 0, -6, two ? -area.height() * 0.48 : -2);
    p.drawText(text, Qt::AlignLeft | Qt::AlignVCenter,
               p.fontMetrics().elidedText(part.name, Qt::ElideRight, static_cast<int>(text.width())));
    if (two) {
      p.setFont(sheets::font(size * 0.84));
      p.setPen(t.blue.label);
      const QRectF below = area.adjusted(6, area.height() * 0.46, -6, -area.height() * 0.12);
      p.drawText(below, Qt::AlignLeft | Qt::AlignVCenter,
                 p.fontMetrics().elidedText(part.below, Qt::ElideRight, static_cast<int>(below.width())));
    }
  }
  // Room marks on the joints: round, arrow, cross; the figure where there is space for it.
  const bool figures = zoom_ > 0.62;
  p.setFont(sheets::font(std::clamp(11 * zoom_, 9.5, 12.0)));
  for (int k = 0; k < static_cast<int>(joints_.size()); ++k) {
    const auto& j = joints_[static_cast<std::size_t>(k)];
    if (!j.known) continue;
    const auto state = room_state(j.room, j.limiting, 1);
    const QPointF at = joint_px(k);
    const double r = std::clamp(4.5 * zoom_, 2.6, 5.0);
    if (state == RoomState::comfortable) {
      p.setPen(Qt::NoPen);
      p.setBrush(t.blue.line);
      p.drawEllipse(at, r, r);
    } else if (state == RoomState::tight) {
      p.setPen(Qt::NoPen);
      p.setBrush(t.blue.brass);
      p.drawPolygon(
          QPolygonF({at + QPointF(-r, -1.3 * r), at + QPointF(1.5 * r, 0), at + QPointF(-r, 1.3 * r)}));
    } else {
      p.setPen(QPen(t.blue.brass, 2));
      p.drawLine(at + QPointF(-r, -r), at + QPointF(r, r));
      p.drawLine(at + QPointF(-r, r), at + QPointF(r, -r));
    }
    if (figures && state != RoomState::comfortable) {
      p.setPen(t.blue.brass);
      p.drawText(at + QPointF(-10, -1.8 * r), qt(number_text(j.room, 1, true)));
    }
  }
  p.setFont(t.small());
  p.setPen(t.blue.label);
  p.drawText(QRectF(t.px(14), t.px(7), width() - t.px(28), t.px(20)), Qt::AlignLeft | Qt::AlignVCenter,
             QString("Parts and the joints between them \u00B7 round: comfortable \u00B7 arrow: tight \u00B7 "
                     "cross: gone \u00B7 brass bar: made"));
}

int MapView::part_at(const QPointF& px) const {
  for (int k = 0; k < static_cast<int>(parts_.size()); ++k)
    if (plate(k).contains(px)) return k;
  return -1;
}

int MapView::joint_at(const QPointF& px) const {
  for (int k = 0; k < static_cast<int>(joints_.size()); ++k) {
    const auto away = joint_px(k) - px;
    if (std::hypot(away.x(), away.y()) < 9) return k;
  }
  return -1;
}

void MapView::mousePressEvent(QMouseEvent* event) {
  pressed_ = last_ = event->position();
  dragging_ = true;
}

void MapView::mouseMoveEvent(QMouseEvent* event) {
  if (!dragging_) return;
  shift_ += event->position() - last_;
  last_ = event->position();
  moved_ = true;
  update();
}

void MapView::mouseReleaseEvent(QMouseEvent* event) {
  dragging_ = false;
  const auto way = event->position() - pressed_;
  if (std::hypot(way.x(), way.y()) > 4) return;
  if (const int j = joint_at(event->position()); j >= 0)
    emit joint_opened(joints_[static_cast<std::size_t>(j)].joint);
  else if (const int k = part_at(event->position()); k >= 0)
    emit part_chosen(parts_[static_cast<std::size_t>(k)].part);
}

void MapView::mouseDoubleClickEvent(QMouseEvent* event) {
  if (const int k = part_at(event->position()); k >= 0)
    emit part_opened(parts_[static_cast<std::size_t>(k)].part);
}

void MapView::zoom_by(double factor, const QPointF& about) {
  const double next = std::clamp(zoom_ * factor, 0.12, 4.0);
  shift_ = about + (shift_ - about) * (next / zoom_);
  zoom_ = next;
  moved_ = true;
  update();
}

void MapView::wheelEvent(QWheelEvent* event) {
  zoom_by(std::pow(1.0015, event->angleDelta().y()), event->position());
}

void MapView::keyPressEvent(QKeyEvent* event) {
  const QPointF middle(width() / 2.0, height() / 2.0);
  switch (event->key()) {
  case Qt::Key_Plus:
  case Qt::Key_Equal:
    return zoom_by(1.2, middle);
  case Qt::Key_Minus:
    return zoom_by(1 / 1.2, middle);
  case Qt::Key_0:
  case Qt::Key_Home:
    moved_ = false;
    return fit();
  case Qt::Key_Return:
  case Qt::Key_Enter:
    if (chosen_ != 0) emit part_opened(chosen_);
    return;
  default:
    break;
  }
  const QPointF way = event->key() == Qt::Key_Left    ? QPointF(-1, 0)
                      : event->key() == Qt::Key_Right ? QPointF(1, 0)
                      : event->key() == Qt::Key_Up    ? QPointF(0, -1)
                      : event->key() == Qt::Key_Down  ? QPointF(0, 1)
                                                      : QPointF();
  if (way.isNull() || parts_.empty()) return QWidget::keyPressEvent(event);
  int from = 0;
  for (int k = 0; k < static_cast<int>(parts_.size()); ++k)
    if (parts_[static_cast<std::size_t>(k)].part == chosen_) from = k;
  int best = -1;
  double nearest = 1e18;
  for (int k = 0; k < static_cast<int>(parts_.size()); ++k) {
    const auto d = place_px(k) - place_px(from);
    const double along = QPointF::dotProduct(d, way);
    if (k == from || along < 1) continue;
    const double across = std::abs(d.x() * way.y() - d.y() * way.x());
    if (along + 2 * across < nearest) {
      nearest = along + 2 * across;
      best = k;
    }
  }
  if (best >= 0) emit part_chosen(parts_[static_cast<std::size_t>(best)].part);
}

void MapView::resizeEvent(QResizeEvent*) {
  if (!moved_) fit();
}

bool MapView::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(event);
    if (const int j = joint_at(help->pos()); j >= 0) {
      const auto& joint = joints_[static_cast<std::size_t>(j)];
      QToolTip::showText(help->globalPos(),
                         joint.known
                             ? QString("%1: room %2").arg(joint.name, qt(number_text(joint.room, 1, true)))
                             : joint.name);
    } else if (const int k = part_at(help->pos()); k >= 0) {
      const auto& part = parts_[static_cast<std::size_t>(k)];
      QToolTip::showText(help->globalPos(), part.name + ", " + part.below);
    }
    return true;
  }
  return QWidget::event(event);
}

} // namespace datrin::app
