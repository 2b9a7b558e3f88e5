#pragma once
// The part as it lies in the machine, turned the way a person stands before it: the one view that shows what
// the step is about, as large as it goes; what it is about in brass, what touches it, and the way from the
// datum to where the tool goes.

#include "app/marks/spoken.h"
#include "route/machine_axes.h"
#include "sheets/as_held.h"
#include "sheets/scene.h"

#include <QWidget>

#include <optional>
#include <vector>

class QPainter;

namespace datrin::app {

class BenchPicture : public QWidget, public SpokenPicture {
public:
  explicit BenchPicture(QWidget* parent = nullptr);

  struct Shown {
    sheets::SceneInput part;
    route::AsHeld held;
    bool third_angle = false;
    std::optional<sheets::View> view; ///< nothing: all three
    std::vector<int> lit;             ///< surfaces of `part`
    std::optional<Vec3> at, from;     ///< drawing frame
    Vec3 touched = Vec3::Zero();      ///< the way the face looks that is touched at `at`; zero: none is
    double finder = 0;                ///< mm across what touches it
    QString axis;                     ///< along which it goes: "X"; empty: no way is drawn
    QString datum;                    ///< what X0 is on
    QString figure;                   ///< what is written on the way
  };
  void show_step(Shown shown);
  const Shown& shown() const { return shown_; }
  QSize sizeHint() const override { return {520, 520}; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  struct Placed;
  void paint_view(QPainter& p, sheets::View view, const sheets::ThreeViews& views);
  void paint_touch(QPainter& p, const Placed& placed);
  void paint_way(QPainter& p, const Placed& placed);

  Shown shown_;
};

/// The view that shows a step: from the tool what is gone to in X and Y and what is round about it, from the
/// front heights and what looks up, from the side what looks to or from one. Nothing: it is about no place.
std::optional<sheets::View> view_of_step(const route::AsHeld& held, const QString& axis,
                                         const Vec3& direction, bool round);

} // namespace datrin::app
