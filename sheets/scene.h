#pragma once
// What is to be drawn of a part and its touches, seen from one side: lines and areas in mm on the paper of
// that view, each with the part it plays. Worked out without any painting, so that it can be tested without a
// window.

#include "geometry/best_fit.h"
#include "geometry/patch.h"

#include <memory>
#include <string>
#include <vector>

namespace datrin::sheets {

struct SolidPicture; // sheets/solid_picture.h

/// One view: `right` and `up` on the paper, `toward` the eye; right-handed, all unit, drawing frame.
struct ViewAxes {
  Vec3 right, up, toward;
  Vec2 on_paper(const Vec3& at) const { return {at.dot(right), at.dot(up)}; }
};

/// Upright elevation with `up` on top, seen from the side of `eye` (made square to `up`).
ViewAxes elevation(const Vec3& up, const Vec3& eye);

/// A surface of the part with the extents to draw it by.
struct SceneSurface {
  std::string name;
  Surface shape;
  double width = 0, height = 0; ///< mm; 0: as far as the other surfaces let it
  bool machined = true;

  Patch patch() const { return {shape, width, height}; }
};

struct SceneTouch {
  int surface = -1;
  Vec3 at = Vec3::Zero(); ///< drawing frame, at the seat
  int number = -1;        ///< its index in the survey, where not all are shown (rising); −1: its place here
};

/// Something noted on the casting, at a place.
struct SceneSpot {
  std::string letter;
  Vec3 at = Vec3::Zero(); ///< drawing frame, at the seat
};

struct SceneInput {
  std::vector<SceneSurface> surfaces;
  std::vector<SceneTouch> touches;
  std::vector<SceneSpot> spots;
  std::vector<Vec3> strays;                  ///< points of a scan given to no surface, some of them
  std::shared_ptr<const SolidPicture> solid; ///< null: only surfaces are stated

  bool empty() const { return surfaces.empty() && !solid; }
};

enum class Role {
  plate,    ///< area of the finished part
  raw,      ///< area of metal to come off
  rough,    ///< line of the rough surface
  finished, ///< line of a machined surface
  cast,     ///< line of a surface that stays as cast
  smooth,   ///< line where two faces run into each other; of a thread
  hidden,   ///< line behind metal
  centre    ///< centre line
};

struct ScenePath {
  Role role = Role::finished;
  int surface = -1;
  std::vector<std::vector<Vec2>> loops; ///< one polyline; for areas closed loops, odd–even
  bool closed = false;
  bool overlap = false; ///< its loops overlap: what any of them covers is covered
};

struct ScenePip {
  Vec2 at = Vec2::Zero();
  int touch = -1;
  int surface = -1;
};

struct Scene {
  std::vector<ScenePath> paths; ///< back to front
  std::vector<ScenePip> pips;
  Vec2 low = Vec2::Zero(), high = Vec2::Zero(); ///< bounds of the finished part on the paper
};

/// `input` with every extent filled in, as geometry/patch.h does.
SceneInput with_extents(SceneInput input);

/// The boss whose end a plane is: same axis, as wide as the plane both ways. Null when there is none.
const SceneSurface* boss_behind(const SceneInput& input, const SceneSurface& face);

/// The scene of `input` (extents filled in) in one view.
Scene make_scene(const SceneInput& input, const ViewAxes& view);

/// Box around the finished part (drawing frame), with some depth where it is flat; a 40 mm cube when there is
/// nothing yet.
Box bounds(const SceneInput& input);

} // namespace datrin::sheets
