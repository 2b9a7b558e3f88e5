#pragma once
// The shelf: the parts of the build, each piece with a silhouette drawn from its own surfaces and a ring that
// fills as it gets on: drawn, touched, seated. Only the rows in sight are painted.

#include "app/document.h"
#include "app/shell/shelf_model.h"

#include <QListView>
#include <QStyledItemDelegate>
#include <QWidget>

#include <map>

namespace datrin::app {

/// Paints a row; keeps each part's silhouette until its drawing, the size or the colours change.
class ShelfDelegate : public QStyledItemDelegate {
public:
  explicit ShelfDelegate(Document& document, QObject* parent = nullptr);
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;

private:
  QPixmap silhouette(build::Id part, double ratio) const;

  struct Drawn {
    build::List<build::PartSurface> surfaces;
    build::List<build::Body> bodies;
    bool whole = false; ///< of its solid, or it has none: nothing better comes
    QImage mask;        ///< app/silhouettes.h
    QRgb ink = 0;
    QPixmap pixmap; ///< of the mask, in the colours of the look
  };
  void draw(build::Id part, Drawn& kept) const;
  Document& document_;
  mutable std::map<build::Id, Drawn> drawn_;
};

class Shelf : public QWidget {
  Q_OBJECT
public:
  explicit Shelf(Document& document, QWidget* parent = nullptr);
  void refresh();
  ShelfModel* model() const { return model_; }
  QListView* list() const { return list_; }
  /// The piece in row `row` is chosen in the document.
  void choose(int row);

signals:
  void add_part();
  void quick_part();

private:
  Document& document_;
  ShelfModel* model_;
  QListView* list_;
};

} // namespace datrin::app
