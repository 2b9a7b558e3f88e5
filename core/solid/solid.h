#pragma once
// A part as a true solid: bodies fused and cut, or read from a STEP file. Plain structs outside; what is
// inside is Open CASCADE's, and stays in this folder. All in the drawing frame: mm, mm², mm³.

#include "solid/place.h"

#include <array>
#include <cstdint>
#include <memory>
#include <string>
#include <vector>

namespace datrin::solid {

struct Brep;

/// What shape a face has; those the seat knows, and others.
enum class FaceKind { plane, bore, boss, taper_bore, taper_shank, sphere, torus, other };
/// "plane", "bore", "boss", "cone" (both tapers), "sphere", "torus", "other".
std::string_view face_kind_name(FaceKind kind);

struct SolidFace {
  FaceKind kind = FaceKind::other;
  Surface shape; ///< a plane's point is the middle of its extents, a round one's lies on the axis at
                 ///< mid-length; of other kinds the point is somewhere on it, the direction out of the metal
  double width = 0, height = 0; ///< mm: as in Patch
  double area = 0;
  Vec3 on = Vec3::Zero(); ///< a place on it
  build::Id body = 0;     ///< the body it is of; 0: none, or not known
  BodyFace face = BodyFace::middle;
  int copy = 0;
  int profile_place = 0;

  FaceOf face_of() const { return {face, profile_place, copy}; } ///< of `body`
  void be(const FaceOf& of) { face = of.face, profile_place = of.profile_place, copy = of.copy; }
  bool known() const { return kind <= FaceKind::taper_shank; } ///< the seat knows such a surface
  Patch patch() const { return {shape, width, height}; }
};

struct Mesh {
  std::vector<std::array<float, 3>> at, normal;        ///< corners; normals out of the metal
  std::vector<std::array<std::uint32_t, 3>> triangles; ///< counter-clockwise seen from outside
  std::vector<std::uint32_t> face;                     ///< of each triangle: index into Solid::faces
};

/// An edge of it, where it lies.
struct SolidEdge {
  std::vector<std::array<float, 3>> at;
  bool smooth = false; ///< its two faces run into each other
};

/// A line scribed or a centre popped: no metal, but drawn.
struct SolidMark {
  build::Id body = 0;
  Vec3 from = Vec3::Zero(), to = Vec3::Zero(); ///< mm; of a pop the same
  Vec3 out = Vec3::UnitZ();                    ///< of the face it is on, out of the metal
};

/// A thread, which is drawn and not cut: its axis, and the diameter of its thin line (ISO 6410-1).
struct SolidThread {
  build::Id body = 0;
  Vec3 from = Vec3::Zero(), to = Vec3::Zero(); ///< mm: from the bottom of a hole to its mouth, from the foot
                                               ///< of a round to its end
  double diameter = 0;
  bool inside = false;  ///< of a hole
  bool through = false; ///< a hole that comes out at the other side: seen from both
};

/// Something that could not be made, or was made and is doubtful.
struct SolidProblem {
  build::Id body = 0; ///< 0: the solid as a whole
  std::string words;  ///< with the name of the body
};

enum class SolidStatus {
  not_run,
  made,
  partly, ///< some body was left out: see the problems
  empty,  ///< there is no metal
  failed
};

struct Solid {
  SolidStatus status = SolidStatus::not_run;
  std::string message; ///< empty when it was made whole
  std::vector<SolidProblem> problems;
  int bodies = 0;      ///< separate pieces of metal
  bool closed = false; ///< every shell is
  double volume = 0, area = 0;
  Vec3 centroid = Vec3::Zero();
  Mat3 inertia = Mat3::Zero(); ///< about the centroid, unit density: mm⁵
  Box box;
  std::vector<SolidFace> faces;
  Mesh mesh;
  std::vector<SolidMark> marks;
  std::vector<SolidThread> threads;
  std::vector<SolidEdge> edges;     ///< with the mesh; seams of round faces are none
  std::shared_ptr<const Brep> brep; ///< for views, sections, thickness, STEP

  bool usable() const { return status == SolidStatus::made || status == SolidStatus::partly; }
};

struct SolidOptions {
  bool mesh = true;
  double deflection = 0; ///< mm a triangle may lie off a curved face; 0: a five-hundredth of its size
  double angular_deflection = 0.3; ///< radians
  std::function<bool()> stop = {}; ///< asked now and then whether to give it up: it then fails
};

/// The solid of these bodies, taken in order. A body that cannot be made is left out and named.
Solid make_solid(const std::vector<PlacedBody>& bodies, const SolidOptions& options = {});

} // namespace datrin::solid
