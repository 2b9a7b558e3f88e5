#include "app/marks/turning_view.h"

#include "app/theme.h"
#include "sheets/figures.h"
#include "sheets/shade.h"
#include "sheets/solid_picture.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QWheelEvent>

#include <algorithm>
#include <array>
#include <cmath>

namespace datrin::app {

namespace {

constexpr double first_yaw = 0.55, first_pitch = 0.4; // radians
constexpr double key_turn = 5 * pi / 180;

QColor mix(const QColor& a, const QColor& b, double f) {
  return QColor::fromRgbF(float(a.redF() + (b.redF() - a.redF()) * f),
                          float(a.greenF() + (b.greenF() - a.greenF()) * f),
                          float(a.blueF() + (b.blueF() - a.blueF()) * f));
}

} // namespace

TurningView::TurningView(QWidget* parent) : QWidget(parent), yaw_(first_yaw), pitch_(first_pitch) {
  later_.setSingleShot(true);
  connect(&later_, &QTimer::timeout, this, [this] { update(); });
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::SizeAllCursor);
  setAccessibleName("Turning view");
  setAccessibleDescription(
      "Arrows turn it; X, Y, Z cut it across; Page Up and Page Down move the cut; Home turns back");
  setToolTip(
      "Drag or arrows turn. X, Y, Z cut across; wheel or Page Up, Page Down move the cut. Home turns back.\n"
      "Figures: metal over the finished surface, by a plane or circle through its touches.");
}

void TurningView::set_scene(sheets::SceneInput input, Unit unit) {
  if (input.solid != input_.solid) lit_face_ = -1; // its faces count anew
  input_ = std::move(input);
  unit_ = unit;
  stale_ = true;
  update();
}

void TurningView::turn_to(double yaw, double pitch) {
  yaw_ = std::remainder(yaw, 2 * pi);
  pitch_ = std::clamp(pitch, -pi / 2, pi / 2);
  change_now();
}

void TurningView::cut_across(int axis) {
  const auto box = sheets::bounds(input_);
  // The near side is taken away, whichever that is now.
  const auto axes = sheets::turned_axes(yaw_, pitch_);
  const double sign = axes.toward[axis] >= 0 ? 1 : -1;
  const Vec3 normal = sign * Vec3::Unit(axis);
  if (section_ && std::abs(section_->normal[axis]) > 0.5)
    section_.reset();
  else
    section_ = sheets::SectionPlane{normal, normal.dot((box.low + box.high) / 2)};
  change_now();
}

void TurningView::move_cut(double mm) {
  if (!section_) return;
  const auto box = sheets::bounds(input_);
  const double a = section_->normal.dot(box.low), b = section_->normal.dot(box.high);
  section_->at = std::clamp(section_->at + mm, std::min(a, b), std::max(a, b));
  change_now();
}

QString TurningView::caption() const {
  if (!section_) return "Turned";
  int axis = 0;
  section_->normal.cwiseAbs().maxCoeff(&axis);
  const double at = section_->at * section_->normal[axis];
  return filled("Cut at %1 %2", QChar('x' + axis), sheets::figure_with_unit(at, unit_));
}

void TurningView::make() {
  if (!stale_) return;
  stale_ = false;
  scene_ = sheets::make_turned(input_, sheets::turned_axes(yaw_, pitch_), section_);
}

void TurningView::resizeEvent(QResizeEvent*) {
  update();
}

void TurningView::change_now() {
  stale_ = true;
  made_.invalidate();
  update();
}

void TurningView::paintEvent(QPaintEvent*) {
  constexpr int rest_ms = 60;
  if (input_.empty()) return;
  const bool other_size = picture_.deviceIndependentSize().toSize() != size();
  if (stale_ && !other_size && made_.isValid() && made_.elapsed() < rest_ms) {
    later_.start(rest_ms);
  } else if (stale_ || other_size || focused_ != hasFocus()) {
    render();
  }
  QPainter(this).drawPixmap(0, 0, picture_);
}

void TurningView::render() {
  make();
  made_.start();
  focused_ = hasFocus();
  picture_ = QPixmap(size() * devicePixelRatioF());
  picture_.setDevicePixelRatio(devicePixelRatioF());
  picture_.fill(Qt::transparent);
  QPainter painter(&picture_);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const auto& ink = t.blue;
  const double room = std::max(20.0, std::min(width() - t.px(20), height() - t.px(40)));
  // The sphere it turns in leaves much empty at the corners: somewhat larger than it fits best.
  const double scale = 1.28 * room / std::max(1.0, (scene_.high - scene_.low).maxCoeff());
  const Vec2 middle = (scene_.low + scene_.high) / 2;
  const QPointF centre(width() / 2.0, height() / 2.0 + t.px(8));
  const auto px = [&](const Vec2& at) {
    return QPointF(centre.x() + (at.x() - middle.x()) * scale, centre.y() - (at.y() - middle.y()) * scale);
  };
  scale_ = scale;
  middle_ = middle;
  centre_ = centre;
  if (input_.solid) paint_solid(painter, scale, middle, centre);
  const auto path_of = [&](const sheets::TurnedFace& face) {
    QPolygonF polygon;
    for (const auto& at : face.outline) polygon << px(at);
    return polygon;
  };
  double most = 0.1;
  for (const auto& face : scene_.faces) most = std::max(most, face.stock);
  for (const auto& face : scene_.faces) {
    const auto polygon = path_of(face);
    if (face.role == sheets::TurnedFace::Role::rough) {
      // Raw metal: the more of it, the brighter; short of metal in the colour of what is gone.
      QColor shade = face.stock < 0 ? QColor("#F0806C") : ink.dim;
      shade.setAlphaF(float(std::clamp(0.10 + 0.34 * std::abs(face.stock) / most, 0.0, 0.5)));
      painter.setPen(face.edge ? QPen(ink.dim, 0.8) : QPen(Qt::NoPen));
      painter.setBrush(shade);
      painter.drawPolygon(polygon);
      continue;
    }
    const bool hole = face.role == sheets::TurnedFace::Role::hole;
    const QColor fill = hole ? ink.ground.darker(125) : mix(ink.ground, ink.plate.lighter(135), face.light);
    painter.setBrush(fill);
    painter.setPen(face.edge ? QPen(face.role == sheets::TurnedFace::Role::cast ? ink.dim : ink.line, 1.1)
                             : QPen(fill, 0.7)); // strips close over their seams
    painter.drawPolygon(polygon);
  }
  painter.setPen(QPen(ink.dim, 1.2));
  for (const auto& [a, b] : scene_.cut_rough) painter.drawLine(px(a), px(b));
  painter.setPen(QPen(ink.brass, 1.8));
  for (const auto& [a, b] : scene_.cut) painter.drawLine(px(a), px(b));
  if (scene_.pips.size() <= 400) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(ink.brass);
    for (const auto& pip : scene_.pips) painter.drawEllipse(px(pip.at), 1.5, 1.5);
  }
  painter.setFont(t.small(true));
  for (const auto& figure : scene_.figures) {
    const auto words = sheets::figure(figure.stock, unit_, true);
    const auto at = px(figure.at);
    const double w = painter.fontMetrics().horizontalAdvance(words) + 8;
    const QRectF tag(at.x() - w / 2, at.y() - t.px(9), w, t.px(17));
    painter.setPen(Qt::NoPen);
    QColor back = ink.ground;
    back.setAlpha(205);
    painter.setBrush(back);
    painter.drawRoundedRect(tag, 3, 3);
    painter.setPen(figure.stock < 0 ? QColor("#F0A090") : ink.line);
    painter.drawText(tag, Qt::AlignCenter, words);
  }
  painter.setFont(t.text(hasFocus()));
  painter.setPen(hasFocus() ? ink.brass : ink.label);
  painter.drawText(QPointF(t.px(16), t.px(22)), caption());
  if (section_ && wall_near_) {
    painter.setFont(t.small());
    painter.setPen(ink.label);
    painter.drawText(QRectF(t.px(16), height() - t.px(24), width() - t.px(24), t.px(20)),
                     Qt::AlignLeft | Qt::AlignVCenter, wall_near_(*section_));
  }
}

void TurningView::set_lit_face(int face) {
  if (face == lit_face_) return;
  lit_face_ = face;
  change_now();
}

void TurningView::paint_solid(QPainter& painter, double scale, const Vec2& middle, const QPointF& centre) {
  // Twice as fine as the screen, and drawn down to it: edges come out smooth.
  const double fine = 2 * devicePixelRatioF();
  sheets::ShadeInput in;
  in.axes = sheets::turned_axes(yaw_, pitch_);
  in.width = static_cast<int>(width() * fine);
  in.height = static_cast<int>(height() * fine);
  in.scale = scale * fine;
  in.middle_mm = middle + Vec2((width() / 2.0 - centre.x()) / scale, -(height() / 2.0 - centre.y()) / scale);
  in.section = section_;
  const auto shaded = sheets::shade(input_.solid->solid, in);
  const auto& ink = theme().blue;
  std::array<QRgb, 256> metal{}, lit{}, cut{};
  for (int k = 0; k < 256; ++k) {
    const auto at = static_cast<std::size_t>(k);
    metal[at] = mix(ink.ground.darker(118), ink.plate.lighter(185), k / 255.0).rgb();
    lit[at] = mix(ink.ground.darker(112), ink.brass, 0.25 + 0.75 * k / 255.0).rgb();
    cut[at] = mix(ink.ground, ink.plate, 0.5).rgb();
  }
  QImage image(in.width, in.height, QImage::Format_ARGB32);
  constexpr int hatch = 14, hatch_line = 2; // fine pixels
  for (int y = 0; y < in.height; ++y) {
    auto* row = reinterpret_cast<QRgb*>(image.scanLine(y));
    for (int x = 0; x < in.width; ++x) {
      const auto k =
          static_cast<std::size_t>(y) * static_cast<std::size_t>(in.width) + static_cast<std::size_t>(x);
      const auto face = shaded.face[k];
      if (face == sheets::Shaded::nothing && shaded.edge[k] == 0) {
        row[x] = 0;
        continue;
      }
      QRgb colour = face == sheets::Shaded::cut
                        ? ((x + y) % hatch < hatch_line ? ink.line.rgb() : cut[shaded.light[k]])
                    : face == lit_face_ && face >= 0 ? lit[shaded.light[k]]
                    : face >= 0                      ? metal[shaded.light[k]]
                                                     : metal[0];
      if (shaded.edge[k] == 255)
        colour = ink.line.rgb();
      else if (shaded.edge[k] > 0)
        colour = mix(QColor(colour), ink.line, 0.3).rgb();
      row[x] = colour;
    }
  }
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.drawImage(QRectF(0, 0, width(), height()), image);
}

void TurningView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  pressed_ = pressed_first_ = event->position();
}

void TurningView::mouseReleaseEvent(QMouseEvent* event) {
  constexpr double still = 3; // pixels: a click, no turning
  if (!face_clicked_ || !input_.solid || (event->position() - pressed_first_).manhattanLength() > still)
    return;
  const Vec2 paper(middle_.x() + (event->position().x() - centre_.x()) / scale_,
                   middle_.y() - (event->position().y() - centre_.y()) / scale_);
  face_clicked_(sheets::face_seen(input_.solid->solid, sheets::turned_axes(yaw_, pitch_), paper));
}

void TurningView::mouseMoveEvent(QMouseEvent* event) {
  if (!event->buttons().testFlag(Qt::LeftButton)) return;
  const QPointF by = event->position() - pressed_;
  pressed_ = event->position();
  turn_to(yaw_ - by.x() * 0.01, pitch_ + by.y() * 0.01);
}

void TurningView::mouseDoubleClickEvent(QMouseEvent*) {
  section_.reset();
  turn_to(first_yaw, first_pitch);
}

void TurningView::wheelEvent(QWheelEvent* event) {
  move_cut(event->angleDelta().y() > 0 ? 0.5 : -0.5);
}

void TurningView::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
  case Qt::Key_Left:
    turn_to(yaw_ - key_turn, pitch_);
    return;
  case Qt::Key_Right:
    turn_to(yaw_ + key_turn, pitch_);
    return;
  case Qt::Key_Up:
    turn_to(yaw_, pitch_ + key_turn);
    return;
  case Qt::Key_Down:
    turn_to(yaw_, pitch_ - key_turn);
    return;
  case Qt::Key_X:
    cut_across(0);
    return;
  case Qt::Key_Y:
    cut_across(1);
    return;
  case Qt::Key_Z:
    cut_across(2);
    return;
  case Qt::Key_PageUp:
    move_cut(0.5);
    return;
  case Qt::Key_PageDown:
    move_cut(-0.5);
    return;
  case Qt::Key_Home:
    mouseDoubleClickEvent(nullptr);
    return;
  default:
    QWidget::keyPressEvent(event);
  }
}

} // namespace datrin::app
