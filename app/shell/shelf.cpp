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

constexpr int mask_scale = 3; // finer than it is shown at, whatever the size of text
constexpr QSize mask_size(42 * mask_scale, 34 * mask_scale);

/// The part as it is drawn by now: its area red, its lines green, fainter ones blue.
QImage draw_mask(const Document& document, build::Id part,
                 std::shared_ptr<const sheets::SolidPicture> solid) {
  const QSize size = mask_size;
  QImage mask(size, QImage::Format_ARGB32_Premultiplied);
  mask.fill(Qt::transparent);
  auto scene_input = part_scene(document.build(), part);
  scene_input.solid = std::move(solid);
  if (scene_input.empty()) return mask;
  auto scene = sheets::make_scene(scene_input, telling_view(scene_input));
  const Vec2 span = (scene.high - scene.low).cwiseMax(1.0);
  sheets::ViewFrame frame;
  frame.middle_mm = (scene.low + scene.high) / 2;
  frame.middle_px = {size.width() / 2.0, size.height() / 2.0};
  constexpr int edge = 4 * mask_scale;
  frame.scale = std::min((size.width() - edge) / span.x(), (size.height() - edge) / span.y());
  sheets::SceneStyle style;
  const QColor area(255, 0, 0), line(0, 255, 0), faint(0, 0, 255);
  style.ink = {Qt::transparent, area, line, faint, faint, faint};
  style.pen = 0.75 * mask_scale;
  style.show_touches = false;
  std::erase_if(scene.paths, [](const sheets::ScenePath& path) {
    return path.role == sheets::Role::centre || path.role == sheets::Role::hidden ||
           path.role == sheets::Role::smooth;
  });
  QPainter painter(&mask);
  sheets::paint_scene(painter, scene, frame, style);
  return mask;
}

/// A mask in the colours of the look, as large as it is shown.
QPixmap coloured(const QImage& mask, double ratio) {
  const auto size = picture_size();
  auto picture = mask.scaled(size * ratio, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                     .convertToFormat(QImage::Format_ARGB32_Premultiplied);
  const auto& t = theme();
  const QColor colours[] = {t.track, t.ink, t.muted};
  for (int y = 0; y < picture.height(); ++y) {
    auto* pixels = reinterpret_cast<QRgb*>(picture.scanLine(y));
    for (int x = 0; x < picture.width(); ++x) {
      const int share[] = {qRed(pixels[x]), qGreen(pixels[x]), qBlue(pixels[x])};
      int sum[3] = {0, 0, 0};
      for (int k = 0; k < 3; ++k) {
        sum[0] += share[k] * colours[k].red();
        sum[1] += share[k] * colours[k].green();
        sum[2] += share[k] * colours[k].blue();
      }
      constexpr int full = 255;
      pixels[x] = qRgba(std::min(full, sum[0] / full), std::min(full, sum[1] / full),
                        std::min(full, sum[2] / full), std::min(full, share[0] + share[1] + share[2]));
    }
  }
  auto pixmap = QPixmap::fromImage(picture);
  pixmap.setDevicePixelRatio(ratio);
  return pixmap;
}

} // namespace

ShelfDelegate::ShelfDelegate(Document& document, QObject* parent)
    : QStyledItemDelegate(parent), document_(document) {}

/// As it was kept with the file, or of its solid as soon as that is there, else of its surfaces.
void ShelfDelegate::draw(build::Id part, Drawn& kept) const {
  const auto& build = document_.build();
  kept.mask = document_.silhouettes().of(build, part);
  kept.whole = !kept.mask.isNull();
  if (kept.whole) return;
  const auto solid = kept.bodies.empty() ? nullptr : document_.solid_of(part);
  kept.mask = draw_mask(document_, part, solid ? solid->picture : nullptr);
  kept.whole = kept.bodies.empty() || document_.solids().is_made(build, part);
  if (kept.whole && solid && solid->picture) document_.silhouettes().keep(build, part, kept.mask);
}

QPixmap ShelfDelegate::silhouette(build::Id part, double ratio) const {
  auto& kept = drawn_[part];
  auto surfaces = document_.build().surfaces_of(part);
  auto bodies = document_.build().bodies_of(part);
  const bool same = !kept.mask.isNull() && kept.surfaces == surfaces && kept.bodies == bodies;
  if (!same || !kept.whole) {
    kept.surfaces = std::move(surfaces);
    kept.bodies = std::move(bodies);
    draw(part, kept);
    kept.pixmap = {};
  }
  if (kept.pixmap.isNull() || kept.ink != theme().ink.rgb() || kept.pixmap.devicePixelRatio() != ratio ||
      kept.pixmap.deviceIndependentSize() != picture_size()) {
    kept.ink = theme().ink.rgb();
    kept.pixmap = coloured(kept.mask, ratio);
  }
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
