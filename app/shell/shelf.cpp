#include "app/shell/shelf.h"

#include "app/casting/piece_state.h"
#include "app/shell/column.h"
#include "app/theme.h"
#include "sheets/figures.h"
#include "sheets/scene_paint.h"
#include "sheets/three_views.h"

#include <QKeyEvent>
#include <QPainter>
#include <QScrollArea>

namespace datrin::app {

using sheets::qt;

namespace {

/// The part's front view as a small line drawing; the view that shows a bore's circle when there is one.
QPixmap silhouette_of(const build::Build& build, build::Id part, const QSize& size, double ratio) {
  // Drawn anew only when the part's drawing, the size or the colours changed: an edit elsewhere redraws
  // nothing.
  struct Drawn {
    build::List<build::PartSurface> surfaces;
    QSize size;
    QRgb ink = 0;
    QPixmap pixmap;
  };
  static std::map<build::Id, Drawn> drawn;
  auto& kept = drawn[part];
  auto surfaces = build.surfaces_of(part);
  if (!kept.pixmap.isNull() && kept.size == size && kept.ink == theme().ink.rgb() &&
      kept.surfaces == surfaces && kept.pixmap.devicePixelRatio() == ratio)
    return kept.pixmap;
  kept = {std::move(surfaces), size, theme().ink.rgb(), {}};
  QPixmap pixmap(size * ratio);
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Qt::transparent);
  const auto scene_input = part_scene(build, part);
  if (scene_input.surfaces.empty()) return pixmap;
  Vec3 eye = -Vec3::UnitY(), up = Vec3::UnitZ();
  for (const auto& s : scene_input.surfaces)
    if (s.shape.round()) {
      if (std::abs(s.shape.direction.z()) > 0.9) {
        eye = Vec3::UnitZ();
        up = Vec3::UnitY();
      } else if (std::abs(s.shape.direction.x()) > 0.9) {
        eye = -Vec3::UnitX();
      }
      break;
    }
  const auto scene = sheets::make_scene(scene_input, sheets::elevation(up, eye));
  const Vec2 span = (scene.high - scene.low).cwiseMax(1.0);
  sheets::ViewFrame frame;
  frame.middle_mm = (scene.low + scene.high) / 2;
  frame.middle_px = {size.width() / 2.0, size.height() / 2.0};
  frame.scale = std::min((size.width() - 4) / span.x(), (size.height() - 4) / span.y());
  sheets::SceneStyle style;
  const auto& t = theme();
  style.ink = {t.paper, Qt::transparent, t.ink, t.muted, t.brass, t.muted};
  style.ink.plate = t.track;
  style.pen = 0.75;
  style.show_touches = false;
  auto quiet = scene;
  std::erase_if(quiet.paths, [](const sheets::ScenePath& path) {
    return path.role == sheets::Role::centre || path.role == sheets::Role::hidden;
  });
  QPainter painter(&pixmap);
  sheets::paint_scene(painter, quiet, frame, style);
  painter.end();
  kept.pixmap = pixmap;
  return pixmap;
}

} // namespace

ShelfItem::ShelfItem(Document& document, build::Id part, build::Id piece, QWidget* parent)
    : QWidget(parent), document_(document), part_(part), piece_(piece) {
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::PointingHandCursor);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  const auto& b = document.build();
  const auto* p = b.find<build::Part>(part);
  const auto* one = b.find<build::Piece>(piece);
  name_ = p ? qt(p->name) : QString();
  const auto count = b.pieces_of(part).size();
  const auto touches = b.touches_of(piece).size();
  const bool seated = b.seat_of(piece).has_value();
  done_ = (b.surfaces_of(part).empty() ? 0.0 : 1.0 / 3) + (touches > 0 ? 1.0 / 3 : 0.0) +
          (seated ? 1.0 / 3 : 0.0);
  const QString state = seated ? "seated" : touches > 0 ? QString("%1 touches").arg(touches) : "not begun";
  below_ = count > 1 && one ? QString("no. %1 \u00B7 %2").arg(one->number).arg(state) : state;
  setAccessibleName(QString("%1, %2").arg(name_, below_));
  silhouette_ = silhouette_of(
      b, part, {static_cast<int>(theme().picture_px(42)), static_cast<int>(theme().picture_px(34))},
      devicePixelRatioF());
}

QSize ShelfItem::sizeHint() const {
  return {theme().ipx(180), theme().ipx(58)};
}

void ShelfItem::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const bool here = document_.piece() == piece_ && document_.part() == part_;
  const QRectF area = QRectF(rect()).adjusted(0.5, 1.5, -0.5, -1.5);
  if (here || hasFocus()) {
    painter.setPen(QPen(hasFocus() ? t.brass : t.hairline, 1));
    painter.setBrush(here ? QBrush(t.raised) : QBrush(Qt::NoBrush));
    painter.drawRoundedRect(area, 5, 5);
  }
  painter.drawPixmap(QPointF(t.picture_px(8), (height() - t.picture_px(34)) / 2), silhouette_);
  const double left = t.picture_px(58), right = width() - t.picture_px(34);
  painter.setFont(t.text(here));
  painter.setPen(t.ink);
  painter.drawText(QRectF(left, t.px(9), right - left, t.px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(name_, Qt::ElideRight, static_cast<int>(right - left)));
  painter.setFont(t.small());
  painter.setPen(t.muted);
  const double wide = width() - left - t.picture_px(8); // below the ring
  painter.drawText(QRectF(left, t.px(31), wide, t.px(18)), Qt::AlignLeft | Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(below_, Qt::ElideRight, static_cast<int>(wide)));
  const double round = t.picture_px(15);
  const QRectF ring(width() - round - t.picture_px(11), t.px(19) - round / 2, round, round);
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(t.track, t.picture_px(3)));
  painter.drawEllipse(ring);
  painter.setPen(QPen(t.brass, t.picture_px(3), Qt::SolidLine, Qt::FlatCap));
  painter.drawArc(ring, 90 * 16, static_cast<int>(-360 * 16 * done_));
}

void ShelfItem::mousePressEvent(QMouseEvent*) {
  emit chosen();
}

void ShelfItem::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
    emit chosen();
  else if (event->key() == Qt::Key_Down)
    focusNextChild();
  else if (event->key() == Qt::Key_Up)
    focusPreviousChild();
  else
    QWidget::keyPressEvent(event);
}

Shelf::Shelf(Document& document, QWidget* parent) : QWidget(parent), document_(document), list_(new QWidget) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 16, 8, 12);
  column->setSpacing(6);
  auto* heading = heading_label("Parts");
  heading->setContentsMargins(12, 0, 0, 0);
  column->addWidget(heading);
  auto* scroll = new QScrollArea;
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* rows = new QVBoxLayout(list_);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(2);
  rows->addStretch(1);
  scroll->setWidget(list_);
  scroll->setFocusPolicy(Qt::NoFocus);
  column->addWidget(scroll, 1);
  auto* add = new QPushButton("Add a part");
  add->setToolTip("Ctrl+Shift+N");
  add->setShortcut(QKeySequence("Ctrl+Shift+N"));
  column->addWidget(add);
  auto* quick = new QPushButton("From a few sizes\u2026");
  quick->setToolTip("Ctrl+Shift+Q");
  column->addWidget(quick);
  connect(quick, &QPushButton::clicked, this, &Shelf::quick_part);
  connect(add, &QPushButton::clicked, this, &Shelf::add_part);
}

void Shelf::refresh() {
  ShelfItem* focused = nullptr;
  for (auto* item : items_)
    if (item->hasFocus()) focused = item;
  const build::Id focused_piece = focused ? focused->piece() : 0;
  for (auto* item : items_) {
    item->hide();
    item->deleteLater();
  }
  items_.clear();
  auto* rows = static_cast<QVBoxLayout*>(list_->layout());
  for (const auto& [part, record] : document_.build().parts())
    for (const auto& [piece, p] : document_.build().pieces_of(part)) {
      auto* item = new ShelfItem(document_, part, piece);
      connect(item, &ShelfItem::chosen, this,
              [this, part_id = part, piece_id = piece] { document_.choose(part_id, piece_id); });
      rows->insertWidget(rows->count() - 1, item);
      items_.push_back(item);
      if (focused != nullptr && piece == focused_piece) item->setFocus();
    }
}

} // namespace datrin::app
