#pragma once
// Painting a scene: only paints; what is drawn and where is decided in scene.h and three_views.h.

#include "sheets/ink.h"
#include "sheets/scene.h"
#include "sheets/three_views.h"

#include <QPainter>

#include <vector>

namespace datrin::sheets {

struct SceneStyle {
  Ink ink;
  double pen = 1;   ///< thickness of a thin line in pixels; a finished line is 1.7 times as thick
  double pip = 2.6; ///< radius of a touch
  bool show_touches = true;
  int lit_surface = -1;            ///< drawn in brass
  std::vector<int> lit_surfaces{}; ///< so are these
};

/// A small rigid motion on the paper of one view, in mm: for a part that has been moved by hand in a picture
/// that stays with the casting.
struct PaperMotion {
  Vec2 about = Vec2::Zero();
  Vec2 move = Vec2::Zero();
  double turn = 0; ///< radians, left-handed on screen = counter-clockwise on paper
  Vec2 apply(const Vec2& at) const;
};

void paint_scene(QPainter& painter, const Scene& scene, const ViewFrame& frame, const SceneStyle& style,
                 const PaperMotion& motion = {});

/// A ring with its number beside it, for what limits.
void paint_ring(QPainter& painter, const Vec2& at_px, int number, const Ink& ink, double radius);

QPointF point(const Vec2& px);

} // namespace datrin::sheets
