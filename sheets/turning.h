#pragma once
// The part inside its rough casting seen from anywhere: faces back to front, cut by a plane if one likes. No
// painting here, and no Qt.

#include "sheets/scene.h"

#include <optional>
#include <string>

namespace datrin::sheets {

struct TurnedFace {
  enum class Role { finished, cast, hole, rough };
  Role role = Role::finished;
  int surface = -1;
  std::vector<Vec2> outline; ///< mm on the paper
  double light = 1;          ///< 0 … 1: how squarely it faces the light
  double stock = 0;          ///< mm, of a rough face: metal over the finished one at its middle
  double depth = 0;          ///< mm towards the eye, of its middle
  bool edge = true;          ///< draw its outline (the strips of a round surface have none)
};

struct TurnedFigure {
  Vec2 at = Vec2::Zero();
  double stock = 0; ///< mm
  int surface = -1;
};

/// A cut: what lies beyond it, normal · x > at, is taken away.
struct SectionPlane {
  Vec3 normal = Vec3::UnitY();
  double at = 0;
};

struct TurnedScene {
  std::vector<TurnedFace> faces;                ///< back to front
  std::vector<ScenePip> pips;                   ///< touches not cut away
  std::vector<std::pair<Vec2, Vec2>> cut;       ///< where the section meets finished and cast surfaces
  std::vector<std::pair<Vec2, Vec2>> cut_rough; ///< and the rough ones
  std::vector<TurnedFigure> figures;            ///< stock of the faces that look this way
  Vec2 low = Vec2::Zero(), high = Vec2::Zero();
};

/// The eye looks from `yaw` (0: from the front, −y; growing to the right) and `pitch` above the level,
/// radians.
ViewAxes turned_axes(double yaw, double pitch);

/// `input` with extents filled in.
TurnedScene make_turned(const SceneInput& input, const ViewAxes& view,
                        const std::optional<SectionPlane>& section = std::nullopt);

} // namespace datrin::sheets
