#pragma once
// The metal over each surface as a column drawn to scale: the finished surface below, the raw one above with
// its highs and lows, the skin under it, the levels each cut goes down to, and where the cutting has come.

#include "allowance/plan.h"
#include "app/marks/spoken.h"

#include <QWidget>

#include <vector>

namespace datrin::app {

class MetalView : public QWidget, public SpokenPicture {
  Q_OBJECT
public:
  explicit MetalView(QWidget* parent = nullptr);
  void set_plans(const std::vector<allowance::SurfacePlan>& plans, Unit unit);
  void set_chosen(int k);
  int chosen() const { return chosen_; }
  void set_empty_text(const QString& title, const QString& words);
  QSize sizeHint() const override { return {760, 380}; }

  QRectF column(int k) const;             ///< where column k stands, pixels
  double level_px(double mm) const;       ///< height of a level over size, pixels from the top
  double scale() const { return scale_; } ///< pixels a mm

signals:
  void picked(int k);

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override { lay_out(); }
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  void lay_out();
  void paint_column(QPainter& p, int k) const;

  std::vector<allowance::SurfacePlan> plans_;
  Unit unit_ = Unit::mm;
  int chosen_ = -1;
  double scale_ = 40, base_ = 300, left_ = 40, wide_ = 80;
  QString title_, words_;
};

} // namespace datrin::app
