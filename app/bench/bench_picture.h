#pragma once
// The part as it lies in the machine, what the step is about in brass, and the way from the datum to where
// the tool goes.

#include "route/machine_axes.h"
#include "sheets/scene.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace datrin::app {

class BenchPicture : public QWidget {
public:
  explicit BenchPicture(QWidget* parent = nullptr);

  struct Shown {
    sheets::SceneInput part;
    route::AsHeld held;
    bool third_angle = false;
    std::vector<int> lit;         ///< surfaces of `part`
    std::optional<Vec3> at, from; ///< drawing frame
    QString axis;                 ///< along which it goes: "X"; empty: no way is drawn
    QString datum;                ///< what X0 is on
  };
  void show_step(Shown shown);
  QSize sizeHint() const override { return {520, 520}; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  Shown shown_;
};

} // namespace datrin::app
