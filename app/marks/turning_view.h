#pragma once
// The part inside its casting, turned by hand, and cut where one likes: stock as shades with figures.

#include "quantity/unit.h"
#include "sheets/turning.h"

#include <QElapsedTimer>
#include <QPixmap>
#include <QTimer>
#include <QWidget>

#include <functional>
#include <optional>

namespace datrin::app {

class TurningView : public QWidget {
public:
  explicit TurningView(QWidget* parent = nullptr);

  void set_scene(sheets::SceneInput input, Unit unit);
  /// What the thinnest wall near the section is, worked out by the page; nothing hides it.
  using WallNear = std::function<QString(const sheets::SectionPlane&)>;
  void set_wall_near(WallNear wall) { wall_near_ = std::move(wall); }

  /// Told of a click on a face of the solid: index into Solid::faces; −1: beside it.
  void set_face_clicked(std::function<void(int)> clicked) { face_clicked_ = std::move(clicked); }
  /// The face of the solid drawn in brass; −1: none.
  void set_lit_face(int face);
  int lit_face() const { return lit_face_; }

  double yaw() const { return yaw_; }
  double pitch() const { return pitch_; }
  void turn_to(double yaw, double pitch);
  const std::optional<sheets::SectionPlane>& section() const { return section_; }
  void cut_across(int axis); ///< 0 … 2: through the middle, across x, y or z; the same again: no cut
  void move_cut(double mm);
  const sheets::TurnedScene& scene() const { return scene_; }
  QString caption() const;

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  void make();
  void render();
  void paint_solid(QPainter& painter, double scale, const Vec2& middle, const QPointF& centre);
  void mouseReleaseEvent(QMouseEvent*) override;
  void change_now(); ///< the person turned or cut it: no waiting

  sheets::SceneInput input_;
  Unit unit_ = Unit::mm;
  sheets::TurnedScene scene_;
  bool stale_ = true, focused_ = false;
  std::optional<sheets::SectionPlane> section_;
  WallNear wall_near_;
  double yaw_, pitch_;
  QPointF pressed_, pressed_first_;
  std::function<void(int)> face_clicked_;
  int lit_face_ = -1;
  double scale_ = 1; ///< pixels a mm, and what of the paper lies where, as last painted
  Vec2 middle_ = Vec2::Zero();
  QPointF centre_;
  QPixmap picture_; ///< of the scene: beside a drag it is made anew some times a second only
  QElapsedTimer made_;
  QTimer later_;
};

} // namespace datrin::app
