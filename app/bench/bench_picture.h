#pragma once
// The part as it lies in the machine, turned the way a person stands before it: the one view that shows what
// the step is about, as large as it goes; what it is about in brass, what touches it, and the way from the
// datum to where the tool goes.

#include "app/marks/spoken.h"
#include "route/machine_axes.h"
#include "sheets/as_held.h"
#include "sheets/scene.h"

#include <QPixmap>
#include <QWidget>

#include <array>
#include <optional>
#include <vector>

class QPainter;

namespace datrin::app {

class BenchPicture : public QWidget, public SpokenPicture {
public:
  explicit BenchPicture(QWidget* parent = nullptr);

  struct Shown {
    sheets::SceneInput part;
    qlonglong of_part = 0; ///< which, and as of which state of the build: `part` is the same while these
    quint64 as_of = 0;     ///< and the solid in it are
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
  /// What the drawn part hangs on; the finder and the way are painted over it.
  struct Drawn {
    qlonglong of_part = 0;
    quint64 as_of = 0;
    const sheets::SolidPicture* solid = nullptr;
    std::array<double, 3> way{}; ///< how it is held
    bool lathe = false, third_angle = false;
    std::optional<sheets::View> view;
    std::vector<int> lit;
    bool with_place = false;
    QSize size;
    double pixels = 0;
    bool operator==(const Drawn&) const = default;
  };
  Drawn wanted() const;
  void draw_part();
  void draw_view(QPainter& p, sheets::View view, const sheets::Scene& scene);
  void paint_touch(QPainter& p, const Placed& placed);
  void paint_way(QPainter& p, const Placed& placed);

  Shown shown_;
  std::optional<Drawn> drawn_; ///< what `picture_` is of
  QPixmap picture_;
  sheets::ThreeViews views_;
  Vec2 low_ = Vec2::Zero(), high_ = Vec2::Zero(); ///< of the part in the one view, mm on its paper
};

/// The view that shows a step: from the tool what is gone to in X and Y and what is round about it, from the
/// front heights and what looks up, from the side what looks to or from one. Nothing: it is about no place.
std::optional<sheets::View> view_of_step(const route::AsHeld& held, const QString& axis,
                                         const Vec3& direction, bool round);

} // namespace datrin::app
