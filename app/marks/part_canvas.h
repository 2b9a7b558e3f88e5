#pragma once
// The part on marking blue, in three views, with its touches: looked at in the drawing and touches steps,
// taken hold of in the seat step.

#include "app/marks/turning_view.h"
#include "sheets/scene_paint.h"
#include "sheets/three_views.h"

#include <QWidget>

#include <array>
#include <functional>
#include <memory>
#include <vector>

namespace datrin::app {

struct Ring {
  int touch = 0;  ///< index into SceneInput::touches
  int number = 0; ///< the number it has in the list beside
};

class PartCanvas : public QWidget {
  Q_OBJECT
public:
  explicit PartCanvas(QWidget* parent = nullptr);

  void set_scene(sheets::SceneInput input, bool third_angle);
  /// Where the solid of what is shown is to be had, asked for with every scene; `made` of it draws the scene
  /// again.
  using SolidSource = std::function<std::shared_ptr<const sheets::SolidPicture>()>;
  void set_solid_source(SolidSource source) { solid_source_ = std::move(source); }
  void draw_again();
  const sheets::Scene& scene(sheets::View view) const { return scenes_[static_cast<std::size_t>(view)]; }
  void set_rings(std::vector<Ring> rings);
  void set_lit_surface(int surface);
  void set_empty_text(const QString& title, const QString& words);
  TurningView* turning() const { return turning_view_; } ///< in the quarter no view needs
  void set_unit(Unit unit) { unit_ = unit; }

  /// Where the drawing frame is shown: identity, or the small motion from the place the picture was made for.
  void set_shown(const Pose& drawing_to_picture);

  void set_grabbable(bool on);
  sheets::View active_view() const { return active_; }
  void set_active_view(sheets::View view);
  const sheets::ThreeViews& views() const { return views_; }
  const sheets::SceneInput& scene_input() const { return input_; }
  QSize sizeHint() const override { return {760, 460}; }

  /// Where a touch is painted in a view, in widget pixels.
  Vec2 touch_px(int touch, sheets::View view) const;

signals:
  void grabbed();
  void dragged(const datrin::Vec3& move,
               const datrin::Vec3& turn); ///< of the part since grabbed; mm and radians, drawing frame
  void released();
  void angle_clicked();
  void view_chosen();
  void face_clicked(int face); ///< of the solid: index into Solid::faces

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  bool event(QEvent*) override;

private:
  int place_of(int touch) const; ///< in input_.touches; −1 when it is not shown
  void lay_out();
  void make_scenes();
  sheets::PaperMotion motion_in(std::size_t view) const;
  void paint_empty(QPainter& painter);
  QRectF angle_label() const;
  void paint_spots(QPainter& painter);

  sheets::SceneInput input_;
  SolidSource solid_source_;
  Box box_;
  bool third_angle_ = false, grabbable_ = false, grabbing_ = false, turning_ = false;
  std::array<sheets::Scene, 3> scenes_;
  sheets::ThreeViews views_;
  std::vector<Ring> rings_;
  int lit_ = -1;
  Pose shown_;
  QString empty_title_, empty_words_;
  TurningView* turning_view_;
  Unit unit_ = Unit::mm;
  sheets::View active_ = sheets::View::front;
  std::size_t grabbed_view_ = 0;
  Vec2 grabbed_at_ = Vec2::Zero(), grabbed_centre_ = Vec2::Zero();
};

} // namespace datrin::app
