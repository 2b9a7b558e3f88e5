#pragma once
// The map of the build on blued metal: parts as plates, joints as scribed lines with their room mark. Drag to
// pan, wheel or + and - to zoom, arrows to go from part to part.

#include "app/marks/spoken.h"
#include "app/overview/map_layout.h"

#include <QWidget>

namespace datrin::app {

struct MapPart {
  build::Id part = 0;
  QString name, below;
  double done = 0;   ///< of its dimensions that mate, measured
  bool next = false; ///< carries the number to cut next
};

struct MapJoint {
  build::Id joint = 0;
  int a = 0, b = 0; ///< parts, by their place in the list
  QString name;
  double room = 0;
  bool known = false, limiting = false;
};

class MapView : public QWidget, public SpokenPicture {
  Q_OBJECT
public:
  explicit MapView(QWidget* parent = nullptr);
  void show_map(std::vector<MapPart> parts, std::vector<MapJoint> joints);
  void set_empty_text(const QString& title, const QString& words);
  void set_chosen(build::Id part);
  void fit();
  QPointF place_px(int part) const; ///< middle of a plate on screen
  QPointF joint_px(int joint) const;
  double zoom() const { return zoom_; }
  const std::vector<MapPart>& parts() const { return parts_; }
  const std::vector<MapJoint>& joints() const { return joints_; }

signals:
  void part_chosen(qlonglong part);
  void part_opened(qlonglong part);
  void joint_opened(qlonglong joint);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  bool event(QEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  int part_at(const QPointF& px) const;
  int joint_at(const QPointF& px) const;
  void zoom_by(double factor, const QPointF& about);
  QRectF plate(int part) const;
  void stand_side_by_side();

  std::vector<MapPart> parts_;
  std::vector<MapJoint> joints_;
  std::vector<double> along_; ///< per joint: how far along what is seen of its line its mark stands, 0 to 1
  std::vector<MapPlace> places_;
  QString title_, words_;
  build::Id chosen_ = 0;
  double zoom_ = 1;
  QPointF shift_;      ///< of the map's corner, pixels
  bool moved_ = false; ///< by hand: resizing leaves it
  QPointF pressed_, last_;
  bool dragging_ = false;
};

} // namespace datrin::app
