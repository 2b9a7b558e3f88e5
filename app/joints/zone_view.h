#pragma once
// A joint on blued metal: the tolerance zones of hole and shaft to one scale from the nominal, what was read
// with its uncertainty, what is to be made, and the clearance between; below it a temperature to drag.

#include "app/marks/spoken.h"
#include "quantity/reckoning.h"
#include "quantity/tolerance.h"
#include "quantity/unit.h"

#include <QWidget>

#include <optional>

namespace datrin::app {

/// One side of the joint; all in mm, as deviations from the nominal of the joint.
struct ZoneSide {
  QString name;   ///< "Connecting rod, big end bore"
  QString limits; ///< "H7"
  bool there = false;
  Deviations drawn;
  std::optional<double> measured;
  double uncertainty = 0;
  std::optional<double> make;
  double hold = 0;
  double departs = 0;
  double grows = 0; ///< by the temperature

  double value() const { return measured ? *measured : make.value_or((drawn.lower + drawn.upper) / 2); }
};

struct ZonePicture {
  QString title;
  double nominal = 0; ///< mm
  ZoneSide hole, shaft;
  double least = 0, most = 0; ///< clearance wanted
  double temperature = 20;
  bool temperature_known = false; ///< the metals are
  bool known = false;
  Reckoning why; ///< the clearance, added up; F1 shows it
};

class ZoneView : public QWidget, public SpokenPicture {
  Q_OBJECT
public:
  explicit ZoneView(QWidget* parent = nullptr);
  void show_picture(const ZonePicture& picture, Unit unit);
  void set_empty_text(const QString& title, const QString& words);
  const ZonePicture& picture() const { return picture_; }
  double level_px(double mm) const; ///< of a deviation; for tests
  double temperature_px(double celsius) const;

signals:
  void temperature_dragged(double celsius);
  void temperature_let_go(double celsius);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  void scale();
  void paint_side(QPainter& p, const ZoneSide& side, double left, double width, bool hole) const;
  void drag(double x);

  ZonePicture picture_;
  Unit unit_ = Unit::mm;
  QString title_, words_;
  double low_ = 0, high_ = 1; ///< mm shown
  bool dragging_ = false;
};

} // namespace datrin::app
