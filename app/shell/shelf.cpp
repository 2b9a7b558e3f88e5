#include "app/shell/shelf.h"

#include "app/casting/piece_state.h"
#include "app/marks/column.h"
#include "app/theme.h"
#include "sheets/scene_paint.h"
#include "sheets/three_views.h"

#include <QPainter>

namespace datrin::app {

namespace {

/// The side from which a part's silhouette says most: the one that shows its first round surface as a circle.
sheets::ViewAxes telling_view(const sheets::SceneInput& scene) {
  Vec3 eye = -Vec3::UnitY(), up = Vec3::UnitZ();
  for (const auto& s : scene.surfaces)
    if (s.shape.round()) {
      if (std::abs(s.shape.direction.z()) > 0.9) {
        eye = Vec3::UnitZ();
        up = Vec3::UnitY();
      } else if (std::abs(s.shape.direction.x()) > 0.9) {
        eye = -Vec3::UnitX();
      }
      break;
    }
  return sheets::elevation(up, eye);
}

QSize picture_size() {
  return {static_cast<int>(theme().picture_px(42)), static_cast<int>(theme().picture_px(34))};
}

QPixmap draw_silhouette(Document& document, build::Id part, double ratio) {
  const auto size = picture_size();
  QPixmap pixmap(size * ratio);
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Qt::transparent);
  auto scene_input = part_scene(document.build(), part);
  if (const auto solid = document.solid_of(part)) scene_input.solid = solid->picture;
  if (scene_input.empty()) return pixmap;
  auto scene = sheets::make_scene(scene_input, telling_view(scene_input));
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
  std::erase_if(scene.paths, [](const sheets::ScenePath& path) {
    return path.role == sheets::Role::centre || path.role == sheets::Role::hidden ||
           path.role == sheets::Role::smooth;
  });
  QPainter painter(&pixmap);
  sheets::paint_scene(painter, scene, frame, style);
  return pixmap;
}

} // namespace

ShelfDelegate::ShelfDelegate(Document& document, QObject* parent)
    : QStyledItemDelegate(parent), document_(document) {}

QPixmap ShelfDelegate::silhouette(build::Id part, double ratio) const {
  auto& kept = drawn_[part];
  auto surfaces = document_.build().surfaces_of(part);
  auto solid = document_.solid_of(part);
  if (!kept.pixmap.isNull() && kept.ink == theme().ink.rgb() && kept.surfaces == surfaces &&
      kept.solid == solid && kept.pixmap.devicePixelRatio() == ratio &&
      kept.pixmap.deviceIndependentSize() == picture_size())
    return kept.pixmap;
  kept = {std::move(surfaces), std::move(solid), theme().ink.rgb(), draw_silhouette(document_, part, ratio)};
  return kept.pixmap;
}

QSize ShelfDelegate::sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const {
  return {theme().ipx(180), theme().ipx(60)};
}

void ShelfDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option,
                          const QModelIndex& index) const {
  painter->save();
  painter->setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const auto part = index.data(ShelfModel::part_role).toLongLong();
  const bool here = document_.piece() == index.data(ShelfModel::piece_role).toLongLong();
  const bool focused = option.state.testFlag(QStyle::State_HasFocus);
  const QRectF row(option.rect);
  if (here || focused) {
    painter->setPen(QPen(focused ? t.brass : t.hairline, 1));
    painter->setBrush(here ? QBrush(t.raised) : QBrush(Qt::NoBrush));
    painter->drawRoundedRect(row.adjusted(0.5, 1.5, -0.5, -2.5), 5, 5);
  }
  const double ratio = painter->device()->devicePixelRatioF();
  painter->drawPixmap(QPointF(row.left() + t.picture_px(8), row.center().y() - t.picture_px(34) / 2 - 1),
                      silhouette(part, ratio));
  const double left = row.left() + t.picture_px(58), wide = row.right() - t.picture_px(34) - left;
  const auto line = [&](const QFont& font, const QColor& colour, double top, double high, double width,
                        const QString& words) {
    painter->setFont(font);
    painter->setPen(colour);
    painter->drawText(QRectF(left, row.top() + top, width, high), Qt::AlignLeft | Qt::AlignVCenter,
                      painter->fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(width)));
  };
  line(t.text(here), t.ink, t.px(9), t.px(20), wide, index.data().toString());
  const double below_ring = row.right() - left - t.picture_px(8);
  line(t.small(), t.muted, t.px(31), t.px(18), below_ring, index.data(ShelfModel::below_role).toString());
  const double across = t.picture_px(15);
  const QRectF ring(row.right() - across - t.picture_px(11), row.top() + t.px(19) - across / 2, across,
                    across);
  painter->setBrush(Qt::NoBrush);
  painter->setPen(QPen(t.track, t.picture_px(3)));
  painter->drawEllipse(ring);
  painter->setPen(QPen(t.brass, t.picture_px(3), Qt::SolidLine, Qt::FlatCap));
  painter->drawArc(ring, 90 * 16, static_cast<int>(-360 * 16 * index.data(ShelfModel::done_role).toDouble()));
  painter->restore();
}

Shelf::Shelf(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), model_(new ShelfModel(document, this)), list_(new QListView) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 16, 8, 12);
  column->setSpacing(6);
  auto* heading = heading_label("Parts");
  heading->setContentsMargins(12, 0, 0, 0);
  column->addWidget(heading);
  list_->setModel(model_);
  list_->setItemDelegate(new ShelfDelegate(document, list_));
  connect(&document.solids(), &PartSolids::made, list_, [this] { list_->viewport()->update(); });
  list_->setUniformItemSizes(true);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  list_->setSelectionMode(QAbstractItemView::SingleSelection);
  list_->setProperty("painted", true);
  list_->setAccessibleName("Parts");
  column->addWidget(list_, 1);
  // A click chooses; with the keyboard one looks first and chooses with Enter.
  connect(list_, &QListView::clicked, this, [this](const QModelIndex& at) { choose(at.row()); });
  connect(list_, &QListView::activated, this, [this](const QModelIndex& at) { choose(at.row()); });
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

void Shelf::choose(int row) {
  if (const auto piece = model_->piece_at(row); piece != 0) document_.choose(model_->part_at(row), piece);
}

void Shelf::refresh() {
  model_->refresh();
  const int row = model_->row_of(document_.piece());
  if (row >= 0 && list_->currentIndex().row() != row) list_->setCurrentIndex(model_->index(row));
}

} // namespace datrin::app
