#pragma once
// The shelf: the parts of the build, each piece with a silhouette drawn from its own surfaces and a ring that
// fills as it gets on: drawn, touched, seated.

#include "app/document.h"

#include <QWidget>

namespace datrin::app {

class ShelfItem : public QWidget {
  Q_OBJECT
public:
  ShelfItem(Document& document, build::Id part, build::Id piece, QWidget* parent = nullptr);
  build::Id part() const { return part_; }
  build::Id piece() const { return piece_; }
  QSize sizeHint() const override;

signals:
  void chosen();

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  Document& document_;
  build::Id part_, piece_;
  QString name_, below_;
  double done_ = 0; ///< 0 to 1
  QPixmap silhouette_;
};

class Shelf : public QWidget {
  Q_OBJECT
public:
  explicit Shelf(Document& document, QWidget* parent = nullptr);
  void refresh();
  std::vector<ShelfItem*> items() const { return items_; }

signals:
  void add_part();
  void quick_part();

private:
  Document& document_;
  QWidget* list_;
  std::vector<ShelfItem*> items_;
};

} // namespace datrin::app
